import { describe, expect, test } from 'vitest';
import { infer } from '../inference/infer.ts';
import { compilePedigree } from '../pedigree/from-records.ts';
import type { RecordedAnimal } from '../pedigree/recorded-animal.ts';
import { ClutchPriorReader } from './clutch-priors.ts';

const stated = (id: string, sex: 'female' | 'male', genes: string): RecordedAnimal => ({
  id,
  sex,
  sires: [],
  identification: { record: `r-${id}`, genes, sure: 'certain' },
});
const young = (id: string, sex: RecordedAnimal['sex'], sires: string[], genes?: string): RecordedAnimal => ({
  id,
  sex,
  dam: 'dam',
  sires: sires.map((sire) => ({ id: sire, weight: 1 })),
  ...(genes ? { identification: { record: `r-${id}`, genes, sure: 'certain' as const } } : {}),
});

describe('what a clutch-mate can be, but for its own identification', () => {
  const one = [
    stated('dam', 'female', '66% het Clown'),
    stated('sire', 'male', 'Clown Pastel'),
    young('a', 'female', ['sire'], 'Clown'),
    young('b', 'male', ['sire']),
  ];

  test('one sire: the marginals are the engine’s, sibling testimony included', () => {
    const pedigree = compilePedigree(one);
    const priors = new ClutchPriorReader().read(pedigree, {
      dam: 'dam',
      sires: [{ id: 'sire' }],
      mates: ['a', 'b'],
    });
    const [b] = priors.of.get('b')!;
    const exact = infer(pedigree).animals.get('b')!;
    for (const { locus, genotypes } of b!.loci) {
      for (const { genotype, p } of genotypes)
        expect(exact.get(locus)!.find((g) => g.genotype.join() === genotype.join())!.p).toBeCloseTo(p, 10);
    }
    // The clown proved the dam a carrier: half of the others are clowns, though 1/3 before.
    const clown = (id: string): number =>
      priors.of
        .get(id)![0]!
        .loci.find(({ locus }) => locus === 'clown')!
        .genotypes.find(({ genotype }) => genotype.join() === 'clown,clown')!.p;
    expect(clown('b')).toBeCloseTo(0.5, 10);
    // Without its own testimony she is again what the pair gives: 2/3 times 1/2.
    expect(clown('a')).toBeCloseTo(1 / 3, 10);
  });

  test('two sires and an open sex: mixed by their odds, the hypotheses give the engine’s marginals', () => {
    const pedigree = compilePedigree([
      stated('dam', 'female', 'Pastel'),
      stated('sire', 'male', 'Male-Maker Banana'),
      stated('other', 'male', 'Enchi'),
      young('a', 'unknown', ['sire', 'other'], 'Enchi'),
      young('b', 'unknown', ['sire', 'other']),
    ]);
    const family = { dam: 'dam', sires: [{ id: 'sire' }, { id: 'other' }], mates: ['a', 'b'] };
    const hypotheses = new ClutchPriorReader().read(pedigree, family).of.get('b')!;
    expect(hypotheses).toHaveLength(4);
    expect(hypotheses.reduce((sum, { weight }) => sum + weight, 0)).toBeCloseTo(1, 12);
    const exact = infer(pedigree).animals.get('b')!;
    for (const locus of ['banana', 'enchi-complex', 'pastel']) {
      const shows = (genotypes: readonly { genotype: readonly string[]; p: number }[]): number =>
        genotypes
          .filter(({ genotype }) => genotype.some((allele) => allele !== '+'))
          .reduce((s, { p }) => s + p, 0);
      const mixed = hypotheses.reduce(
        (sum, one) => sum + one.weight * shows(one.loci.find((l) => l.locus === locus)?.genotypes ?? []),
        0,
      );
      expect(mixed, locus).toBeCloseTo(shows(exact.get(locus)!), 10);
    }
    // A son of the male-maker shows it, crossovers (0.07) aside.
    const son = hypotheses.find(({ sire, sex }) => sire === 'sire' && sex === 'male')!;
    const banana = son.loci.find(({ locus }) => locus === 'banana')!.genotypes;
    expect(banana.find(({ genotype }) => genotype.includes('banana'))!.p).toBeCloseTo(0.93, 10);
  });

  test('a reader asked again after a record answers as a new one does', () => {
    const family = { dam: 'dam', sires: [{ id: 'sire' }], mates: ['a', 'b'] };
    const reader = new ClutchPriorReader();
    reader.read(compilePedigree(one), family);
    const changed = compilePedigree([...one.slice(0, 2), young('a', 'female', ['sire'], 'Pastel'), one[3]!]);
    expect([...reader.read(changed, family).of]).toEqual([
      ...new ClutchPriorReader().read(changed, family).of,
    ]);
  });

  test('a contradiction elsewhere leaves the pair’s own ancestors to answer', () => {
    const pedigree = compilePedigree([
      ...one,
      stated('x', 'female', 'Normal'),
      stated('y', 'male', 'Normal'),
      { ...young('z', 'female', ['y'], 'Pastel'), dam: 'x' },
    ]);
    expect(infer(pedigree).conflicts.map(({ locus }) => locus)).toEqual(['pastel']);
    const priors = new ClutchPriorReader().read(pedigree, {
      dam: 'dam',
      sires: [{ id: 'sire' }],
      mates: ['b'],
    });
    const pastel = priors.of.get('b')![0]!.loci.find(({ locus }) => locus === 'pastel')!;
    expect(pastel.genotypes.map(({ p }) => p)).toEqual([0.5, 0.5]);
    expect(priors.leftOut).toEqual([]);
  });
});
