import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { enumeratePosterior } from '../../test/enumerate.ts';
import { allGenotypes, canonical, genotypeKey, type Genotype } from '../loci/genotype.ts';
import type { Call, Pedigree, PedigreeAnimal } from '../pedigree/document.ts';
import { infer } from './infer.ts';

const clown = { id: 'clown', alleles: ['clown'] };
const banana = { id: 'banana', alleles: ['banana'], sexLinked: true, recombination: 0.07 };
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
    expect(result.conflicts).toEqual([{ locus: 'clown', animals: ['H'] }]);
  });
});

/** Small random pedigrees with loops, two sires, missing parents, soft calls and unknown sex. */
const anyPedigree: fc.Arbitrary<Pedigree> = fc
  .record({
    linked: fc.boolean(),
    two: fc.boolean(),
    founders: fc.array(fc.array(fc.integer({ min: 0, max: 5 }), { minLength: 6, maxLength: 6 }), {
      minLength: 3,
      maxLength: 3,
    }),
    young: fc.array(
      fc.record({
        dam: fc.nat(9),
        sire: fc.nat(9),
        second: fc.option(fc.nat(9)),
        missing: fc.boolean(),
        sex: fc.constantFrom('female' as const, 'male' as const, 'unknown' as const),
        call: fc.option(fc.nat(30)),
        error: fc.constantFrom(0.02, 0.1, 0.3),
      }),
      { minLength: 1, maxLength: 2 },
    ),
  })
  .map(({ linked, two, founders, young }) => {
    const loci = [
      linked ? banana : { id: 'c', alleles: two ? ['a', 'b'] : ['a'] },
      ...(two ? [] : [{ id: 'd', alleles: ['d'] }]),
    ];
    const animals: PedigreeAnimal[] = founders.map((weights, i) => {
      const sex = i === 0 ? ('female' as const) : ('male' as const);
      return {
        id: `F${i}`,
        sex,
        founder: Object.fromEntries(
          loci.map((locus) => {
            const list = allGenotypes(locus.alleles);
            const drawn = list.map((_, k) => (weights[k] ?? 0) + (k === 0 ? 1 : 0));
            const sum = drawn.reduce((a, b) => a + b, 0);
            return [locus.id, list.map((genotype, k) => ({ genotype, p: drawn[k]! / sum }))];
          }),
        ),
      };
    });
    for (const [i, draw] of young.entries()) {
      const dams = animals.filter((a) => a.sex === 'female');
      const males = animals.filter((a) => a.sex === 'male');
      const ids = [draw.sire, ...(draw.second === null ? [] : [draw.second])].map(
        (n) => males[n % males.length]!.id,
      );
      const locus = loci[0]!;
      const list = allGenotypes(locus.alleles);
      animals.push({
        id: `Y${i}`,
        sex: draw.sex,
        ...(draw.missing ? {} : { dam: dams[draw.dam % dams.length]!.id }),
        sires: [...new Set(ids)].map((id, k) => ({ id, weight: k + 1 })),
        calls:
          draw.call === null
            ? []
            : [{ locus: locus.id, is: [list[draw.call % list.length]!], error: draw.error }],
      });
    }
    return { loci, unrecorded: 0.01, animals };
  });

test('elimination agrees with adding up every assignment, to 1e-9', () => {
  fc.assert(
    fc.property(anyPedigree, (pedigree) => {
      const fast = infer(pedigree);
      const slow = enumeratePosterior(pedigree);
      expect(fast.logLikelihood).toBeCloseTo(Math.log(slow.likelihood), 9);
      for (const [animal, loci] of fast.animals) {
        for (const [locus, genotypes] of loci) {
          expect(genotypes.reduce((sum, g) => sum + g.p, 0)).toBeCloseTo(1, 9);
          const merged = new Map<string, number>();
          for (const { genotype, p } of genotypes) {
            const key = genotypeKey(canonical(genotype[0], genotype[1]));
            merged.set(key, (merged.get(key) ?? 0) + p);
          }
          for (const [key, p] of merged) {
            expect(Math.abs(p - (slow.genotypes.get(`${animal}|${locus}|${key}`) ?? 0))).toBeLessThan(1e-9);
          }
        }
      }
      for (const [animal, candidates] of fast.sires) {
        for (const [sire, p] of candidates) {
          expect(Math.abs(p - (slow.sires.get(`${animal}|${sire}`) ?? 0))).toBeLessThan(1e-9);
        }
      }
    }),
    { numRuns: 120 },
  );
}, 60_000);
