import { describe, expect, test } from 'vitest';
import { createCatalogue } from '../catalogue/catalogue.ts';
import { infer } from '../inference/infer.ts';
import { compilePedigree } from './from-records.ts';
import { carriedUnseen } from './founders.ts';
import type { Completeness, RecordedAnimal } from './recorded-animal.ts';

const founder = (
  id: string,
  sex: 'female' | 'male',
  genes: string,
  completeness?: Completeness,
): RecordedAnimal => ({
  id,
  sex,
  sires: [],
  identification: { record: `r-${id}`, genes, sure: 'certain', ...(completeness ? { completeness } : {}) },
});
const young = (id: string, genes: string): RecordedAnimal => ({
  id,
  sex: 'unknown',
  dam: 'D',
  sires: [{ id: 'S', weight: 1 }],
  identification: { record: `r-${id}`, genes, sure: 'certain' },
});
const carries = (animals: readonly RecordedAnimal[], id: string, catalogue = createCatalogue()): number => {
  const genotypes = infer(compilePedigree(animals, catalogue)).animals.get(id)!.get('clown')!;
  return genotypes.filter(({ genotype }) => genotype.includes('clown')).reduce((sum, { p }) => sum + p, 0);
};

describe('what a statement leaves open', () => {
  test('a visual young of a parent of which all is known is a contradiction', () => {
    const family = [founder('S', 'male', 'clown'), founder('D', 'female', 'pastel'), young('H', 'clown')];
    expect(infer(compilePedigree(family)).conflicts).toHaveLength(1);
  });

  test('where recessive genes were left open it proves the gene, and contradicts nothing', () => {
    const family = [
      founder('S', 'male', 'clown'),
      founder('D', 'female', 'pastel', 'recessives-unknown'),
      young('H', 'clown'),
    ];
    const pedigree = compilePedigree(family);
    expect(infer(pedigree).conflicts).toEqual([]);
    expect(carries(family, 'D')).toBeCloseTo(1, 12);
    expect(pedigree.animals.find(({ id }) => id === 'D')!.unsaid).toEqual(['clown']);
  });

  test('founders behind the parent in question are weighed by the gene’s frequency (Bayes, by hand)', () => {
    // D's parents: one of them carries, each as likely as the other; both carrying is rarer by the frequency.
    const family: RecordedAnimal[] = [
      founder('G', 'male', 'pastel', 'recessives-unknown'),
      founder('M', 'female', 'fire', 'recessives-unknown'),
      { ...young('D', 'pastel'), sex: 'female', dam: 'M', sires: [{ id: 'G', weight: 1 }] },
      founder('S', 'male', 'clown'),
      young('H', 'clown'),
    ];
    const f = 0.01;
    const c = (2 * f * (1 - f)) / (1 - f * f);
    // P(D carries, not visual): one carrier parent 1/2, both 1/2 (of the young 2 in 4 carry, 1 in 4 is visual).
    const one = c * (1 - c) * 0.5;
    const both = c * c * 0.5;
    expect(carries(family, 'G')).toBeCloseTo((one + both) / (2 * one + both), 10);
  });

  test('a frequency of the collection’s own takes the place of the default', () => {
    const catalogue = createCatalogue({ frequencies: [{ allele: 'clown', frequency: 0.2 }] });
    const family: RecordedAnimal[] = [
      founder('G', 'male', 'pastel', 'recessives-unknown'),
      founder('M', 'female', 'fire', 'recessives-unknown'),
      { ...young('D', 'pastel'), sex: 'female', dam: 'M', sires: [{ id: 'G', weight: 1 }] },
      founder('S', 'male', 'clown'),
      young('H', 'clown'),
    ];
    expect(carries(family, 'G', catalogue)).toBeGreaterThan(carries(family, 'G') + 0.05);
  });

  test('nothing known leaves everything open that the statement does not name', () => {
    const family = [founder('D', 'female', 'pastel', 'nothing-known'), founder('S', 'male', 'clown')];
    expect(carries(family, 'D')).toBeCloseTo(1 - 0.99 ** 2, 12);
  });

  test('one that shows nothing carries with 2f(1-f) of what shows nothing (Hardy 1908)', () => {
    const [, carrier] = carriedUnseen([['clown', 0.1]]);
    expect(carrier!.p).toBeCloseTo((2 * 0.1 * 0.9) / (1 - 0.1 ** 2), 12);
  });
});

describe('that an animal lives', () => {
  test('makes two of three young of two spiders spiders (Cuénot 1905), unless it died in the egg', () => {
    const parents = [founder('S', 'male', 'spider'), founder('D', 'female', 'spider')];
    const hatchling: RecordedAnimal = {
      id: 'H',
      sex: 'unknown',
      dam: 'D',
      sires: [{ id: 'S', weight: 1 }],
    };
    const spider = (animals: readonly RecordedAnimal[]) =>
      infer(compilePedigree(animals))
        .animals.get('H')!
        .get('spider-blackhead')!
        .map(({ genotype, p }) => [genotype.join('/'), Number(p.toFixed(4))]);
    expect(spider([...parents, hatchling])).toEqual([
      ['+/+', 0.3333],
      ['+/spider', 0.6667],
    ]);
    expect(spider([...parents, { ...hatchling, diedInEgg: true }])).toEqual([
      ['+/+', 0.25],
      ['+/spider', 0.5],
      ['spider/spider', 0.25],
    ]);
  });
});
