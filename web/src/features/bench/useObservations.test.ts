import type { BenchView } from '@karyotome/contract';
import { PiniaColada } from '@pinia/colada';
import { createPinia } from 'pinia';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { createApp, effectScope, nextTick, ref, type Ref } from 'vue';
import { benchView, hatchling } from '../../../test/bench.ts';
import { ProblemError } from '../../api/client.ts';
import { api } from '../../api/resources.ts';
import { BOX, useSorting } from './useSorting.ts';
import { useObservations } from './useObservations.ts';
import { CARD, usePictureQueue } from './usePictureQueue.ts';

/** Runs a composable as a component would, over a server that answers as told. */
function within<T>(run: () => T): { made: T; leave: () => void } {
  const app = createApp({}).use(createPinia()).use(PiniaColada);
  const scope = effectScope();
  return { made: app.runWithContext(() => scope.run(run)!), leave: () => scope.stop() };
}
const problem = (status: number) => new ProblemError({ type: 't', title: 'Refused', status });

beforeEach(() => {
  localStorage.clear();
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
  vi.restoreAllMocks();
});

describe('what was seen', () => {
  const one = hatchling('1', { observations: { 'lips: pale': 'seen' }, observationsVersion: 3 });
  const observationsOver = (view: Ref<BenchView | undefined>) => within(() => useObservations('c', view));

  test('a touch shows at once, and is saved with what was there before', async () => {
    const save = vi.spyOn(api, 'changeObservations').mockResolvedValue({ version: 4 });
    const { made } = observationsOver(ref(benchView([one])));
    made.mark(one.id, 'eyes: greenish', 'not-seen');
    expect(made.observationsOf(one)).toEqual({ 'lips: pale': 'seen', 'eyes: greenish': 'not-seen' });
    made.mark(one.id, 'lips: pale', null);
    await vi.advanceTimersByTimeAsync(1000);
    expect(save.mock.calls).toEqual([[one.id, { observations: { 'eyes: greenish': 'not-seen' } }, 3]]);
  });

  test('where somebody else looked too, theirs stays under this hand’s touches', async () => {
    const view = ref<BenchView | undefined>(benchView([one]));
    const save = vi
      .spyOn(api, 'changeObservations')
      .mockRejectedValueOnce(problem(412))
      .mockResolvedValue({ version: 6 });
    const { made } = observationsOver(view);
    made.mark(one.id, 'eyes: greenish', 'seen');
    await vi.advanceTimersByTimeAsync(1000);
    const theirs = { ...one, observations: { 'back: blushed': 'seen' as const }, observationsVersion: 5 };
    view.value = benchView([theirs]);
    await nextTick();
    await vi.advanceTimersByTimeAsync(1000);
    expect(save.mock.lastCall).toEqual([
      one.id,
      { observations: { 'back: blushed': 'seen', 'eyes: greenish': 'seen' } },
      5,
    ]);
  });

  test('with the line down it is kept through a reload, and sent by the next one who opens the clutch', async () => {
    const save = vi.spyOn(api, 'changeObservations').mockRejectedValue(problem(0));
    const first = observationsOver(ref(benchView([one])));
    first.made.mark(one.id, 'eyes: greenish', 'seen');
    await vi.advanceTimersByTimeAsync(1000);
    expect(first.made.failed.value).toBe('Refused');
    first.leave();
    await vi.advanceTimersByTimeAsync(1000);
    save.mockClear().mockResolvedValue({ version: 4 });
    const second = observationsOver(ref(benchView([one])));
    expect(second.made.observationsOf(one)).toHaveProperty(['eyes: greenish'], 'seen');
    await vi.advanceTimersByTimeAsync(1000);
    expect(save).toHaveBeenCalledOnce();
  });

  test('a look afresh takes everything back', async () => {
    const save = vi.spyOn(api, 'changeObservations').mockResolvedValue({ version: 4 });
    const { made } = observationsOver(ref(benchView([one])));
    made.clear(one.id);
    expect(made.observationsOf(one)).toEqual({});
    await vi.advanceTimersByTimeAsync(1000);
    expect(save.mock.lastCall![1]).toEqual({ observations: {} });
  });
});

describe('sorting', () => {
  const all = ['1', '2', '3'].map((number) => hatchling(number));
  const sortingOver = (view: BenchView) => within(() => useSorting('c', ref(view))).made;
  const numbers = (list: readonly { number: string }[]): string[] => list.map(({ number }) => number);

  test('an animal lies in one place, and what is not sorted lies in the box', async () => {
    const save = vi.spyOn(api, 'changeSorting').mockResolvedValue({ version: 1 });
    const sorting = sortingOver(benchView(all));
    expect(numbers(sorting.inBox.value)).toEqual(['1', '2', '3']);
    sorting.add('Bright', ['id-2']);
    sorting.add('Dull', ['id-2', 'id-3']);
    expect(sorting.groups.value.map((group) => numbers(sorting.membersOf(group)))).toEqual([[], ['2', '3']]);
    sorting.put('id-3', 0);
    sorting.put('id-2', BOX);
    expect(numbers(sorting.inBox.value)).toEqual(['1', '2']);
    sorting.arrange(0, ['id-1', 'id-3']);
    expect(sorting.groupOf('id-1')).toBe(0);
    sorting.rename(0, 'Brightest');
    sorting.remove(1);
    await vi.advanceTimersByTimeAsync(10);
    expect(save.mock.lastCall![1]).toEqual({ groups: [{ name: 'Brightest', animalIds: ['id-1', 'id-3'] }] });
  });

  test('one save is under way at a time, each on the version of the one before', async () => {
    let version = 0;
    const save = vi.spyOn(api, 'changeSorting').mockImplementation(async () => ({ version: ++version }));
    const sorting = sortingOver(benchView(all));
    sorting.add('A');
    sorting.add('B');
    sorting.add('C');
    await vi.advanceTimersByTimeAsync(10);
    expect(save.mock.calls.map(([, body, on]) => [body.groups.length, on])).toEqual([
      [1, 0],
      [3, 1],
    ]);
  });
});

