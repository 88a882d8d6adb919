import { describe, expect, test } from 'vitest';
import { createCatalogue } from '../catalogue/catalogue.ts';
import { toAdditions } from '../catalogue/entries.ts';
import { compilePedigree } from '../pedigree/from-records.ts';
import type { RecordedAnimal } from '../pedigree/recorded-animal.ts';
import { INHERITANCES, LOOKS_BY_CHANCE } from './inheritance.ts';
import { KNOWN_FROM, POWER } from './test-pairings.ts';
import { assessUnproven } from './unproven-gene.ts';

const CATALOGUE = createCatalogue(
  toAdditions([{ kind: 'locus', name: 'Smoke', expression: 'incomplete-dominant', isUnproven: true }]),
);
const LOCUS = 'own-smoke';
const said = (genes: string): RecordedAnimal['identification'] => ({ genes, sure: 'certain', record: genes });
const founder = (id: string, sex: 'female' | 'male', genes: string): RecordedAnimal => ({
  id,
  sex,
  sires: [],
  identification: said(genes)!,
});
/** Young of a pair: some look like it, the others do not. */
const clutch = (dam: string, sire: string, showing: number, others: number, name = 'Y'): RecordedAnimal[] =>
  Array.from({ length: showing + others }, (_, i) => ({
    id: `${name}${i}`,
    sex: i % 2 === 0 ? 'female' : 'male',
    dam,
    sires: [{ id: sire, weight: 1 }],
    identification: said(i < showing ? 'Smoke' : 'Normal')!,
  }));
const PAIR = [founder('M', 'male', 'Smoke'), founder('F', 'female', 'Normal')];
const assess = (animals: readonly RecordedAnimal[]) =>
  assessUnproven(animals, LOCUS, new Set(animals.map(({ id }) => id)), CATALOGUE)!;

describe('how a look is inherited', () => {
  test('one animal that shows it says nothing: every way is as likely as before', () => {
    const { odds } = assess(PAIR);
    for (const way of INHERITANCES) expect(odds[way]).toBeCloseTo(1 / 3, 2);
    expect(assessUnproven([PAIR[1]!], LOCUS, new Set(), CATALOGUE)).toBeNull();
  });

  test('half of the young show it: one copy is enough, unless the mate carries it by chance', () => {
    const { odds, young } = assess([...PAIR, ...clutch('F', 'M', 3, 3)]);
    // By hand: with two copies the mate, one in fifty (2 q (1 - q)), has to carry it too; then the odds are as good.
    expect(odds['one-copy']).toBeCloseTo(1 / (1 + 2 * 0.01 * 0.99), 2);
    expect(young).toEqual({ showing: 3, others: 3 });
  });

  test('none of n: one copy loses a factor of two with each, as in any test cross', () => {
    // Bayes by hand: the sire of one copy gives plain young with chance 1/2 (slips: 1 in 100 either way).
    const plain = 1 - LOOKS_BY_CHANCE;
    for (const n of [1, 4, 7]) {
      const { odds } = assess([...PAIR, ...clutch('F', 'M', 0, n)]);
      const ratio = odds['one-copy'] / odds['not-inherited'];
      const byHand = 0.5 ** n / plain ** n;
      // Founders that carry by chance (1 in 100) move it a little.
      expect(Math.abs(Math.log(ratio / byHand))).toBeLessThan(0.1);
    }
  });

  test('a daughter back to her father: a quarter of what no young of the first cross showed proves two copies', () => {
    const first = clutch('F', 'M', 0, 8);
    const back = clutch('Y0', 'M', 4, 4, 'B');
    const { odds } = assess([...PAIR, ...first, ...back]);
    expect(odds['two-copies']).toBeGreaterThan(0.99);
  });

  test('neither the first cross nor the way back shows it again: it is not inherited', () => {
    const { odds, tests } = assess([...PAIR, ...clutch('F', 'M', 0, 9), ...clutch('Y0', 'M', 0, 9, 'B')]);
    expect(odds['not-inherited']).toBeGreaterThan(0.97);
    expect(tests).toEqual([]);
  });

  test('nothing is inferred from it meanwhile', () => {
    const { loci } = compilePedigree([...PAIR, ...clutch('F', 'M', 3, 3)], CATALOGUE);
    expect(loci).toEqual([]);
  });
});

describe('what would prove it', () => {
  test('first the cross to an animal that does not show it, then a daughter back to her father', () => {
    const { tests } = assess(PAIR);
    // Who is no kin of it stands for any animal that does not show it.
    expect(tests.map(({ dam, sire }) => [dam, sire])).toEqual([[null, 'M']]);
    expect(tests[0]!.apart).toEqual([['not-inherited', 'two-copies'], ['one-copy']]);
    // A test cross of one gene in one copy: seven young leave less than one in a hundred (0.5^7).
    expect(tests[0]!.young).toBeLessThanOrEqual(7);
    const later = assess([...PAIR, ...clutch('F', 'M', 0, 8)]).tests;
    expect(later[0]!.sire).toBe('M');
    expect(later[0]!.dam).toMatch(/^Y/);
    expect(later[0]!.apart).toEqual([['not-inherited'], ['two-copies']]);
  });

  test('so many young bring an answer as often as promised: counted over every result', () => {
    const { tests, odds } = assess(PAIR);
    const { young: n } = tests[0]!;
    const rest = odds['two-copies'] + odds['not-inherited'];
    const p = (k: number, share: number): number => {
      let choose = 1;
      for (let i = 0; i < k; i++) choose = (choose * (n - i)) / (i + 1);
      return choose * share ** k * (1 - share) ** (n - k);
    };
    const powerOf = (): number => {
      let power = 0;
      for (let k = 0; k <= n; k++) {
        const yes = odds['one-copy'] * p(k, 0.5);
        const no = rest * p(k, 0.015);
        if (Math.max(yes, no) / (yes + no) >= KNOWN_FROM) power += yes + no;
      }
      return power;
    };
    expect(powerOf()).toBeGreaterThanOrEqual(POWER - 0.02);
  });
});
