import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { anyPedigree } from '../../test/arbitraries.ts';
import { enumeratePosterior } from '../../test/enumerate.ts';
import { genotypeKey, type Genotype } from '../loci/genotype.ts';
import type { Call, Pedigree, PedigreeAnimal } from '../pedigree/document.ts';
import { infer } from './infer.ts';

const clown = { id: 'clown', alleles: ['clown'] };
const carrier = [{ genotype: ['+', 'clown'] as Genotype, p: 1 }];
const visual = [{ genotype: ['clown', 'clown'] as Genotype, p: 1 }];
const notVisual: Call = {
  locus: 'clown',
  is: [
    ['+', '+'],
    ['+', 'clown'],
  ],
};
const isVisual: Call = { locus: 'clown', is: [['clown', 'clown']] };
const one = (animals: PedigreeAnimal[]): Pedigree => ({ loci: [clown], unrecorded: 0.01, animals });
const chance = (pedigree: Pedigree, animal: string, genotype: string, locus = 'clown'): number =>
  infer(pedigree)
    .animals.get(animal)!
    .get(locus)!
    .find((g) => genotypeKey(g.genotype) === genotype)?.p ?? 0;

const uncertain = [
  { genotype: ['+', '+'] as Genotype, p: 0.5 },
  { genotype: ['+', 'clown'] as Genotype, p: 0.5 },
];

describe('closed forms', () => {
  test('a non-visual offspring of two carriers carries in 2 of 3 (textbook, Mendel 1866)', () => {
    const pedigree = one([
      { id: 'S', sex: 'male', founder: { clown: carrier } },
      { id: 'D', sex: 'female', founder: { clown: carrier } },
      { id: 'H', sex: 'unknown', dam: 'D', sires: [{ id: 'S', weight: 1 }], calls: [notVisual] },
    ]);
    expect(chance(pedigree, 'H', '+/clown')).toBeCloseTo(2 / 3, 12);
  });

  test('each non-visual offspring with a visual mate halves the odds of a possible carrier', () => {
    // Bayes by hand: prior odds 1 : 1, n non-visual offspring give (1/2)^n : 1.
    for (const n of [1, 2, 5, 9]) {
      const pedigree = one([
        { id: 'S', sex: 'male', founder: { clown: uncertain } },
        { id: 'D', sex: 'female', founder: { clown: visual } },
        ...Array.from({ length: n }, (_, i): PedigreeAnimal => ({
          id: `H${i}`,
          sex: 'unknown',
          dam: 'D',
          sires: [{ id: 'S', weight: 1 }],
          calls: [notVisual],
        })),
      ]);
      expect(chance(pedigree, 'S', '+/clown')).toBeCloseTo(0.5 ** n / (1 + 0.5 ** n), 12);
    }
  });

  test('n of n young with the gene point to two copies: odds of 1 to (1/2)^n', () => {
    for (const n of [1, 4, 9]) {
      const either = [
        { genotype: ['+', 'clown'] as Genotype, p: 0.5 },
        { genotype: ['clown', 'clown'] as Genotype, p: 0.5 },
      ];
      const seen: Call = { locus: 'clown', is: [['+', 'clown']] };
      const pedigree = one([
        { id: 'S', sex: 'male', founder: { clown: either } },
        { id: 'D', sex: 'female' },
        ...Array.from({ length: n }, (_, i): PedigreeAnimal => ({
          id: `H${i}`,
          sex: 'unknown',
          dam: 'D',
          sires: [{ id: 'S', weight: 1 }],
          calls: [seen],
        })),
      ]);
      expect(chance(pedigree, 'S', 'clown/clown')).toBeCloseTo(1 / (1 + 0.5 ** n), 12);
    }
  });

  test('one visual offspring proves a possible carrier', () => {
    const pedigree = one([
      { id: 'S', sex: 'male', founder: { clown: uncertain } },
      { id: 'D', sex: 'female', founder: { clown: visual } },
      { id: 'H', sex: 'unknown', dam: 'D', sires: [{ id: 'S', weight: 1 }], calls: [isVisual] },
    ]);
    expect(chance(pedigree, 'S', '+/clown')).toBeCloseTo(1, 12);
  });

  test('a gene only one candidate carries settles the sire, and with him the other loci', () => {
    const pedigree: Pedigree = {
      loci: [clown, { id: 'pied', alleles: ['pied'] }],
      unrecorded: 0.01,
      animals: [
        { id: 'S1', sex: 'male', founder: { clown: carrier } },
        { id: 'S2', sex: 'male', founder: { pied: [{ genotype: ['pied', 'pied'], p: 1 }] } },
        { id: 'D', sex: 'female', founder: { clown: visual } },
        {
          id: 'H',
          sex: 'unknown',
          dam: 'D',
          sires: [
            { id: 'S1', weight: 1 },
            { id: 'S2', weight: 3 },
          ],
          calls: [isVisual],
        },
      ],
    };
    const { sires, animals } = infer(pedigree);
    expect(sires.get('H')!.get('S1')).toBeCloseTo(1, 12);
    expect(animals.get('H')!.get('pied')).toEqual([{ genotype: ['+', '+'], p: 1 }]);
  });

  test('records that cannot hold together are named, and nobody else', () => {
    const result = infer(
      one([
        { id: 'S', sex: 'male', calls: [{ locus: 'clown', is: [['+', '+']] }] },
        { id: 'D', sex: 'female', founder: { clown: visual } },
        { id: 'other', sex: 'unknown', dam: 'D', sires: [{ id: 'S', weight: 1 }], calls: [notVisual] },
        { id: 'H', sex: 'unknown', dam: 'D', sires: [{ id: 'S', weight: 1 }], calls: [isVisual] },
      ]),
    );
    expect(result.logLikelihood).toBeNull();
    expect(result.conflicts).toEqual([{ locus: 'clown', animals: ['H'], loci: ['clown'] }]);
  });
});

