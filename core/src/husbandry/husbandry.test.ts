import { describe, expect, test } from 'vitest';
import { addDays } from '../calendar/days.ts';
import { nextMeal } from '../feeding/next-meal.ts';
import { appetite, informativeOffers } from './appetite.ts';
import type { History } from './history.ts';
import { LADDER_PRESETS } from './ladders.ts';
import { adviseMove } from './move-advice.ts';
import { judgeMove } from './judge-move.ts';
import { inShed } from './shed-state.ts';
import { animalTasks, nextWeighing } from './today.ts';

const TODAY = '2026-06-30';
const steps = LADDER_PRESETS.find((preset) => preset.id === 'four-step-rack')!.steps;
const ago = (days: number): string => addDays(TODAY, -days);
const offers = (pattern: string, every = 7, last = 3): History['feedings'] =>
  [...pattern].map((mark, i) => ({
    id: `f${i}`,
    on: ago(last + (pattern.length - 1 - i) * every),
    taken: mark === '+',
  }));
const history = (more: Partial<History>): History => ({
  hatchedOn: ago(300),
  weights: [{ id: 'w', on: ago(5), massG: 320 }],
  feedings: offers('++++++'),
  sheds: [],
  moves: [],
  ...more,
});
const against = (h: History): string[] =>
  adviseMove(steps, 0, h, TODAY)
    .reasons.filter((reason) => reason.side === 'against')
    .map((reason) => reason.code);

