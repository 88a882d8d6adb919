import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { parseGenes } from '../notation/parse.ts';
import { toParent } from '../odds/parent.ts';
import { targetOdds, toTarget } from '../odds/target.ts';
import { wishChance, wishChanceOfYoung, type Wish } from './wish.ts';

const wish = (must: string, mustNot = '', sex: Wish['sex'] = null): Wish => ({
  must: toTarget(parseGenes(must)),
  mustNot: toTarget(parseGenes(mustNot)),
  sex,
});
const animal = (genes: string) => toParent(parseGenes(genes), 'female');
const sire = (genes: string) => toParent(parseGenes(genes), 'male');

describe('the chance that an animal is what somebody waits for', () => {
  test('is the product over its loci and its sex', () => {
    const one = animal('Pastel 66% het Clown 50% het Pied');
    expect(wishChance(wish('Pastel het Clown'), one, 0.5)).toBeCloseTo(2 / 3, 12);
    expect(wishChance(wish('Pastel het Clown het Pied', '', 'male'), one, 0.25)).toBeCloseTo(
      (2 / 3) * 0.5 * 0.75,
      12,
    );
    expect(wishChance(wish('Pastel', 'het Clown'), one, 1)).toBeCloseTo(1 / 3, 12);
    expect(wishChance(wish('Clown'), one, 1)).toBe(0);
    expect(wishChance(wish('', 'Pastel'), one, 1)).toBe(0);
  });

  test('of a visible gene that must not be there at the locus of one that must', () => {
    // One copy and not two.
    expect(wishChance(wish('Pastel', 'Super Pastel'), animal('Pastel'), 1)).toBe(1);
    expect(wishChance(wish('Pastel', 'Super Pastel'), animal('Super Pastel'), 1)).toBe(0);
  });
});

describe('the chance that a young of a pair is what somebody waits for', () => {
  // Mendel 1866.
  test('by the textbook', () => {
    const [dam, male] = [animal('Pastel het Clown'), sire('Pastel het Clown')];
    expect(wishChanceOfYoung(wish('Clown'), male, dam)).toBeCloseTo(1 / 4, 12);
    expect(wishChanceOfYoung(wish('Clown Pastel', 'Super Pastel', 'female'), male, dam)).toBeCloseTo(
      (1 / 4) * (1 / 2) * (1 / 2),
      12,
    );
    expect(wishChanceOfYoung(wish('', 'Pastel'), male, dam)).toBeCloseTo(1 / 4, 12);
  });

  test('without a sex or something unwanted it is the target’s odds, sex-linked genes included (property)', () => {
    const genes = fc.constantFrom(
      'normal',
      'het clown',
      '66% het clown pastel',
      'banana',
      'super pastel',
      'het clown het pied',
    );
    fc.assert(
      fc.property(
        genes,
        genes,
        fc.constantFrom('clown', 'pastel', 'banana', 'pastel clown', 'het pied'),
        (a, b, target) => {
          const [male, dam] = [sire(a), animal(b)];
          expect(wishChanceOfYoung(wish(target), male, dam)).toBeCloseTo(
            targetOdds(male, dam, parseGenes(target)).p,
            9,
          );
        },
      ),
    );
  });

  test('of the two sexes adds up', () => {
    const [male, dam] = [sire('male-maker banana het clown'), animal('het clown')];
    const both = wishChanceOfYoung(wish('banana clown'), male, dam);
    const each = (['female', 'male'] as const).map((sex) =>
      wishChanceOfYoung(wish('banana clown', '', sex), male, dam),
    );
    expect(each[0]! + each[1]!).toBeCloseTo(both, 12);
    expect(each[1]!).toBeGreaterThan(each[0]!);
  });
});
