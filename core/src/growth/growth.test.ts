import { describe, expect, test } from 'vitest';
import { addDays, daysBetween } from '../calendar/days.ts';
import { seededRandom } from '../numeric/random.ts';
import { ageAt, bendCurve, curveAt, usualCurve } from './curve.ts';
import { fitCollection, type CollectionGrowth } from './collection.ts';
import { Growth, percentile } from './growth.ts';
import type { GrowthSubject } from './prepare.ts';

const BORN = '2024-06-01';
const NOBODY = fitCollection([]);
const day = (age: number): string => addDays(BORN, age);
const subject = (
  id: string,
  weights: readonly (readonly [age: number, massG: number])[],
  more: Partial<GrowthSubject> = {},
): GrowthSubject => ({
  id,
  sex: 'female',
  hatchedOn: BORN,
  clutchId: null,
  weights: weights.map(([age, massG], i) => ({ id: `${id}${i}`, on: day(age), massG })),
  feedings: [],
  laidOn: [],
  ...more,
});
const usual = (age: number): number => Math.exp(curveAt(usualCurve('female'), age));
const along = (ages: readonly number[], factor = 1): (readonly [number, number])[] =>
  ages.map((age) => [age, usual(age) * factor] as const);
const AGES = [0, 15, 40, 70, 100, 130, 160, 200, 240, 280];

/** Animals drawn from the model itself: what its intervals promise can be counted on them. */
function drawn(
  collection: CollectionGrowth,
  count: number,
  ages: readonly number[],
  seed: number,
): GrowthSubject[] {
  const random = seededRandom(seed);
  const z = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const { levelVariance, rateVariance, rateHalfLife } = collection.dynamics;
  return Array.from({ length: count }, (_, i) => {
    let level = Math.sqrt(collection.spread) * z();
    let rate = Math.sqrt(rateVariance) * z();
    const kept = Math.exp(-Math.LN2 / rateHalfLife);
    let at = 0;
    const weights = ages.map((age): [number, number] => {
      for (; at < age; at++) {
        level += rate + Math.sqrt(levelVariance) * z();
        rate = kept * rate + Math.sqrt(rateVariance * (1 - kept * kept)) * z();
      }
      return [
        age,
        Math.exp(curveAt(collection.curves.female, age) + level + Math.sqrt(collection.noise) * z()),
      ];
    });
    return subject(`s${i}`, weights);
  });
}

describe('the curve', () => {
  test('an age has a mass, and the mass that age again', () => {
    for (const age of [10, 100, 400, 1000])
      expect(ageAt(usualCurve('male'), Math.exp(curveAt(usualCurve('male'), age)))).toBe(age);
  });

  test('a heavier collection bends it: n animals against the three of the usual curve', () => {
    const heavy = Array.from({ length: 9 }, () => [{ age: 365, massG: usual(365) * 1.5 }]);
    const bent = bendCurve('female', heavy);
    expect(curveAt(bent, 365) - curveAt(usualCurve('female'), 365)).toBeCloseTo((Math.log(1.5) * 9) / 12, 9);
    expect(curveAt(bent, 0)).toBeCloseTo(curveAt(usualCurve('female'), 0), 9);
  });
});

describe('what a weight is expected to be', () => {
  test('19 of 20 weights of animals drawn from the model lie in its band', () => {
    const animals = drawn(NOBODY, 200, AGES, 11);
    let inside = 0;
    let of = 0;
    for (const one of animals) {
      one.weights.forEach((weight, i) => {
        const { lowG, highG } = new Growth({ ...one, weights: one.weights.slice(0, i) }, NOBODY).expected(
          weight.on,
        );
        of += 1;
        if (weight.massG >= lowG && weight.massG <= highG) inside += 1;
      });
    }
    // 2,000 weights: 0.95, give or take three standard errors of 0.005; weights of one animal hang together a little.
    expect(inside / of).toBeGreaterThan(0.93);
    expect(inside / of).toBeLessThan(0.97);
  });

  test('the variances are found again in animals drawn with others', () => {
    const other: CollectionGrowth = {
      ...NOBODY,
      dynamics: { ...NOBODY.dynamics, rateVariance: NOBODY.dynamics.rateVariance * 6 },
      noise: NOBODY.noise * 3,
    };
    // Weighed every three days: noise and true change can be told apart.
    const often = Array.from({ length: 60 }, (_, i) => i * 3);
    const fitted = fitCollection(drawn(other, 40, often, 5));
    expect(Math.abs(Math.log(fitted.dynamics.rateVariance / other.dynamics.rateVariance))).toBeLessThan(0.7);
    expect(Math.abs(Math.log(fitted.noise / other.noise))).toBeLessThan(0.5);
  });

  test('it is personal: one that runs ahead is expected to go on', () => {
    const ahead = new Growth(subject('a', along(AGES, 1.4)), NOBODY).expected(day(300));
    const plain = new Growth(subject('b', along(AGES)), NOBODY).expected(day(300));
    expect(ahead.midG / plain.midG).toBeGreaterThan(1.3);
    expect(ahead.lowG).toBeGreaterThan(plain.midG);
  });

  test('siblings lend strength: heavy young make a heavy one likely that was not weighed', () => {
    const heavy = [1, 2, 3, 4].map((i) => subject(`h${i}`, [[0, usual(0) * 1.3]], { clutchId: 'c' }));
    const collection = fitCollection(heavy, false);
    const alone = new Growth(subject('x', []), collection).expected(day(30)).midG;
    const mate = new Growth(subject('y', [], { clutchId: 'c' }), collection).expected(day(30)).midG;
    expect(mate).toBeGreaterThan(alone * 1.04);
  });

  test('one without a hatch day is placed by its first weight', () => {
    const bought = subject('b', [[0, 900]], { hatchedOn: null });
    const { midG } = new Growth(bought, NOBODY).expected(day(0));
    expect(midG).toBeCloseTo(900, -1);
    expect(new Growth(bought, NOBODY).expected(day(200)).midG).toBeGreaterThan(950);
    expect(Growth.knows(subject('n', [], { hatchedOn: null }))).toBe(false);
    expect(() => new Growth(subject('n', [], { hatchedOn: null }), NOBODY)).toThrow(RangeError);
  });
});