// Rules of moving up, and the numbers: common practice of the trade, no source.
describe('advice on moving up', () => {
  test('over the weight, eating, not in shed: move up, and the reasons name their records', () => {
    const advice = adviseMove(steps, 0, history({}), TODAY);
    expect(advice).toMatchObject({ verdict: 'move-up', toStep: 1 });
    expect(advice.reasons[0]).toMatchObject({ side: 'for', records: ['w'] });
  });

  test('within the weight nothing is said, and the last step has nowhere to go', () => {
    expect(
      adviseMove(steps, 0, history({ weights: [{ id: 'w', on: ago(5), massG: 200 }] }), TODAY).verdict,
    ).toBe('none');
    expect(
      adviseMove(steps, 3, history({ weights: [{ id: 'w', on: ago(5), massG: 4000 }] }), TODAY).verdict,
    ).toBe('none');
  });

  test('a bold feeder goes up early', () => {
    const bold = history({ feedings: offers('++++++++'), weights: [{ id: 'w', on: ago(5), massG: 280 }] });
    expect(adviseMove(steps, 0, bold, TODAY).verdict).toBe('move-up');
    expect(adviseMove(steps, 0, { ...bold, feedings: offers('-+++++++') }, TODAY).verdict).toBe('none');
  });

  test.each([
    ['in shed', history({ sheds: [{ id: 's', on: ago(4), stage: 'blue' as const }] }), 'in-shed'],
    ['just fed', history({ feedings: offers('++++++', 7, 1) }), 'digesting'],
    ['refusing', history({ feedings: offers('++++--') }), 'refuses-meals'],
    ['shy on a good run', history({ feedings: offers('----++++') }), 'shy-feeder'],
    ['just moved', history({ moves: [{ id: 'm', on: ago(5), fromTub: 'A1', toTub: 'B1' }] }), 'settling'],
    ['weighed long ago', history({ weights: [{ id: 'w', on: ago(50), massG: 320 }] }), 'stale-mass'],
  ])('%s counts against it', (_, h, code) => {
    expect(against(h)).toEqual([code]);
    expect(adviseMove(steps, 0, h, TODAY).verdict).toBe('hold');
  });

  test('a shy feeder more than 20% over is moved all the same', () => {
    const over = history({ feedings: offers('----++++'), weights: [{ id: 'w', on: ago(5), massG: 365 }] });
    expect(adviseMove(steps, 0, over, TODAY).verdict).toBe('move-up');
  });

  test('one that pushes at its tub is moved although it refuses', () => {
    const refusing = history({ feedings: offers('++++--'), weights: [{ id: 'w', on: ago(5), massG: 380 }] });
    expect(adviseMove(steps, 0, refusing, TODAY).verdict).toBe('hold');
    const pushing = { ...refusing, care: [{ id: 'c', on: ago(3), act: 'pushing' as const }] };
    expect(adviseMove(steps, 0, pushing, TODAY).verdict).toBe('move-up');
  });

  test('a gravid female is left alone, but for the move into the last tub', () => {
    const gravid = { gravid: true, stepOf: () => null };
    const heavy = (massG: number) => history({ weights: [{ id: 'w', on: ago(5), massG }] });
    expect(adviseMove(steps, 1, heavy(700), TODAY, gravid).verdict).toBe('hold');
    expect(adviseMove(steps, 2, heavy(2600), TODAY, gravid)).toMatchObject({ verdict: 'move-up' });
  });

  test('its own upper weight stands before the ladder’s', () => {
    expect(adviseMove(steps, 0, history({ own: { stayUntilG: 400 } }), TODAY).verdict).toBe('none');
  });

  test('one that was taken back waits for four meals or 100 g, and is not sent further back', () => {
    const circumstances = { gravid: false, stepOf: (tub: string) => ({ small: 0, large: 1 })[tub] ?? null };
    const back = { id: 'm', on: ago(30), fromTub: 'large', toTub: 'small' };
    const weights = [
      { id: 'v', on: ago(31), massG: 310 },
      { id: 'w', on: ago(5), massG: 330 },
    ];
    const advice = (feedings: string, more = weights) =>
      adviseMove(
        steps,
        0,
        history({ moves: [back], weights: more, feedings: offers(feedings, 7, 3) }),
        TODAY,
        circumstances,
      );
    expect(advice('++').verdict).toBe('hold');
    expect(advice('++').reasons.some(({ code }) => code === 'moved-back-recently')).toBe(true);
    expect(advice('++++').verdict).toBe('move-up');
    expect(advice('++', [weights[0]!, { id: 'w', on: ago(5), massG: 415 }]).verdict).toBe('move-up');
    expect(advice('----').verdict).not.toBe('go-back');
  });

  test('losing weight it goes back after two weeks already', () => {
    const moved = { id: 'm', on: ago(15), fromTub: 'A1', toTub: 'B1' };
    const weights = (last: number) => [
      { id: 'v', on: ago(16), massG: 320 },
      { id: 'w', on: ago(1), massG: last },
    ];
    const h = (last: number) =>
      history({ moves: [moved], weights: weights(last), feedings: offers('++--', 7, 2) });
    expect(adviseMove(steps, 1, h(300), TODAY).verdict).toBe('go-back');
    expect(adviseMove(steps, 1, h(322), TODAY).verdict).toBe('none');
  });

  test('three weeks of refusals after a move send it back', () => {
    const moved = { id: 'm', on: ago(22), fromTub: 'A1', toTub: 'B1' };
    const refusing = history({ moves: [moved], feedings: offers('+++---', 7, 2) });
    expect(adviseMove(steps, 1, refusing, TODAY).verdict).toBe('go-back');
    expect(judgeMove(moved, refusing, TODAY)).toBe('not-eating');
    expect(judgeMove(moved, { ...refusing, feedings: offers('+++-+', 7, 2) }, TODAY)).toBe('settled');
    expect(judgeMove({ ...moved, on: ago(6) }, { ...refusing, feedings: [] }, TODAY)).toBe('settling');
    expect(judgeMove(moved, { ...refusing, feedings: [] }, TODAY)).toBe('not-offered');
  });
});

describe('appetite', () => {
  test('a refusal in shed or right after a move does not count', () => {
    const h = history({
      feedings: offers('+++-'),
      sheds: [{ id: 's', on: ago(5), stage: 'blue' }],
    });
    expect(informativeOffers(h)).toHaveLength(3);
    expect(appetite(h)).toMatchObject({ inARow: 3, refusedInARow: 0, takenEver: 3, offeredEver: 4 });
  });

  test('a hatchling is first fed a week after its first shed, an adult every three weeks', () => {
    const hatchling = history({
      hatchedOn: ago(12),
      weights: [{ id: 'w', on: ago(12), massG: 68 }],
      feedings: [],
      sheds: [{ id: 's', on: ago(4), stage: 'shed', complete: true }],
    });
    expect(nextMeal(hatchling, TODAY)).toMatchObject({ dueOn: addDays(TODAY, 3), prey: 'rat pinky' });
    const adult = history({ weights: [{ id: 'w', on: ago(5), massG: 2000 }] });
    expect(nextMeal(adult, TODAY)).toMatchObject({ everyDays: 21, prey: 'rat small', massG: 100 });
    expect(nextMeal(history({ weights: [] }), TODAY)).toBeNull();
  });
});

