import fc from 'fast-check';
import jstat from 'jstat';
import { describe, expect, test } from 'vitest';
import { KinshipTable } from '../kinship/kinship.ts';
import { parseGenes } from '../notation/parse.ts';
import { parseParent, type Parent } from '../odds/parent.ts';
import { targetOdds, targetScenarios, toTarget } from '../odds/target.ts';
import { bestAssignment } from './assignment.ts';
import { bestMates, pairOdds, type PlannerAnimal } from './best-mates.ts';
import { chanceWithin, clutchesForChance, expectedClutches, type Fertility } from './chances.ts';
import { clutchSize, hatchShare } from './clutch-size.ts';
import { planPair } from './pair-plan.ts';
import { planSeason } from './season-plan.ts';
import { meanOf } from '../numeric/whole-odds.ts';

const { jStat } = jstat;
const male = (text: string): Parent => parseParent(text, 'male').parent;
const female = (text: string): Parent => parseParent(text, 'female').parent;
const target = (text: string) => toTarget(parseGenes(text));
const six: Fertility = { size: { first: 6, odds: [1] }, hatch: 1 };

describe('chances of a target', () => {
  test('at least one of six eggs is the binomial of the statistics package', () => {
    const scenarios = targetScenarios(male('het clown'), female('het clown'), target('clown'));
    expect(chanceWithin(scenarios, six, 1)).toBeCloseTo(1 - jStat.binomial.pdf(0, 6, 0.25), 12);
    expect(chanceWithin(scenarios, six, 3)).toBeCloseTo(1 - jStat.binomial.pdf(0, 18, 0.25), 12);
  });

  test('eggs that may not hatch are a binomial with a smaller p', () => {
    const scenarios = targetScenarios(male('pastel'), female('normal'), target('pastel'));
    expect(chanceWithin(scenarios, { ...six, hatch: 0.9 }, 1)).toBeCloseTo(1 - 0.55 ** 6, 12);
  });

  test('over clutch sizes it is the mean: half of 4 eggs, half of 8', () => {
    const scenarios = targetScenarios(male('pastel'), female('normal'), target('pastel'));
    const size = { first: 4, odds: [0.5, 0, 0, 0, 0.5] };
    expect(chanceWithin(scenarios, { size, hatch: 1 }, 1)).toBeCloseTo(
      0.5 * (1 - 0.5 ** 4) + 0.5 * (1 - 0.5 ** 8),
      12,
    );
  });

  test('clutches until the first are the negative binomial with one success', () => {
    const scenarios = targetScenarios(male('het clown'), female('het clown'), target('clown'));
    const hit = 1 - 0.75 ** 6;
    for (let k = 1; k <= 5; k++)
      expect(chanceWithin(scenarios, six, k)).toBeCloseTo(jStat.negbin.cdf(k - 1, 1, hit), 10);
    expect(expectedClutches(scenarios, six)).toBeCloseTo(1 / hit, 12);
    expect(clutchesForChance(scenarios, six, 0.9)).toBe(2);
  });

  test('a parent that may not carry it: the chance has a ceiling, and there is no mean', () => {
    const scenarios = targetScenarios(male('66% het clown'), female('clown'), target('clown'));
    expect(chanceWithin(scenarios, six, 1)).toBeCloseTo((2 / 3) * (1 - 0.5 ** 6), 12);
    expect(chanceWithin(scenarios, six, 50)).toBeCloseTo(2 / 3, 9);
    expect(expectedClutches(scenarios, six)).toBeNull();
    expect(clutchesForChance(scenarios, six, 0.9)).toBeNull();
  });

  test("a female's clutches become her own", () => {
    expect(meanOf(clutchSize([]).odds)).toBeCloseTo(6, 1);
    expect(meanOf(clutchSize([9, 9, 9, 9, 9, 9, 9, 9, 9]).odds)).toBeGreaterThan(8);
    // Beta(36 + 4, 4 + 6): its mean.
    expect(hatchShare(4, 10)).toBeCloseTo(40 / 50, 12);
  });

  test('a pair that could give what nobody should make is warned of, before', () => {
    expect(planPair(male('spider'), female('spider'), null, six).cautions.join(' ')).toMatch(
      /wobble|lethal|live/i,
    );
    expect(planPair(male('het clown'), female('het clown'), target('clown'), six).target!.perEgg).toBeCloseTo(
      0.25,
      12,
    );
  });
});

