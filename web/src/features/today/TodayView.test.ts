import type { SessionView, TodayLine, TodayView as View } from '@karyotome/contract';
import { ACT_OF_KIND, isOverdue, TASK_ACTS, type TaskAct } from '@karyotome/core';
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { button, mounted } from '../../../test/mounted.ts';
import { mealDue, todayLine } from '../../../test/today.ts';
import { api } from '../../api/resources.ts';
import { useRoundQueue } from '../../offline/useRoundQueue.ts';
import { useSession } from '../../stores/session.ts';
import TodayView from './TodayView.vue';

const TODAY = '2026-06-20';
const animalAt = (number: string, rack: string, slot: number): TodayLine['animal'] =>
  ({
    id: number,
    number,
    label: 'Pastel',
    sex: 'male',
    clutchId: null,
    identified: true,
    tub: { tubId: `t${slot}`, room: 'Room', rack, level: 1, slot },
  }) as unknown as TodayLine['animal'];
const PRESET = { species: 'rat', size: 'pup', preyG: 25, state: 'frozen-thawed', step: null } as const;
const meal = (number: string, slot: number, dueOn = TODAY): TodayLine =>
  todayLine(mealDue(), { preset: PRESET, animal: animalAt(number, 'A', slot), dueOn });
const LINES: TodayLine[] = [
  todayLine({
    code: 'prey-order-due',
    facts: { prey: 'rat pup', left: 9, tonight: 3, perWeek: 7, reorderAt: 20, runsOutOn: null },
  }),
  todayLine(
    { code: 'heat-check-due', facts: { everyDays: 30 } },
    { zone: { id: 'z', name: 'Mat', rack: 'B' } },
  ),
  meal('N-1', 1),
  meal('N-2', 2, '2026-06-18'),
  todayLine(
    { code: 'shed-due', facts: { stage: 'blue', day: 5, from: '2026-06-21', to: '2026-06-24' } },
    { dueOn: '2026-06-15', animal: animalAt('N-3', 'B', 1) },
  ),
  todayLine(
    {
      code: 'below-own-best',
      facts: { massG: 176, bestG: 200, bestOn: '2026-05-01', loss: 0.12, limit: 0.1 },
    },
    { animal: animalAt('N-4', 'B', 2) },
  ),
];

/** What the server would answer: what was missed first, then as it was asked for. */
function answer({ act, by }: Readonly<Record<string, string>>): Promise<View> {
  const actOf = (line: TodayLine): TaskAct => ACT_OF_KIND[line.kind];
  const rank = (line: TodayLine): number =>
    (isOverdue(line, TODAY) ? 0 : 100) + (by === 'act' ? TASK_ACTS.indexOf(actOf(line)) : 0);
  const wanted = LINES.filter((line) => act === undefined || actOf(line) === act);
  const count = (one: TaskAct): number => LINES.filter((line) => actOf(line) === one).length;
  return Promise.resolve({
    today: TODAY,
    thaw: [{ prey: 'rat pup', count: 3, left: -2 }],
    lines: wanted.toSorted((a, b) => rank(a) - rank(b)),
    next: null,
    total: wanted.length,
    counts: Object.fromEntries(TASK_ACTS.map((one) => [one, count(one)])) as View['counts'],
    overdue: wanted.filter((line) => isOverdue(line, TODAY)).length,
  });
}

beforeEach(() => {
  localStorage.clear();
  vi.spyOn(api, 'today').mockImplementation(answer);
});
afterEach(() => {
  vi.restoreAllMocks();
  document.body.innerHTML = '';
});
async function opened() {
  const wrapper = mounted(TodayView, {});
  useSession().view = {
    permissions: ['view', 'record', 'breed', 'house', 'sell', 'manage'],
    collection: {},
    account: {},
  } as unknown as SessionView;
  await flushPromises();
  return wrapper;
}
const heads = (wrapper: Awaited<ReturnType<typeof opened>>): string[] =>
  wrapper.findAll('h2').map((head) => head.text().replace(/\s+/g, ' '));

test('what was missed stands first, then the room in walking order; a shed that lasts was not missed', async () => {
  const wrapper = await opened();
  expect(heads(wrapper)).toEqual(['Overdue 1', 'Room', 'Room · A', 'Room · B']);
  expect(wrapper.text()).toContain('3 × rat pup (2 short)');
});