/** Every number of the engine against the slow judge. */
function agrees(pedigree: Pedigree): void {
  const fast = infer(pedigree);
  const slow = enumeratePosterior(pedigree);
  expect(fast.logLikelihood).toBeCloseTo(Math.log(slow.likelihood), 9);
  const found = new Map<string, number>();
  for (const [animal, loci] of fast.animals) {
    for (const [locus, genotypes] of loci) {
      for (const { genotype, p } of genotypes) found.set(`${animal}|${locus}|${genotypeKey(genotype)}`, p);
    }
  }
  for (const key of new Set([...found.keys(), ...slow.genotypes.keys()])) {
    expect(Math.abs((found.get(key) ?? 0) - (slow.genotypes.get(key) ?? 0)), key).toBeLessThan(1e-9);
  }
  for (const [animal, candidates] of fast.sires) {
    for (const [sire, p] of candidates) {
      expect(Math.abs(p - (slow.sires.get(`${animal}|${sire}`) ?? 0)), `${animal}|${sire}`).toBeLessThan(
        1e-9,
      );
    }
  }
  for (const [animal, p] of fast.female)
    expect(Math.abs(p - (slow.female.get(animal) ?? 0)), animal).toBeLessThan(1e-9);
}

describe('elimination agrees with adding up every assignment, to 1e-9', () => {
  test('with soft calls, which never contradict', () => {
    fc.assert(fc.property(anyPedigree([0.02, 0.1, 0.3]), agrees), { numRuns: 400 });
  }, 120_000);

  test('with hard calls: the same answers where they hold, and a conflict where they do not', () => {
    fc.assert(
      fc.property(anyPedigree([0, 0, 0.1], 4), (pedigree) => {
        const slow = enumeratePosterior(pedigree);
        if (slow.likelihood > 0) agrees(pedigree);
        else {
          const fast = infer(pedigree);
          expect(fast.logLikelihood).toBeNull();
          expect(fast.conflicts.length).toBeGreaterThan(0);
        }
      }),
      { numRuns: 400 },
    );
  }, 120_000);
});