describe('best mates', () => {
  const animals: PlannerAnimal[] = [
    { id: 'f1', sex: 'female', parent: female('clown'), notReady: [], freeLoad: 0 },
    {
      id: 'f2',
      sex: 'female',
      parent: female('het clown'),
      notReady: [{ code: 'laid-this-season', facts: {} }],
      freeLoad: 0,
    },
    { id: 'm1', sex: 'male', parent: male('het clown'), notReady: [], freeLoad: 2 },
    { id: 'm2', sex: 'male', parent: male('clown pastel'), notReady: [], freeLoad: 0 },
    { id: 'm3', sex: 'male', parent: male('66% het clown'), notReady: [], freeLoad: 1 },
    { id: 'm4', sex: 'male', parent: male('normal'), notReady: [], freeLoad: 1 },
  ];

  test('ranks what can go together now first, by the odds, and says the reasons against the rest', () => {
    const ranked = bestMates(
      animals,
      target('clown'),
      (d, s) => (d === 'f1' && s === 'm3' ? 0.25 : 0),
      0.125,
    );
    expect(ranked.map(({ dam, sire }) => `${dam} ${sire}`)).toEqual([
      'f1 m1',
      'f1 m2',
      'f2 m2',
      'f1 m3',
      'f2 m1',
      'f2 m3',
    ]);
    expect(ranked[1]!.against).toEqual([{ code: 'sire-load-used-up', facts: {} }]);
    expect(ranked[3]!.against).toEqual([{ code: 'too-closely-related', facts: { inbreeding: 0.25 } }]);
    expect(ranked[3]!.perEgg).toBeCloseTo(1 / 3, 12);
  });

  test('one that is not grown comes after all who are, whatever its odds', () => {
    const young: PlannerAnimal = { ...animals[0]!, id: 'f0', notReady: [{ code: 'not-grown', facts: {} }] };
    const ranked = bestMates([young, ...animals], target('clown'), () => 0, 0.125);
    const first = ranked.findIndex(({ dam }) => dam === 'f0');
    expect(first).toBe(ranked.length - 3);
    expect(ranked[first]!.perEgg).toBeGreaterThan(ranked[first - 1]!.perEgg);
  });

  test('the quick odds are the exact ones, sex-linked genes included', () => {
    const texts = [
      'clown pastel',
      '66% het clown',
      'banana het pied',
      'enchi 50% het clown',
      'normal',
      'highway',
    ];
    const wanted = ['clown', 'banana clown', 'pastel het pied', 'super pastel', 'highway'];
    for (const text of wanted) {
      const quick = pairOdds(target(text));
      for (const s of texts)
        for (const d of texts)
          expect(quick(male(s), female(d))).toBeCloseTo(
            targetOdds(male(s), female(d), parseGenes(text)).p,
            12,
          );
    }
  });

  test('the expected inbreeding is the kinship: half sibs 1/8, full sibs 1/4 (textbook)', () => {
    const animal = (id: string, dam?: string, sire?: string) => ({
      id,
      sex: 'unknown' as const,
      ...(dam ? { dam } : {}),
      sires: sire ? [{ id: sire, weight: 1 }] : [],
      founder: new Map(),
      calls: [],
    });
    const table = new KinshipTable({
      animals: [
        animal('d'),
        animal('e'),
        animal('s'),
        animal('f1', 'd', 's'),
        animal('m1', 'e', 's'),
        animal('m3', 'd', 's'),
      ],
    } as never);
    const ranked = bestMates(
      animals.filter(({ id }) => /f1|m1|m3/.test(id)),
      target('clown'),
      (d, s) => table.kinship(d, s),
      0.2,
    );
    expect(ranked.map(({ sire, inbreeding }) => [sire, inbreeding])).toEqual([
      ['m1', 0.125],
      ['m3', 0.25],
    ]);
  });
});

