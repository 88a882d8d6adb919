import type { FeedingView } from '@karyotome/contract';
import { FEEDING_PLANS, FEEDING_RULES, ORDER_RULES, type TaskFact } from '@karyotome/core';
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { button, mounted, pageText } from '../../../test/mounted.ts';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { reachWords, workedWords } from '../animal/care-words.ts';
import TodayRow from '../today/TodayRow.vue';
import FeedingNightView from './FeedingNightView.vue';
import FeedingRulesDialog from './FeedingRulesDialog.vue';
import PlanDialog from './PlanDialog.vue';
import StockDialog from './StockDialog.vue';
import { roundAnimal } from '../../../test/round.ts';
import { mealDue, todayLine } from '../../../test/today.ts';

beforeEach(() => localStorage.clear());
afterEach(() => {
  vi.restoreAllMocks();
  document.body.innerHTML = '';
});
const submit = async (): Promise<void> => {
  document.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true }));
  await flushPromises();
};
const press = async (label: string): Promise<void> => {
  const found = [...document.querySelectorAll<HTMLElement>('button')].find(
    (one) => one.getAttribute('aria-label') === label || one.textContent!.trim() === label,
  )!;
  found.click();
  await flushPromises();
};
const planOf = (i: number): FeedingView['plans'][number] => ({
  ...FEEDING_PLANS[i]!,
  version: 0,
  builtIn: true,
  changed: false,
  animals: 3,
});

describe('plans', () => {
  test('a built-in plan goes to the server as it was shown, and steps change their order', async () => {
    const change = vi.spyOn(api, 'changeFeedingPlan').mockResolvedValue({ id: 'live-pinkies' });
    mounted(PlanDialog, { plan: planOf(0) });
    await press('Step 2 earlier');
    await submit();
    const [key, input, version] = change.mock.lastCall!;
    expect([key, version]).toEqual(['live-pinkies', 0]);
    expect(input.start).toEqual(FEEDING_PLANS[0]!.start);
    expect(input.steps.map((step) => step.key).slice(0, 3)).toEqual(['wait', 'planned', 'warmer']);
    // Whatever a step holds besides its place is kept.
    const { steps } = FEEDING_PLANS[0]!;
    expect(input.steps.find(({ key: k }) => k === 'assist')).toEqual(
      steps.find(({ key: k }) => k === 'assist'),
    );
    expect(input.steps.find(({ key: k }) => k === 'live')).toEqual(steps.find(({ key: k }) => k === 'live'));
  });

  test('a step without words is refused at its field', async () => {
    const add = vi.spyOn(api, 'addFeedingPlan').mockResolvedValue({ id: 'x' });
    mounted(PlanDialog, { plan: null });
    await press('Add a step');
    await submit();
    expect(add).not.toHaveBeenCalled();
    expect(pageText()).toContain('is empty');
  });

  test('a changed one is given back its first form', async () => {
    const remove = vi.spyOn(api, 'removeFeedingPlan').mockResolvedValue(undefined);
    const wrapper = mounted(PlanDialog, { plan: { ...planOf(1), version: 4, changed: true } });
    await press('As it was built in');
    expect(remove).toHaveBeenCalledWith('frozen-first', 4);
    expect(wrapper.emitted('close')).toHaveLength(1);
  });
});

describe('rules', () => {
  test('shares are said in percent and sent as they are stored', async () => {
    const change = vi.spyOn(api, 'changeFeedingRules').mockResolvedValue({ version: 8 });
    mounted(FeedingRulesDialog, { rules: FEEDING_RULES, order: ORDER_RULES, version: 7 });
    await submit();
    expect(change).toHaveBeenCalledWith({ feeding: FEEDING_RULES, order: ORDER_RULES }, 7);
  });

  test('a class is added before the last, which stays open', async () => {
    const change = vi.spyOn(api, 'changeFeedingRules').mockResolvedValue({ version: 8 });
    mounted(FeedingRulesDialog, { rules: FEEDING_RULES, order: ORDER_RULES, version: 7 });
    await press('Add a weight class');
    await submit();
    expect(change.mock.lastCall![0].feeding.classes.map(({ belowG }) => belowG)).toEqual([
      300,
      800,
      1500,
      1800,
      null,
    ]);
  });
});

