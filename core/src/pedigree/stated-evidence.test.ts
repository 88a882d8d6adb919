import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { infer } from '../inference/infer.ts';
import type { Genotype } from '../loci/genotype.ts';
import { compilePedigree } from './from-records.ts';
import type { RecordedAnimal } from './recorded-animal.ts';
import { statedOfAnimal } from './stated-evidence.ts';

/* What one breeder's records say, taken in by another: it must mean the same there. */

const LOOKS = ['clown', 'het clown', '66% het clown', 'normal', 'pastel', 'pastel clown'] as const;

/** Two founders and their young, as one breeder recorded them. */
const family = fc.record({
  dam: fc.constantFrom(...LOOKS),
  sire: fc.constantFrom(...LOOKS),
  young: fc.array(fc.constantFrom('normal', 'pastel', 'clown'), { minLength: 1, maxLength: 4 }),
  sure: fc.constantFrom('certain' as const, 'probable' as const),
});

function recordedOf({
  dam,
  sire,
  young,
  sure,
}: {
  dam: string;
  sire: string;
  young: string[];
  sure: 'certain' | 'probable';
}): RecordedAnimal[] {
  const identified = (id: string, genes: string) => ({ identification: { record: `r-${id}`, genes, sure } });
  return [
    { id: 'D', sex: 'female', sires: [], ...identified('D', dam) },
    { id: 'S', sex: 'male', sires: [], ...identified('S', sire) },
    ...young.map((genes, i): RecordedAnimal => ({
      id: `Y${i}`,
      sex: 'unknown',
      dam: 'D',
      sires: [{ id: 'S', weight: 1 }],
      ...identified(`Y${i}`, genes),
    })),
  ];
}

const takenFrom = (recorded: readonly RecordedAnimal[], error = 0): RecordedAnimal[] => {
  const pedigree = compilePedigree(recorded);
  return pedigree.animals.map((animal) => {
    const { dam, sires, founder, calls } = statedOfAnimal(pedigree, animal).stated;
    return {
      id: animal.id,
      sex: animal.sex,
      ...(dam === undefined ? {} : { dam }),
      sires,
      stated: { record: `s-${animal.id}`, error, calls, ...(founder ? { founder } : {}) },
    };
  });
};

describe('evidence of another breeder', () => {
  test('gives the same posteriors there, wherever it can be true (property)', () => {
    fc.assert(
      fc.property(family, (made) => {
        const own = infer(compilePedigree(recordedOf(made)));
        const taken = infer(compilePedigree(takenFrom(recordedOf(made))));
        expect(taken.conflicts).toEqual(own.conflicts);
        for (const [id, loci] of own.animals)
          for (const [locus, genotypes] of loci) {
            const there = taken.animals.get(id)!.get(locus)!;
            for (const { genotype, p } of genotypes) {
              const same = there.find((one) => one.genotype.join() === genotype.join());
              expect(same?.p ?? 0).toBeCloseTo(p, 9);
            }
          }
      }),
    );
  });

  test('counts less where the breeder is doubted, between their word and nothing known', () => {
    const [doubted] = takenFrom(
      [
        {
          id: 'D',
          sex: 'female',
          sires: [],
          identification: { record: 'r', genes: 'het clown', sure: 'certain' },
        },
      ],
      0.1,
    );
    const posterior = infer(compilePedigree([doubted!]))
      .animals.get('D')!
      .get('clown')!;
    const carrier = posterior
      .filter(({ genotype }) => genotype.includes('clown'))
      .reduce((sum, { p }) => sum + p, 0);
    // By hand: 0.9 for certain, and a tenth of an animal nobody knows, who carries with 1 - 0.99^2.
    expect(carrier).toBeCloseTo(0.9 + 0.1 * (1 - 0.99 ** 2), 12);
  });

  test('of a gene that is not known here is left out whole, and named', () => {
    const loci = [
      { id: 'clown', alleles: ['clown', 'strange'] },
      { id: 'pastel', alleles: ['pastel'] },
    ];
    const is: Genotype[] = [['+', 'clown']];
    const calls = [
      { locus: 'clown', is },
      { locus: 'pastel', is: [['+', 'pastel']] as Genotype[] },
    ];
    const { stated, unknown } = statedOfAnimal({ loci }, { id: 'A', sex: 'male', dam: 'D', calls });
    expect(unknown).toEqual(['clown']);
    expect(stated.calls.map(({ locus }) => locus)).toEqual(['pastel']);
  });
});
