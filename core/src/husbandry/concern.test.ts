import { describe, expect, test } from 'vitest';
import { addDays } from '../calendar/days.ts';
import { FEEDING_RULES } from '../feeding/rules.ts';
import { seededRandom } from '../numeric/random.ts';
import { appetiteBaseline, concerns, type Watched } from './concern.ts';
import type { History } from './history.ts';

const TODAY = '2026-06-30';
const ago = (days: number): string => addDays(TODAY, -days);
const animal = (more: Partial<History> = {}, watched: Partial<Watched> = {}): Watched => ({
  history: {
    hatchedOn: ago(200),
    weights: [{ id: 'w', on: ago(5), massG: 200 }],
    feedings: [],
    sheds: [],
    moves: [],
    ...more,
  },
  sex: 'male',
  gravid: false,
  laidOn: [],
  lastSurprise: null,
  ...watched,
});
const offers = (pattern: string, every = 7): History['feedings'] =>
  [...pattern].map((mark, i) => ({
    id: `f${i}`,
    on: ago(3 + (pattern.length - 1 - i) * every),
    taken: mark === '+',
  }));
const BASELINE = appetiteBaseline([animal({ feedings: offers('+++++++++-') })], FEEDING_RULES);
const codes = (one: Watched, day = TODAY): string[] => concerns(one, BASELINE, day).map(({ code }) => code);
const weights = (...masses: number[]): History['weights'] =>
  masses.map((massG, i) => ({ id: `w${i}`, on: ago(5 + 30 * (masses.length - 1 - i)), massG }));

// The lines of 10% and 15%, and of a second regurgitation: common practice, no source.
describe('a second look', () => {
  test('a tenth below its best in a young one, less than that in none', () => {
    expect(codes(animal({ weights: weights(150, 200, 179) }))).toEqual(['below-own-best']);
    expect(codes(animal({ weights: weights(150, 200, 183) }))).toEqual([]);
  });

  test('15% in a grown one out of season; in it, gravid, or after eggs it is none', () => {
    const grown = { hatchedOn: ago(1500), weights: weights(1500, 1600, 1340) };
    expect(codes(animal(grown))).toEqual(['below-own-best']);
    expect(codes(animal({ ...grown, weights: weights(1500, 1600, 1400) }))).toEqual([]);
    expect(codes(animal(grown, { gravid: true }))).toEqual([]);
    expect(codes(animal(grown, { laidOn: [ago(20)] }))).toEqual([]);
    const winter = '2026-01-20';
    const then = (days: number, massG: number) => ({ id: `${days}`, on: addDays(winter, -days), massG });
    expect(codes(animal({ hatchedOn: ago(1500), weights: [then(80, 1600), then(5, 1300)] }), winter)).toEqual(
      [],
    );
  });

  test('a best weight with a meal in it is none', () => {
    const fed = { weights: weights(150, 200, 179), feedings: [{ id: 'f', on: ago(36), taken: true }] };
    expect(codes(animal(fed))).toEqual([]);
  });

  test('far below its curve', () => {
    expect(codes(animal({}, { lastSurprise: -3.4 }))).toEqual(['below-growth']);
    expect(codes(animal({}, { lastSurprise: -2.5 }))).toEqual([]);
    expect(codes(animal({}, { lastSurprise: 3.4 }))).toEqual([]);
  });

  test('a good eater that stops; a shy one that goes on being shy does not', () => {
    expect(codes(animal({ feedings: offers('++++++++++++----') }))).toEqual(['meals-refused']);
    expect(codes(animal({ feedings: offers('++++++++++++-') }))).toEqual([]);
    expect(codes(animal({ feedings: offers('+--+--+---+--+---') }))).toEqual([]);
    const [concern] = concerns(animal({ feedings: offers('++++++++++++-----') }), BASELINE, TODAY);
    expect(concern).toMatchObject({ code: 'meals-refused', facts: { refused: 5, days: 38 } });
    expect((concern!.facts as { chance: number }).chance).toBeLessThan(1 / 1000);
    expect(concern!.records).toHaveLength(5);
  });

  test('a second regurgitation within three months', () => {
    const care = (...days: number[]) =>
      days.map((d) => ({ id: `c${d}`, on: ago(d), act: 'regurgitated' as const }));
    expect(codes(animal({ care: care(60, 10) }))).toEqual(['regurgitated-again']);
    expect(codes(animal({ care: care(10) }))).toEqual([]);
    expect(codes(animal({ care: care(200, 10) }))).toEqual([]);
  });
});

test('a healthy collection of 300 that takes nine meals of ten is quiet: a handful of new alarms a week at most', () => {
  const random = seededRandom(3);
  const WEEKS = 26;
  const herd = Array.from({ length: 300 }, () =>
    animal({
      hatchedOn: ago(500),
      weights: [{ id: 'w', on: ago(1), massG: 500 }],
      // Each has its own appetite, as animals do.
      feedings: ((appetite) =>
        Array.from({ length: WEEKS + 20 }, (_, i) => ({
          id: `f${i}`,
          on: ago((WEEKS + 19 - i) * 7),
          taken: random() < appetite,
        })))(0.75 + 0.24 * random()),
    }),
  );
  const baseline = appetiteBaseline(herd, FEEDING_RULES);
  let fresh = 0;
  for (const one of herd) {
    let before = false;
    for (let week = WEEKS; week >= 0; week--) {
      const day = ago(week * 7);
      const until = {
        ...one,
        history: { ...one.history, feedings: one.history.feedings.filter(({ on }) => on <= day) },
      };
      const now = concerns(until, baseline, day).some(({ code }) => code === 'meals-refused');
      if (now && !before) fresh += 1;
      before = now;
    }
  }
  expect(fresh / WEEKS).toBeLessThan(3);
});