test('by act instead, and that is remembered', async () => {
  const wrapper = await opened();
  await button(wrapper, 'By act').trigger('click');
  await flushPromises();
  expect(heads(wrapper)).toEqual(['Overdue 1', 'Meals', 'Sheds', 'Concerns', 'Room']);
  expect(localStorage.getItem('karyotome.today.by')).toBe('act');
});

test('counts say what is left of each, and choosing one shows only that', async () => {
  const wrapper = await opened();
  const chips = wrapper.findAll('.v-chip').map((chip) => chip.text().replace(/\s+/g, ' '));
  expect(chips).toContain('All 6');
  expect(chips).toContain('Meals 2');
  expect(chips).toContain('Concerns 1');
  await wrapper
    .findAll('.v-chip')
    .find((chip) => chip.text().startsWith('Sheds'))!
    .trigger('click');
  await flushPromises();
  expect(wrapper.findAll('.line')).toHaveLength(1);
});

test('one row for all that an animal needs, and keys for its meal', async () => {
  const due = { ...meal('N-1', 1), key: 'one' };
  const weighing = todayLine(
    { code: 'weighing-due', facts: { lastOn: '2026-04-01', massG: 200, everyDays: 30 } },
    { animal: animalAt('N-1', 'A', 1) },
  );
  const lines = [due, { ...weighing, staysInTub: true }, { ...meal('N-2', 2), key: 'two' }];
  const counts = Object.fromEntries(TASK_ACTS.map((one) => [one, one === 'meal' ? 2 : 0])) as View['counts'];
  vi.spyOn(api, 'today').mockResolvedValue({
    ...{ today: TODAY, thaw: [], lines, next: null, total: 3, counts, overdue: 0 },
  });
  const add = vi
    .spyOn(api, 'addRecord')
    .mockResolvedValue({ id: 'r', warnings: [], isWarningPending: false });
  const wrapper = await opened();
  const rows = wrapper.findAll('.line');
  expect(rows.map((row) => row.attributes('aria-label'))).toEqual([
    expect.stringMatching(/^N-1: Offer rat pup.*; Weigh/),
    expect.stringMatching(/^N-2: Offer rat pup/),
  ]);
  expect(rows[0]!.text()).toContain('stays in its tub');
  await rows[0]!.trigger('keydown', { key: 'r' });
  await flushPromises();
  expect(add.mock.calls.map(([id, record]) => [id, record.body])).toEqual([
    ['N-1', { species: 'rat', size: 'pup', state: 'frozen-thawed', taken: false }],
  ]);
});

test('the meals of a rack are entered at once, but for those that did not take them', async () => {
  const wrapper = await opened();
  expect(wrapper.text()).not.toContain('Feed all');
  const lines = [meal('N-1', 1), meal('N-2', 2), meal('N-3', 3)].map((line, i) => ({
    ...line,
    key: `k${i}`,
  }));
  const counts = Object.fromEntries(TASK_ACTS.map((one) => [one, one === 'meal' ? 3 : 0])) as View['counts'];
  vi.spyOn(api, 'today').mockResolvedValue({
    ...{ today: TODAY, thaw: [], lines, next: null, total: 3, counts, overdue: 0 },
  });
  const send = vi.spyOn(useRoundQueue(), 'add').mockResolvedValue('key');
  await button(wrapper, 'By act').trigger('click');
  await flushPromises();
  await button(wrapper, 'Feed all of Meals').trigger('click');
  const offers = await vi.waitFor(() => {
    const found = [...document.querySelectorAll<HTMLElement>('.v-dialog .one')];
    expect(found).toHaveLength(3);
    return found;
  });
  offers[1]!.click();
  offers[2]!.click();
  await flushPromises();
  offers[2]!.click();
  await flushPromises();
  const enter = [...document.querySelectorAll('button')].find(({ textContent }) =>
    textContent?.includes('Enter: 1 took it, 1 refused, 1 left out'),
  );
  enter!.click();
  await flushPromises();
  expect(send.mock.calls.map(([{ number, text }]) => [number, text])).toEqual([
    ['N-1', 'rat pup taken'],
    ['N-2', 'rat pup refused'],
  ]);
});

test('heat is checked where one stands', async () => {
  const wrapper = await opened();
  await button(wrapper, 'Check…').trigger('click');
  await flushPromises();
  // The dialog is loaded when it is asked for, which a busy machine takes its time for.
  await vi.waitFor(() => expect(document.body.textContent).toContain('Heat at the surface'), {
    timeout: 20_000,
  });
  expect(document.body.textContent).toContain('B, Mat');
});
