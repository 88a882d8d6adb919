import { describe, expect, test } from 'vitest';
import { compilePedigree } from './from-records.ts';
import type { RecordedAnimal } from './recorded-animal.ts';
import { kinByDistance, withAncestors } from './kin.ts';

const identified = (genes: string, sure: 'certain' | 'probable' | 'possible' = 'certain') => ({
  identification: { record: 'r', genes, sure },
});
const founder = (genes: string, sex: 'female' | 'male' = 'female', sure?: 'probable'): RecordedAnimal => ({
  id: 'F',
  sex,
  sires: [],
  ...identified(genes, sure),
});
const young = (genes: string, sure?: 'probable'): RecordedAnimal => ({
  id: 'Y',
  sex: 'unknown',
  dam: 'F',
  sires: [],
  ...identified(genes, sure),
});

describe('what was recorded, as evidence', () => {
  test('loci and alleles are those that any text names', () => {
    const { loci } = compilePedigree([founder('mojave het clown'), young('lesser (OD)')]);
    expect(loci.map(({ id, alleles }) => [id, alleles]).toSorted()).toEqual([
      ['blue-eyed-white', ['lesser', 'mojave']],
      ['clown', ['clown']],
      ['orange-dream', ['orange-dream']],
    ]);
  });

  test("a founder's statement is a distribution; a doubtful one leaves room for wild type", () => {
    const at = (animal: RecordedAnimal) => compilePedigree([animal]).animals[0]!.founder!['clown'];
    expect(at(founder('66% het clown'))).toEqual([
      { genotype: ['+', '+'], p: expect.closeTo(1 / 3, 12) },
      { genotype: ['+', 'clown'], p: expect.closeTo(2 / 3, 12) },
    ]);
    expect(at(founder('clown', 'female', 'probable'))).toEqual([
      { genotype: ['clown', 'clown'], p: 0.9 },
      { genotype: ['+', '+'], p: 0.1 },
    ]);
  });

  test('a male whose sex-linked phase nobody told is one or the other', () => {
    const banana = compilePedigree([founder('banana', 'male')]).animals[0]!.founder!['banana'];
    expect(banana).toEqual([
      { genotype: ['banana', '+'], p: 0.5 },
      { genotype: ['+', 'banana'], p: 0.5 },
    ]);
  });

  test('what an offspring is said to carry unseen is no evidence, what shows is', () => {
    const [, animal] = compilePedigree([founder('clown'), young('pastel het clown')]).animals;
    const call = (locus: string) => animal!.calls!.find((c) => c.locus === locus)!.is;
    expect(call('pastel')).toEqual([['+', 'pastel']]);
    expect(call('clown')).toEqual([
      ['+', '+'],
      ['+', 'clown'],
    ]);
  });

  test('pied leaves what was not named in doubt, a white double says nothing of it at all', () => {
    const calls = (genes: string) =>
      compilePedigree([founder('pastel pied mojave'), young(genes)]).animals[1]!.calls!;
    expect(calls('pied').find((c) => c.locus === 'pastel')!.error).toBe(0.2);
    expect(calls('super mojave').find((c) => c.locus === 'pastel')).toBeUndefined();
    // Double phantom is dark and patterned: what is not named on it is not there.
    expect(calls('super phantom').find((c) => c.locus === 'pastel')!.error).toBe(0);
    expect(calls('normal').find((c) => c.locus === 'pastel')!.error).toBe(0);
  });

  test('of an animal nobody looked at, everything is possible at a small frequency', () => {
    const { animals } = compilePedigree([
      { id: 'N', sex: 'female', sires: [] },
      { ...young('clown'), dam: 'N' },
    ]);
    expect(animals[0]!.founder!['clown']!.reduce((sum, g) => sum + g.p, 0)).toBeCloseTo(1, 12);
    expect(animals[0]!.founder!['clown']!.find((g) => g.genotype.join() === 'clown,clown')!.p).toBeCloseTo(
      1e-4,
      12,
    );
  });
});

test('kin are found upwards, and all around by distance', () => {
  const animals = compilePedigree([
    founder('normal'),
    young('normal'),
    { id: 'G', sex: 'unknown', dam: 'Y', sires: [{ id: 'S', weight: 1 }] },
    { id: 'S', sex: 'male', sires: [] },
    { id: 'far', sex: 'male', sires: [] },
  ]).animals;
  expect(withAncestors(animals, ['G']).map((a) => a.id)).toEqual(['F', 'Y', 'G', 'S']);
  expect(Object.fromEntries(kinByDistance(animals, 'F'))).toEqual({ F: 0, Y: 1, G: 2, S: 3 });
});
