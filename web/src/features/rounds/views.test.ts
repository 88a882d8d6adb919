import 'fake-indexeddb/auto';
import type { RoundEntry, RoundResult, SessionView } from '@karyotome/contract';
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { button, mounted } from '../../../test/mounted.ts';
import { NodeBlob } from '../../../test/node-blob.ts';
import { roundAnimal, roundView, serveRound } from '../../../test/round.ts';
import { ProblemError } from '../../api/client.ts';
import { api } from '../../api/resources.ts';
import { dequeue, keptRound, queueOf } from '../../offline/device.ts';
import { useRoundQueue } from '../../offline/useRoundQueue.ts';
import { useSession } from '../../stores/session.ts';
import ShedsView from '../today/ShedsView.vue';
import QueueStatus from './QueueStatus.vue';
import RoundsView from './RoundsView.vue';

const ANN = 'an-account';
const session = {
  account: { id: ANN, name: 'Ann', email: 'ann@example.test' },
  role: 'owner',
  permissions: ['view', 'record', 'breed', 'house', 'sell', 'manage', 'destroy'],
  csrfToken: 't',
  collection: { massUnit: 'g', temperatureUnit: 'C' },
} as unknown as SessionView;
const unreachable = new ProblemError({ type: 'x', title: 'No', status: 0 });
const kept = (entries: RoundEntry[]): { results: RoundResult[] } => ({
  results: entries.map((entry) => ({ key: entry.key, status: 'kept', id: `r-${entry.key}`, alike: [] })),
});

beforeEach(() => localStorage.clear());
afterEach(async () => {
  vi.restoreAllMocks();
  document.body.innerHTML = '';
  await dequeue((await queueOf(ANN)).map(({ seq }) => seq!));
});
/** The screen as whoever is signed in sees it. */
async function opened(view = RoundsView) {
  const wrapper = mounted(view, {}, () => {
    useSession().view = session;
  });
  await flushPromises();
  return wrapper;
}
/** Waits for the racks, and goes to the first tub. */
async function begin(wrapper: Awaited<ReturnType<typeof opened>>): Promise<void> {
  const start = await vi.waitFor(() => button(wrapper, 'Begin with Left'));
  await start.trigger('click');
  await vi.waitFor(() => expect(wrapper.find('article').exists()).toBe(true));
}
const key = async (name: string): Promise<void> => {
  window.dispatchEvent(new KeyboardEvent('keydown', { key: name, cancelable: true }));
  await flushPromises();
};

describe('a round', () => {
  test('by keys: what is pressed is entered, the round goes on, and the last is taken back', async () => {
    serveRound(roundView('11', '12', '13'));
    const send = vi.spyOn(api, 'sendRound').mockImplementation((entries) => Promise.resolve(kept(entries)));
    const wrapper = await opened();
    await begin(wrapper);
    await vi.waitFor(() => expect(wrapper.find('article').attributes('aria-label')).toContain('11'));
    await key('t');
    await vi.waitFor(() => expect(wrapper.find('article').attributes('aria-label')).toContain('12'));
    await vi.waitFor(() => expect(send).toHaveBeenCalledTimes(1));
    expect(wrapper.text()).toContain('11: rat pup taken');
    // A sign of a shed is logged where one stands.
    await key('b');
    expect(wrapper.find('article').attributes('aria-label')).toContain('12');
    await vi.waitFor(() => expect(wrapper.text()).toContain('12: blue eyes'));
    await key('u');
    await vi.waitFor(() => expect(wrapper.text()).not.toContain('12: blue eyes'));
    await key('ArrowRight');
    await key('ArrowRight');
    await vi.waitFor(() => expect(wrapper.find('article').exists()).toBe(false));
  });

  test('a photograph that was sent is taken back as the picture it has become', async () => {
    serveRound(roundView('11', '12'));
    vi.spyOn(api, 'addPicture').mockResolvedValue({ id: 'picture' });
    const remove = vi.spyOn(api, 'deletePicture').mockResolvedValue(undefined);
    const wrapper = await opened();
    await begin(wrapper);
    const photo = new NodeBlob(['x'], { type: 'image/png' }) as unknown as Blob;
    const { id, number } = roundAnimal('11');
    await useRoundQueue().addPhoto({ animalId: id, number, text: 'a photograph' }, photo);
    const back = await vi.waitFor(() => button(wrapper, 'Take back: a photograph'));
    await vi.waitFor(() => expect(useRoundQueue().entries).toEqual([]));
    await back.trigger('click');
    await vi.waitFor(() => expect(remove).toHaveBeenCalledWith('picture'));
    await vi.waitFor(() => expect(wrapper.text()).not.toContain('a photograph'));
  });

  test('where the keeper wants so, it stays after a meal', async () => {
    localStorage.setItem('karyotome.round.advances', 'false');
    serveRound(roundView('11', '12'));
    vi.spyOn(api, 'sendRound').mockImplementation((entries) => Promise.resolve(kept(entries)));
    const wrapper = await opened();
    await begin(wrapper);
    await key('r');
    await vi.waitFor(() => expect(wrapper.text()).toContain('11: rat pup refused'));
    expect(wrapper.find('article').attributes('aria-label')).toContain('11');
  });

  test('without a connection it is the round that was last read here, and says so', async () => {
    const read = serveRound(roundView('11'));
    const before = await opened();
    await vi.waitFor(async () => expect(await keptRound(ANN)).not.toBeNull());
    before.unmount();
    read.mockRejectedValue(unreachable);
    const wrapper = await opened();
    await vi.waitFor(() => expect(wrapper.text()).toContain('this is the round as it was read'));
    expect(wrapper.text()).toContain('Left');
  });

  test('what the device cannot write is said, not lost in silence', async () => {
    serveRound(roundView('11', '12'));
    const wrapper = await opened();
    vi.spyOn(useRoundQueue(), 'add').mockRejectedValue(new Error('QuotaExceededError'));
    await begin(wrapper);
    await key('l');
    const { useNotices } = await import('../../stores/notices.ts');
    expect(useNotices().current).toMatchObject({ isError: true });
    expect(useNotices().current!.text).toContain('could not be kept on this device');
  });
});

