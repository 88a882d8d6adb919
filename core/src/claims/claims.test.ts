import { describe, expect, test } from 'vitest';
import { infer } from '../inference/infer.ts';
import { compilePedigree } from '../pedigree/from-records.ts';
import type { RecordedAnimal } from '../pedigree/recorded-animal.ts';
import { claimsFrom, type Claim } from './claim.ts';
import { claimFromPedigree, findSupport } from './support.ts';

const founder = (id: string, sex: 'female' | 'male', genes: string): RecordedAnimal => ({
  id,
  sex,
  sires: [],
  identification: { record: `r-${id}`, genes, sure: 'certain' },
});
const young = (id: string, dam: string, sires: string[], genes?: string): RecordedAnimal => ({
  id,
  sex: 'unknown',
  dam,
  sires: sires.map((sire) => ({ id: sire, weight: 1 })),
  ...(genes === undefined ? {} : { identification: { record: `r-${id}`, genes, sure: 'certain' as const } }),
});
const claimsOf = (animals: RecordedAnimal[], id: string): Claim[] =>
  claimsFrom(infer(compilePedigree(animals)).animals.get(id)!);
const words = (animals: RecordedAnimal[], id: string): string[] => claimsOf(animals, id).map((c) => c.label);
const supportOf = (animals: RecordedAnimal[], id: string, claim: string): string[] => {
  const found = claimsOf(animals, id).find((c) => c.label === claim)!;
  return findSupport(compilePedigree(animals), id, found)!.map((s) => s.record);
};

// What is said of an animal: common practice of the trade, no source; the fractions are Mendel's.
describe('claims', () => {
  test('young of a visual and a wild type are 100% het, whatever they look like', () => {
    const family = [
      founder('S', 'male', 'clown'),
      founder('D', 'female', 'pastel'),
      young('H', 'D', ['S'], 'pastel'),
    ];
    expect(words(family, 'H')).toEqual(['Pastel', '100% het Clown']);
    expect(supportOf(family, 'H', '100% het Clown')).toEqual(['r-S']);
  });

  test('a non-visual from two carriers is 66% het, from one carrier 50%', () => {
    const two = [
      founder('S', 'male', 'het clown'),
      founder('D', 'female', 'het clown'),
      young('H', 'D', ['S'], 'normal'),
    ];
    expect(words(two, 'H')).toEqual(['66% het Clown']);
    expect(new Set(supportOf(two, 'H', '66% het Clown'))).toEqual(new Set(['r-H', 'r-S', 'r-D']));
    const single = [
      founder('S', 'male', 'het clown'),
      founder('D', 'female', 'normal'),
      young('H', 'D', ['S'], 'normal'),
    ];
    expect(words(single, 'H')).toEqual(['50% het Clown']);
  });

  test('a visual offspring proves its parent, and the claim names the offspring', () => {
    const family = [
      founder('G', 'male', 'het clown'),
      founder('N', 'female', 'normal'),
      young('P', 'N', ['G'], 'normal'),
      founder('D', 'female', 'clown'),
      { ...young('H', 'D', ['P'], 'clown') },
    ].map((animal) => (animal.id === 'P' ? { ...animal, sex: 'male' as const } : animal));
    expect(words(family, 'P')).toEqual(['100% het Clown']);
    expect(supportOf(family, 'P', '100% het Clown')).toContain('r-H');
  });

  test('what a double white hides is not called absent', () => {
    const family = [
      founder('S', 'male', 'mojave pastel'),
      founder('D', 'female', 'mojave'),
      young('H', 'D', ['S'], 'super mojave'),
    ];
    expect(claimsOf(family, 'H').find((c) => c.allele === 'pastel')).toMatchObject({
      kind: 'possible-visual',
      p: 0.5,
    });
  });

  test('a gene in brackets is not ruled out by not being named', () => {
    const family = [founder('S', 'male', 'orange dream'), founder('D', 'female', 'normal')];
    expect(words([...family, young('H', 'D', ['S'], 'normal')], 'H')).toEqual([]);
    expect(words([...family, young('H', 'D', ['S'], 'normal (OD)')], 'H')).toEqual(['possible Orange Dream']);
  });

  test('a probable identification makes a probable claim', () => {
    const family = [founder('S', 'male', 'pastel'), founder('D', 'female', 'normal')];
    const hatchling = young('H', 'D', ['S'], 'pastel');
    const doubted = {
      ...hatchling,
      identification: { ...hatchling.identification!, sure: 'probable' as const },
    };
    const [claim] = claimsOf([...family, doubted], 'H');
    expect(claim).toMatchObject({ kind: 'visual', label: 'Pastel' });
    // Pastel and normal are as likely by the parents; a normal one would have been called pastel or super pastel.
    expect(claim!.p).toBeCloseTo(0.9 / (0.9 + 0.1 / 2), 12);
  });

  test('with two candidate sires the gene of one settles what the young carry of him', () => {
    const family = [
      founder('S1', 'male', 'pastel pied'),
      founder('S2', 'male', 'normal'),
      founder('D', 'female', 'normal'),
      young('H', 'D', ['S1', 'S2'], 'pastel'),
    ];
    expect(words(family, 'H')).toEqual(['Pastel', '100% het Pied']);
    expect(supportOf(family, 'H', '100% het Pied')).toContain('r-H');
  });

  test('what the ancestors alone would say stands beside the odds after all evidence', () => {
    // A 50% het by birth, of whom three young with a visual mate show nothing: (1/2)^3 to 1.
    const family = [
      founder('S', 'male', 'het clown'),
      founder('N', 'female', 'normal'),
      young('P', 'N', ['S'], 'normal'),
      founder('V', 'female', 'clown'),
      ...['a', 'b', 'c'].map((id) => ({ ...young(id, 'V', ['P'], 'normal') })),
    ];
    const [claim] = claimsOf(family, 'P');
    expect(claim!.p).toBeCloseTo(1 / 9, 12);
    expect(claimFromPedigree(compilePedigree(family), 'P', claim!)!.label).toBe('50% het Clown');
  });
});