describe('what stops growth', () => {
  const GROWN = [0, 60, 120, 200, 300, 400, 500, 600, 700, 800, 900];

  test('half of last month: the wrong animal, and the curve does not follow it', () => {
    const weights = [...along(AGES), [300, usual(300) / 2] as const];
    const growth = new Growth(subject('o', weights), NOBODY);
    expect(growth.outliers.map(({ on }) => on)).toEqual([day(300)]);
    expect(growth.expected(day(310)).midG).toBeGreaterThan(usual(310) * 0.85);
  });

  test('a laying is no loss', () => {
    const weights = [...along(GROWN), [1000, usual(1000) * 0.72] as const];
    expect(new Growth(subject('l', weights), NOBODY).lastSurprise!).toBeLessThan(-3);
    const laid = new Growth(subject('l', weights, { laidOn: [day(990)] }), NOBODY);
    expect(Math.abs(laid.lastSurprise!)).toBeLessThan(1);
    expect(laid.outliers).toEqual([]);
  });

  test('a fast stops it, and a meal in the animal is not its own weight', () => {
    const fed = (ages: readonly number[], refusedTo: number) => [
      ...ages.map((age) => ({ id: `m${age}`, on: day(age), taken: true, species: 'rat', size: 'small' })),
      { id: 'r', on: day(refusedTo), taken: false },
    ];
    const base = along(GROWN);
    const fasting = new Growth(subject('f', base, { feedings: fed([850, 900], 1100) }), NOBODY);
    const eating = new Growth(subject('e', base), NOBODY);
    expect(fasting.expected(day(1100)).midG).toBeLessThan(eating.expected(day(1100)).midG * 0.9);
    const full = [...base, [930, usual(930) + 80] as const];
    const innovation = (feedings: GrowthSubject['feedings']) =>
      new Growth(subject('g', full, { feedings }), NOBODY).lastSurprise!;
    expect(innovation(fed([900, 929], 929))).toBeLessThan(innovation([]));
  });
});

describe('what is to come', () => {
  test('a threshold is reached early, likely, late, in that order; the median is where the mean crosses', () => {
    const growth = new Growth(subject('a', along(AGES)), NOBODY);
    const reach = growth.reaches(520, day(280));
    expect(reach.early! < reach.median! && reach.median! < reach.late!).toBe(true);
    const { mean } = growth.logMass(reach.median!);
    expect(Math.exp(mean)).toBeGreaterThanOrEqual(520);
    expect(Math.exp(mean)).toBeLessThan(530);
    expect(growth.reaches(90_000, day(280)).median).toBeNull();
  });

  test('the further ahead, the wider', () => {
    const band = new Growth(subject('a', along(AGES)), NOBODY).band(day(700));
    const width = (i: number): number => band[i]!.highG / band[i]!.lowG;
    expect(width(band.length - 1)).toBeGreaterThan(width(band.length - 10));
    expect(daysBetween(BORN, band.at(-1)!.on)).toBe(700);
  });

  test('a percentile is the share that is lighter for its age, ties counted by half', () => {
    expect(percentile({ below: 4, same: 0, of: 5 })).toEqual({ share: 0.8, of: 5 });
    expect(percentile({ below: 2, same: 1, of: 5 })!.share).toBe(0.5);
    expect(percentile({ below: 3, same: 0, of: 3 })).toBeNull();
  });
});