describe('what is on its way', () => {
  const subject = { animalId: roundAnimal('1').id, number: 'N-1', text: 'tub cleaned' };
  const record = { kind: 'care' as const, on: '2026-06-20', body: { act: 'cleaned' as const } };
  async function status() {
    const wrapper = mounted(QueueStatus, {});
    useSession().view = session;
    const queue = useRoundQueue();
    await queue.start();
    return { wrapper, queue };
  }

  test('waits in words, and is sent by a touch', async () => {
    const send = vi.spyOn(api, 'sendRound').mockRejectedValue(unreachable);
    const { wrapper, queue } = await status();
    expect(wrapper.text()).toContain('All kept');
    await queue.add(subject, record);
    await vi.waitFor(() => expect(wrapper.text()).toContain('No connection, 1 waiting'));
    send.mockImplementation((entries) => Promise.resolve(kept(entries)));
    await button(wrapper, 'Send now').trigger('click');
    await vi.waitFor(() => expect(wrapper.text()).toContain('All kept'));
  });

  test('what was refused is shown with its reason until it is dismissed', async () => {
    vi.spyOn(api, 'sendRound').mockImplementation((entries) =>
      Promise.resolve({
        results: entries.map((entry) => ({
          key: entry.key,
          status: 'refused',
          problem: {
            title: 'No',
            errors: [{ field: 'record.on', code: 'x', message: 'lies before the hatch date' }],
          },
        })),
      }),
    );
    const { wrapper, queue } = await status();
    await queue.add(subject, record);
    await vi.waitFor(() => expect(wrapper.text()).toContain('1 to review'));
    await button(wrapper, '1 to review').trigger('click');
    await flushPromises();
    expect(document.body.textContent).toContain('lies before the hatch date');
    [...document.querySelectorAll<HTMLElement>('button')]
      .find((one) => one.textContent!.includes('Dismiss'))!
      .click();
    await vi.waitFor(() => expect(queue.refused).toEqual([]));
  });
});

describe('sheds', () => {
  const shed = {
    stage: 'blue' as const,
    since: '2026-06-18',
    days: 2,
    record: 's',
    expected: { from: '2026-06-22', mid: '2026-06-24', to: '2026-06-26' },
    ownCycles: 3,
    late: true,
  };
  const soak = {
    since: '2026-06-17',
    record: 's',
    what: 'both' as const,
    soaks: ['2026-06-18', '2026-06-19', '2026-06-20'],
    dueToday: false,
    veterinarian: true,
  };

  test('who is in shed with its day, what is still to come off, and who was asked too often of a soak', async () => {
    const view = roundView('11', '12', '13');
    view.racks[0]!.tubs[0]!.animals[0] = roundAnimal('11', { shed });
    view.racks[0]!.tubs[1]!.animals[0] = roundAnimal('12', { soak });
    vi.spyOn(api, 'sheds').mockResolvedValue(view);
    const add = vi
      .spyOn(api, 'addRecord')
      .mockResolvedValue({ id: 'r', warnings: [], isWarningPending: false });
    const wrapper = await opened(ShedsView as never);
    await vi.waitFor(() => expect(wrapper.text()).toContain('In shed'));
    expect(wrapper.text()).toContain('also by 3 sheds of its own');
    expect(wrapper.text()).toContain('late: look again');
    expect(wrapper.text()).toContain('3 soaks did not do it');
    await button(wrapper, '11: Shed whole').trigger('click');
    await flushPromises();
    expect(add.mock.lastCall![1]).toMatchObject({ kind: 'shed', body: { stage: 'shed', complete: true } });
  });

  test('nobody in shed is said, with the way to look', async () => {
    vi.spyOn(api, 'sheds').mockResolvedValue({ today: '2026-06-20', racks: [] });
    const wrapper = await opened(ShedsView as never);
    await vi.waitFor(() => expect(wrapper.text()).toContain('Nobody is in shed'));
    expect(button(wrapper, 'Go round').attributes('href')).toBe('/rounds');
  });
});