describe('sheds', () => {
  test('a sign opens the cycle, the shed closes it, a forgotten sign fades', () => {
    expect(
      inShed(
        [
          { id: 'a', on: ago(6), stage: 'dull' },
          { id: 'b', on: ago(2), stage: 'blue' },
        ],
        TODAY,
      ),
    ).toMatchObject({
      stage: 'blue',
      days: 6,
    });
    expect(
      inShed(
        [
          { id: 'a', on: ago(6), stage: 'blue' },
          { id: 'b', on: ago(1), stage: 'shed' },
        ],
        TODAY,
      ),
    ).toBeNull();
    expect(inShed([{ id: 'a', on: ago(60), stage: 'blue' }], TODAY)).toBeNull();
  });
});

describe('today', () => {
  const quiet = { verdict: 'none' as const, toStep: null, reasons: [] };
  const kinds = (h: History, more: Partial<Parameters<typeof animalTasks>[0]> = {}): string[] =>
    animalTasks(
      {
        history: h,
        sex: { sex: 'male', on: ago(280) },
        identified: true,
        advice: quiet,
        meal: nextMeal(h, TODAY),
        concerns: [],
        cleanEveryDays: 14,
        ...more,
      },
      TODAY,
    ).map((t) => t.kind);

  test('a fed, weighed, identified male asks for nothing', () => {
    expect(kinds(history({ feedings: offers('+++', 7, 2) }))).toEqual([]);
  });

  test('a due meal, a stale weight, a female to check again', () => {
    const h = history({
      hatchedOn: ago(150),
      feedings: offers('++', 7, 12),
      weights: [{ id: 'w', on: ago(40), massG: 200 }],
    });
    expect(kinds(h, { sex: { sex: 'female', on: ago(140) } })).toEqual(['meal', 'weigh', 'sex']);
  });

  test('a snake in shed is neither fed nor weighed', () => {
    expect(
      kinds(history({ feedings: offers('++', 7, 30), sheds: [{ id: 's', on: ago(3), stage: 'blue' }] })),
    ).toEqual(['shed']);
  });

  test('a hatchling lives on yolk until its first shed', () => {
    const fresh = history({ hatchedOn: ago(8), weights: [{ id: 'w', on: ago(8), massG: 66 }], feedings: [] });
    expect(kinds(fresh, { identified: false })).toEqual(['first-shed']);
  });

  test('what was not certain is looked at again once it has shed since', () => {
    const shed = (days: number) => ({ id: 's', on: ago(days), stage: 'shed' as const });
    const h = (days: number) =>
      history({ hatchedOn: ago(60), feedings: offers('+', 7, 2), sheds: [shed(days)] });
    const unsure = { sure: 'probable', on: ago(30) };
    expect(kinds(h(10), { unsure })).toContain('identify');
    expect(kinds(h(40), { unsure })).not.toContain('identify');
    expect(kinds(h(10), { unsure: null })).not.toContain('identify');
  });

  test('a start with mice begins with mice on its day, and goes over to rats', () => {
    const plan = { firstMealOn: addDays(TODAY, 3), planId: 'small-mice' };
    const weights = [{ id: 'w', on: ago(5), massG: 66 }];
    expect(nextMeal(history({ weights, feedings: [], plan }), TODAY)).toMatchObject({
      prey: 'mouse hopper',
      dueOn: addDays(TODAY, 3),
    });
    const fed = offers('+++++', 7, 2);
    expect(nextMeal(history({ weights, feedings: fed, plan }), TODAY)!.prey).toBe('rat pinky');
  });

  test('a youngster is weighed monthly, an adult every two months', () => {
    expect(nextWeighing(history({ weights: [{ id: 'w', on: ago(5), massG: 200 }] }), [])).toBe(
      addDays(TODAY, 25),
    );
    expect(nextWeighing(history({ weights: [{ id: 'w', on: ago(5), massG: 1800 }] }), [])).toBe(
      addDays(TODAY, 55),
    );
    expect(nextWeighing(history({ weights: [] }), [])).toBeNull();
  });
});