describe('the season plan', () => {
  /** The best total over every way to share the males out. */
  function bruteForce(values: number[][], loads: number[]): number {
    const walk = (row: number, left: number[]): number => {
      if (row === values.length) return 0;
      let best = walk(row + 1, left);
      for (const [male, load] of left.entries())
        if (load > 0) best = Math.max(best, values[row]![male]! + walk(row + 1, left.with(male, load - 1)));
      return best;
    };
    return walk(0, loads);
  }

  test('is the best of all assignments, within the loads', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.integer({ min: 0, max: 20 }), { minLength: 3, maxLength: 3 }), {
          minLength: 1,
          maxLength: 6,
        }),
        fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 3, maxLength: 3 }),
        (values, loads) => {
          const plan = planSeason({
            females: values.map((_, i) => `f${i}`),
            males: loads.map((load, i) => ({ id: `m${i}`, load })),
            fixed: new Map(),
            value: (f, m) => values[Number(f.slice(1))]![Number(m.slice(1))]!,
            inbreeding: () => 0,
            inbreedingBound: 0.1,
          });
          expect(plan.reduce((sum, { value }) => sum + value, 0)).toBe(bruteForce(values, loads));
          for (const [i, load] of loads.entries())
            expect(plan.filter(({ male: m }) => m === `m${i}`).length).toBeLessThanOrEqual(load);
        },
      ),
    );
  });

  test('an assignment never takes a forbidden place, and gives way where that is worth more', () => {
    expect(
      bestAssignment([
        [-Infinity, 1, 0],
        [5, 9, 0],
      ]),
    ).toEqual([2, 1]);
  });

  test('says what it traded: a full load, a relative, the keeper’s own choice', () => {
    const values: Record<string, Record<string, number>> = {
      a: { x: 0.9, y: 0.5 },
      b: { x: 0.8, y: 0.1 },
      c: { x: 0.1, y: 0.7 },
      d: { x: 0.6, y: 0.2 },
    };
    const plan = planSeason({
      females: ['a', 'b', 'c', 'd'],
      males: [
        { id: 'x', load: 2 },
        { id: 'y', load: 2 },
      ],
      fixed: new Map([['d', 'y']]),
      value: (f, m) => values[f]![m]!,
      inbreeding: (f, m) => (f === 'c' && m === 'y' ? 0.25 : 0),
      inbreedingBound: 0.125,
    });
    const by = new Map(plan.map((pair) => [pair.female, pair]));
    expect([by.get('a')!.male, by.get('b')!.male, by.get('c')!.male, by.get('d')!.male]).toEqual([
      'x',
      'x',
      null,
      'y',
    ]);
    expect(by.get('c')!.traded).toMatchObject({ male: 'y', why: 'related' });
    expect(by.get('d')!.traded).toMatchObject({ male: 'x', why: 'fixed' });
    expect(by.get('a')!.traded).toBeNull();
  });

  test('a female that gives way to others hears to whom', () => {
    const plan = planSeason({
      females: ['a', 'b'],
      males: [
        { id: 'x', load: 1 },
        { id: 'y', load: 1 },
      ],
      fixed: new Map(),
      value: (f, m) => ({ ax: 0.9, ay: 0.8, bx: 0.7, by: 0.1 })[f + m]!,
      inbreeding: () => 0,
      inbreedingBound: 0.125,
    });
    expect(plan[0]).toMatchObject({ male: 'y', traded: { male: 'x', why: 'load', insteadOf: ['b'] } });
  });
});
