import { describe, expect, test } from 'vitest';
import { CATALOGUE } from '../catalogue/catalogue.ts';
import { allGenotypes, appearance, canonical, copies } from './genotype.ts';

describe('genotypes', () => {
  test('a locus with n alleles beside wild type has (n+1)(n+2)/2 genotypes', () => {
    // Textbook count of unordered pairs with repetition.
    for (const locus of CATALOGUE.loci) {
      const n = locus.alleles.length;
      expect(allGenotypes(locus.alleles.map((allele) => allele.id))).toHaveLength(((n + 1) * (n + 2)) / 2);
    }
  });

  test('wild type comes first, the rest in code-unit order', () => {
    expect(canonical('clown', '+')).toEqual(['+', 'clown']);
    expect(canonical('spark', 'asphalt')).toEqual(['asphalt', 'spark']);
  });

  test('a recessive carrier looks like wild type and two different recessive alleles of one locus show', () => {
    const albino = CATALOGUE.locusById('albino-complex')!;
    expect(appearance(albino, ['+', 'albino'])).toBe('');
    expect(appearance(albino, ['albino', 'candy'])).toBe('albino/candy');
  });

  test('two copies of a dominant allele look like one, two of an incomplete dominant do not', () => {
    const pinstripe = CATALOGUE.locusById('pinstripe')!;
    const pastel = CATALOGUE.locusById('pastel')!;
    expect(appearance(pinstripe, ['pinstripe', 'pinstripe'])).toBe(appearance(pinstripe, ['+', 'pinstripe']));
    expect(appearance(pastel, ['pastel', 'pastel'])).not.toBe(appearance(pastel, ['+', 'pastel']));
  });

  test('copies are counted on both places', () => {
    expect(copies(['+', 'clown'], 'clown')).toBe(1);
    expect(copies(['clown', 'clown'], 'clown')).toBe(2);
    expect(copies(['+', '+'], 'clown')).toBe(0);
  });
});
