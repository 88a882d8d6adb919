import { describe, expect, test } from 'vitest';
import { addDays } from '../calendar/days.ts';
import type { CareAct, History, ShedStage } from './history.ts';
import { learnFromMoves, moveEpisodes, type TubKind } from './move-outcomes.ts';
import { shedCycle, soakPlan } from './shed-cycle.ts';

const TODAY = '2026-06-30';
const ago = (days: number): string => addDays(TODAY, -days);
const bare: History = { hatchedOn: ago(900), weights: [], feedings: [], sheds: [], moves: [] };
const shed = (days: number, stage: ShedStage, more = {}) => ({
  id: `${stage}${days}`,
  on: ago(days),
  stage,
  ...more,
});
const care = (days: number, act: CareAct) => ({ id: `${act}${days}`, on: ago(days), act });

// Stages and their days, soaks and their water: common practice, no source.
describe('the cycle of a shed', () => {
  test('about five days from blue to shed in a hatchling, longer in a grown one', () => {
    const sheds = [shed(2, 'blue')];
    expect(shedCycle({ ...bare, hatchedOn: ago(40), sheds }, TODAY)!.expected.mid).toBe(addDays(TODAY, 3));
    expect(shedCycle({ ...bare, sheds }, TODAY)!.expected.mid).toBe(addDays(TODAY, 6));
  });

  test('clear eyes bring the day nearer, and an own history moves it', () => {
    const now = [shed(6, 'blue'), shed(1, 'clear')];
    expect(shedCycle({ ...bare, sheds: now }, TODAY)!.expected.mid).toBe(addDays(TODAY, 4));
    const slow = [300, 250, 200, 150].flatMap((days) => [shed(days, 'clear'), shed(days - 9, 'shed')]);
    const cycle = shedCycle({ ...bare, sheds: [...slow, ...now] }, TODAY)!;
    expect(cycle.ownCycles).toBe(4);
    expect(cycle.expected.mid > addDays(TODAY, 5)).toBe(true);
    expect(cycle.expected.from <= cycle.expected.mid && cycle.expected.mid <= cycle.expected.to).toBe(true);
  });

  test('past its span it is late; after the shed there is no cycle', () => {
    expect(shedCycle({ ...bare, sheds: [shed(20, 'blue')] }, TODAY)!.late).toBe(true);
    expect(shedCycle({ ...bare, sheds: [shed(2, 'blue')] }, TODAY)!.late).toBe(false);
    expect(shedCycle({ ...bare, sheds: [shed(5, 'blue'), shed(1, 'shed')] }, TODAY)).toBeNull();
  });
});

describe('after a bad shed', () => {
  const bad = { ...bare, sheds: [shed(3, 'shed', { complete: false, eyeCaps: false })] };

  test('a soak a day, and after three it is a veterinarian’s', () => {
    expect(soakPlan(bad, TODAY)).toMatchObject({
      what: 'both',
      dueToday: true,
      veterinarian: false,
      soaks: [],
    });
    const soaked = { ...bad, care: [care(2, 'soaked'), care(1, 'soaked'), care(0, 'soaked')] };
    expect(soakPlan(soaked, TODAY)).toMatchObject({ dueToday: false, veterinarian: true });
    expect(soakPlan({ ...bad, care: [care(1, 'soaked'), care(1, 'soaked')] }, TODAY)!.soaks).toHaveLength(1);
  });

  test('once all is off it is over; a whole shed asks for none', () => {
    expect(soakPlan({ ...bad, care: [care(1, 'caps-checked')] }, TODAY)).toBeNull();
    expect(
      soakPlan({ ...bare, sheds: [shed(3, 'shed', { complete: true, eyeCaps: true })] }, TODAY),
    ).toBeNull();
    expect(soakPlan({ ...bare, sheds: [shed(40, 'shed', { complete: false })] }, TODAY)).toBeNull();
  });
});

describe('what became of moves', () => {
  const kinds: Record<string, TubKind> = {
    a: { name: 'Hatchling tub', ladderId: 'l', step: 0, minG: 0 },
    b: { name: 'Yearling tub', ladderId: 'l', step: 1, minG: 250 },
  };
  const kindOf = (id: string) => kinds[id];
  const moved = (days: number, mealAfter: number | null, massG: number, backAfter?: number): History => ({
    ...bare,
    weights: [{ id: 'w', on: ago(days), massG }],
    feedings: mealAfter === null ? [] : [{ id: 'f', on: ago(days - mealAfter), taken: true }],
    moves: [
      { id: 'm', on: ago(days), fromTub: 'a', toTub: 'b' },
      ...(backAfter === undefined ? [] : [{ id: 'n', on: ago(days - backAfter), fromTub: 'b', toTub: 'a' }]),
    ],
  });

  test('a move is watched until the meal, the way back, or today', () => {
    const [eaten] = moveEpisodes(moved(60, 9, 300), kindOf, TODAY);
    expect(eaten).toMatchObject({ into: 'Yearling tub', days: 9, came: true, ratio: 1.2, wentBack: false });
    expect(moveEpisodes(moved(10, null, 260), kindOf, TODAY)[0]).toMatchObject({ days: 10, came: false });
    // The way back down the ladder is no move up, and ends the watching.
    const back = moveEpisodes(moved(60, null, 260, 21), kindOf, TODAY);
    expect(back).toHaveLength(1);
    expect(back[0]).toMatchObject({ days: 21, came: false, wentBack: true });
  });

  test('heavier ones that eat sooner show as a ratio of hazards above one', () => {
    const histories = Array.from({ length: 24 }, (_, i) =>
      moved(80, 4 + ((i * 7) % 5) + (i % 2 === 0 ? 0 : 10), i % 2 === 0 ? 340 : 255),
    );
    const { kinds: learned, byWeight } = learnFromMoves(
      histories.flatMap((h) => moveEpisodes(h, kindOf, TODAY)),
    );
    expect(learned).toHaveLength(1);
    expect(learned[0]).toMatchObject({ into: 'Yearling tub', moves: 24, wentBack: 0 });
    // Half have eaten when the twelve heavy ones have: on the eighth day the last of them.
    expect(learned[0]!.medianDays).toBe(8);
    expect(byWeight === null || byWeight.beta[0]! > 0).toBe(true);
  });
});
