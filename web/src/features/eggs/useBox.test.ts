import type { BoxChange, ClutchView, EggView } from '@karyotome/contract';
import { PiniaColada } from '@pinia/colada';
import { createPinia } from 'pinia';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { createApp, effectScope, ref } from 'vue';
import { ProblemError } from '../../api/client.ts';
import { api } from '../../api/resources.ts';
import { useBox } from './useBox.ts';

const view = (massG: number, version = 1): ClutchView =>
  ({
    id: 'c1',
    version,
    eggs: [
      { id: 'e1', position: 1, verdict: 'good', massG, stuck: null, marked: false, x: 50, y: 50 } as EggView,
    ],
  }) as ClutchView;

/** The box over a server that answers as told. */
function setUp(clutch = ref(view(80))) {
  const app = createApp({}).use(createPinia()).use(PiniaColada);
  const scope = effectScope();
  const box = app.runWithContext(() => scope.run(() => useBox(() => clutch.value))!);
  return { box, clutch, leave: () => scope.stop() };
}
const weighed = (massG: number) => [
  { id: 'e1', verdict: 'good' as const, massG, stuck: null, marked: false, x: 50, y: 50 },
];
const sent = () =>
  vi.mocked(api.changeBox).mock.calls.map(([, body, version]) => [body.eggs[0]!.massG, version]);

beforeEach(() => {
  localStorage.clear();
  vi.useFakeTimers();
  vi.spyOn(api, 'changeBox').mockImplementation((_id: string, _body: BoxChange, version: number) =>
    Promise.resolve({ version: version + 1 }),
  );
});
afterEach(() => {
  vi.useRealTimers();
  vi.restoreAllMocks();
});

test('changes are shown at once, and sent when the hand rests: the last one only', async () => {
  const { box } = setUp();
  box.change(weighed(81));
  box.change(weighed(82));
  expect(box.eggs.value[0]!.massG).toBe(82);
  expect(box.isSaved.value).toBe(false);
  await vi.advanceTimersByTimeAsync(2000);
  expect(sent()).toEqual([[82, 1]]);
  expect(box.isSaved.value).toBe(true);
});

test('undo goes back step by step, and is saved too', async () => {
  const { box } = setUp();
  box.change(weighed(81));
  box.change(weighed(82));
  expect(box.mayUndo.value).toBe(true);
  box.undo();
  expect(box.eggs.value[0]!.massG).toBe(81);
  box.undo();
  expect(box.eggs.value[0]!.massG).toBe(80);
  expect(box.mayUndo.value).toBe(false);
  await vi.advanceTimersByTimeAsync(2000);
  expect(sent()).toEqual([[80, 1]]);
});

test('what was not sent when the page was left is kept, and sent by the next', async () => {
  const unreachable = new ProblemError({ type: 'x', title: 'The server cannot be reached', status: 0 });
  vi.mocked(api.changeBox).mockRejectedValueOnce(unreachable);
  const first = setUp();
  first.box.change(weighed(91));
  await vi.advanceTimersByTimeAsync(2000);
  expect(first.box.isSaved.value).toBe(false);
  expect(first.box.problem.value).toBe('The server cannot be reached');
  const second = setUp();
  expect(second.box.eggs.value[0]!.massG).toBe(91);
  await vi.advanceTimersByTimeAsync(2000);
  expect(sent().at(-1)).toEqual([91, 1]);
  expect(second.box.isSaved.value).toBe(true);
});

test('leaving the page sends what was just changed', async () => {
  const { box, leave } = setUp();
  box.change(weighed(93));
  leave();
  await vi.advanceTimersByTimeAsync(0);
  expect(sent()).toEqual([[93, 1]]);
});

test('what somebody else changed meanwhile is not overwritten without asking', async () => {
  const stale = new ProblemError({
    type: 'x',
    title: 'Stale',
    status: 412,
    detail: 'The clutch was changed in the meantime. Reload to see it.',
  });
  vi.mocked(api.changeBox).mockRejectedValueOnce(stale);
  const { box, clutch } = setUp();
  box.change(weighed(95));
  await vi.advanceTimersByTimeAsync(2000);
  expect(box.isStale.value).toBe(true);
  // The page has read the other's box by now; ours still stands in front of it.
  clutch.value = view(70, 2);
  expect(box.eggs.value[0]!.massG).toBe(95);
  await box.saveMine();
  expect(sent().at(-1)).toEqual([95, 2]);
  box.change(weighed(96));
  box.takeTheirs();
  expect(box.eggs.value[0]!.massG).toBe(70);
  expect(box.mayUndo.value).toBe(false);
});