describe('sorting that the server does not have yet', () => {
  const view = benchView(['1', '2'].map((number) => hatchling(number)));

  test('is kept through a reload, and sent then on the version that it was made from', async () => {
    vi.spyOn(api, 'changeSorting').mockRejectedValue(problem(0));
    const before = within(() => useSorting('kept', ref({ ...view, sortingVersion: 7 })));
    before.made.add('Bright', ['id-2']);
    await vi.advanceTimersByTimeAsync(10);

    const save = vi.spyOn(api, 'changeSorting').mockResolvedValue({ version: 8 });
    const after = within(() => useSorting('kept', ref({ ...view, sortingVersion: 7 }))).made;
    expect(after.groups.value).toEqual([{ name: 'Bright', animalIds: ['id-2'] }]);
    await vi.advanceTimersByTimeAsync(10);
    expect(save.mock.lastCall!.slice(1)).toEqual([{ groups: [{ name: 'Bright', animalIds: ['id-2'] }] }, 7]);
    save.mockClear();
    within(() => useSorting('kept', ref({ ...view, sortingVersion: 8 })));
    await vi.advanceTimersByTimeAsync(10);
    expect(save).not.toHaveBeenCalled();
  });
});

describe('pictures on their way', () => {
  const file = (name: string, type = 'image/jpeg', size = 10): File =>
    Object.defineProperty(new File(['x'], name, { type }), 'size', { value: size });
  const queueOf = () =>
    within(() => usePictureQueue('c', () => [hatchling('2601-01'), hatchling('2601-011')])).made;
  beforeEach(() => {
    vi.stubGlobal(
      'URL',
      Object.assign(URL, { createObjectURL: () => 'blob:x', revokeObjectURL: () => undefined }),
    );
  });

  test('a number in a file’s name says whose it is, the longest one that fits', () => {
    const { queue, take } = queueOf();
    take(
      [file('2601-011 back.jpg'), file('2601-01.JPG'), file('card.png', 'image/png'), file('IMG_4.jpg')],
      null,
    );
    expect(queue.value.map(({ to }) => to)).toEqual(['id-2601-011', 'id-2601-01', CARD, null]);
  });

  test('wrong types and too large ones are refused before they are sent', () => {
    const { queue, take } = queueOf();
    take([file('a.gif', 'image/gif'), file('b.jpg', 'image/jpeg', 26 * 1024 * 1024)], 'id-2601-01');
    expect(queue.value.map(({ state, reason }) => [state, reason])).toEqual([
      ['failed', 'must be a JPEG, PNG or WebP picture'],
      ['failed', 'is larger than 25 MB'],
    ]);
  });

  test('two at a time; what the server refuses stays with its reason and can be tried again', async () => {
    let under = 0;
    let most = 0;
    const add = vi.spyOn(api, 'addPicture').mockImplementation(async (_id, sent) => {
      most = Math.max(most, ++under);
      await new Promise((resolve) => setTimeout(resolve, 20));
      under--;
      if (sent.name === 'bad.jpg') throw problem(422);
      return { id: 'p' };
    });
    const { queue, take, send, done, again } = queueOf();
    take([file('1.jpg'), file('bad.jpg'), file('3.jpg'), file('4.jpg')], 'id-2601-01');
    const sending = send();
    await vi.advanceTimersByTimeAsync(200);
    await sending;
    expect(most).toBe(2);
    expect(done.value).toBe(3);
    const refused = queue.value.find(({ state }) => state === 'failed')!;
    expect(refused.reason).toBe('Refused');
    add.mockResolvedValue({ id: 'q' });
    again(refused);
    const second = send();
    await vi.advanceTimersByTimeAsync(200);
    await second;
    expect(done.value).toBe(4);
  });

  test('stopped, what is on its way arrives and the rest waits', async () => {
    vi.spyOn(api, 'addPicture').mockImplementation(async () => {
      await new Promise((resolve) => setTimeout(resolve, 20));
      return { id: 'p' };
    });
    const { queue, take, send, stop } = queueOf();
    take(
      Array.from({ length: 5 }, (_, i) => file(`${i}.jpg`)),
      'id-2601-01',
    );
    const sending = send();
    stop();
    await vi.advanceTimersByTimeAsync(200);
    await sending;
    expect(queue.value.map(({ state }) => state)).toEqual(['done', 'done', 'waiting', 'waiting', 'waiting']);
  });
});