describe('the freezer', () => {
  test('is booked with its day, and taken back by one touch', async () => {
    const add = vi.spyOn(api, 'addStock').mockResolvedValue({ id: 's' });
    const back = vi.spyOn(api, 'voidStock').mockResolvedValue(undefined);
    localStorage.setItem('karyotome.draft.stock', JSON.stringify({ quantity: 40 }));
    mounted(StockDialog, { begin: { prey: 'rat pup', kind: 'receipt' } });
    await submit();
    expect(add.mock.lastCall![0]).toMatchObject({ prey: 'rat pup', kind: 'receipt', quantity: 40 });
    await useNotices().current!.undo!();
    expect(back).toHaveBeenCalledWith('s', 'Undone');
  });

  test('the night shows what to thaw, what is short, who eats, and who is passed over and why', async () => {
    const { meal } = roundAnimal('1');
    const view: FeedingView = {
      today: '2026-06-20',
      rules: FEEDING_RULES,
      order: ORDER_RULES,
      rulesVersion: 1,
      plans: [],
      thaw: [{ prey: 'rat pup', count: 3 }],
      freezer: [
        {
          prey: 'rat pup',
          inStock: 2,
          tonight: 3,
          left: -1,
          aWeek: 7,
          runsOutOn: '2026-06-20',
          reorderAt: 20,
          order: true,
        },
      ],
      stock: [],
    };
    vi.spyOn(api, 'feedingNight').mockResolvedValue([
      {
        id: 'a',
        number: 'N-1',
        place: { tubId: 't1', room: 'Room', rack: 'Left', level: 1, slot: 1 },
        meal: meal!,
      },
      { id: 'b', number: 'N-2', place: null, meal: { ...meal!, verdict: 'in-shed' } },
    ]);
    vi.spyOn(api, 'feeding').mockResolvedValue(view);
    const wrapper = mounted(FeedingNightView, {});
    await flushPromises();
    expect(wrapper.text()).toContain('3 in all');
    expect(wrapper.text()).toMatch(/rat pup\s*order\s*2\s*-1/);
    expect(wrapper.text()).toContain('Eats tonight 1');
    expect(wrapper.text()).toContain('Passed over, in shed');
  });
});

describe('a line of Today', () => {
  const animal = { ...roundAnimal('1'), tub: null, clutchId: null, identified: true } as never;
  const row = (fact: TaskFact, more: Parameters<typeof todayLine>[1] = {}) =>
    mounted(TodayRow, { lines: [todayLine(fact, { animal, ...more })], mayRecord: true });

  test('a meal is logged with its state and step, and undone', async () => {
    const add = vi
      .spyOn(api, 'addRecord')
      .mockResolvedValue({ id: 'r', warnings: [], isWarningPending: false });
    const back = vi.spyOn(api, 'voidRecord').mockResolvedValue(undefined);
    const preset = { species: 'rat' as const, size: 'pup', preyG: 25, state: 'live' as const, step: 'live' };
    const wrapper = row(mealDue(), { preset });
    await button(wrapper, 'Refused').trigger('click');
    await flushPromises();
    expect(add.mock.lastCall![1]).toMatchObject({
      kind: 'feeding',
      body: { species: 'rat', size: 'pup', state: 'live', taken: false, step: 'live' },
    });
    await useNotices().current!.undo!();
    expect(back).toHaveBeenCalledWith('r', 'Undone');
  });

  test.each([
    [{ code: 'cleaning-due', facts: { lastOn: '2026-06-01', everyDays: 14 } }, 'Cleaned', 'cleaned'],
    [{ code: 'soak-due', facts: { remains: 'caps', soak: 1 } }, 'Soaked', 'soaked'],
    [{ code: 'retained-shed', facts: { remains: 'caps', soaks: 3 } }, 'All off', 'caps-checked'],
  ] as const)('%o: %s is done by one touch', async (fact, name, act) => {
    const add = vi
      .spyOn(api, 'addRecord')
      .mockResolvedValue({ id: 'r', warnings: [], isWarningPending: false });
    await button(row(fact), name).trigger('click');
    await flushPromises();
    expect(add.mock.lastCall![1]).toMatchObject({ kind: 'care', body: { act } });
  });

  test('heat opens its check, a second look its animal, the freezer its page', async () => {
    const zone = { id: 'z', name: 'Level 1', rack: 'Left' };
    const heat = row({ code: 'heat-check-due', facts: { everyDays: 30 } }, { animal: null, zone });
    await button(heat, 'Check…').trigger('click');
    expect(heat.emitted('heat')).toEqual([[zone]]);
    const concern = row({ code: 'below-growth', facts: { massG: 150, deviations: 3.4 } });
    expect(button(concern, 'Open').attributes('href')).toContain('/animals/');
    const stock = row(
      {
        code: 'prey-order-due',
        facts: { prey: 'rat pup', left: 9, tonight: 3, perWeek: 7, reorderAt: 20, runsOutOn: null },
      },
      { animal: null },
    );
    expect(button(stock, 'Open').attributes('href')).toBe('/today/feeding');
  });
});

describe('words', () => {
  test('what worked, by its name', () => {
    expect(workedWords({ by: 'step', value: 'warmer' })).toBe('Prey warmer, warmest at the head');
    expect(workedWords({ by: 'step', value: 'own-1' })).toBe('own-1');
    expect(workedWords({ by: 'state', value: 'fresh-killed' })).toBe('freshly killed');
    expect(workedWords({ by: 'light', value: 'dark' })).toBe('in the dark');
    expect(workedWords({ by: 'substrate', value: 'Paper' })).toBe('on paper');
    expect(workedWords({ by: 'tub', value: 'Hatchling tub' })).toBe('in the Hatchling tub');
  });

  test('when a weight is reached, as far as can be said', () => {
    expect(reachWords({ early: '2026-05-01', median: '2026-06-01', late: '2026-08-01' })).toBe(
      'about 1 Jun 2026, between 1 May 2026 and 1 Aug 2026',
    );
    expect(reachWords({ early: '2026-05-01', median: '2026-06-01', late: null })).toBe(
      'about 1 Jun 2026, not before 1 May 2026',
    );
    expect(reachWords({ early: '2028-05-01', median: null, late: null })).toBe('not before 1 May 2028');
    expect(reachWords({ early: null, median: null, late: null })).toBe('not within three years');
  });
});
