import { CATALOGUE, createCatalogue, toAdditions, ZONES, TRAIT_MARKERS } from '@karyotome/core';
import { describe, expect, test } from 'vitest';
import { combinations, geneCards } from './gene-cards.ts';

describe('the catalogue as cards', () => {
  const cards = geneCards(CATALOGUE);

  test('complexes come first, as one locus with all their alleles', () => {
    const first = cards.findIndex(({ isComplex }) => !isComplex);
    expect(cards.slice(first).some(({ isComplex }) => isComplex)).toBe(false);
    const blue = cards.find(({ locus }) => locus.id === 'blue-eyed-white')!;
    expect(blue.alleles.map(({ name }) => name)).toContain('Lesser');
    expect(blue.alleles.find(({ id }) => id === 'lesser')!.words).toContain('Butter');
  });

  test('a search finds words, markers and cautions', () => {
    const found = (word: string): string[] =>
      cards.filter(({ text }) => text.includes(word)).map(({ locus }) => locus.id);
    expect(found('coral glow')).toEqual(['banana']);
    expect(found('wobble')).toContain('spider-blackhead');
    expect(found('drops that hang')).toEqual(['clown']);
  });

  test('every marker is of a zone and of a gene that there is', () => {
    for (const [phenotype, markers] of Object.entries(TRAIT_MARKERS)) {
      const [allele] = phenotype.split('/') as [string];
      expect(CATALOGUE.alleleById(allele), allele).toBeDefined();
      for (const { zone } of markers) expect(ZONES).toContain(zone);
    }
  });

  test("one's own are marked, and their words listed", () => {
    const own = createCatalogue(toAdditions([{ kind: 'locus', name: 'Fen Ghost', expression: 'recessive' }]));
    expect(
      geneCards(own)
        .filter(({ isOwn }) => isOwn)
        .map(({ locus }) => locus.name),
    ).toEqual(['Fen Ghost']);
    expect(combinations([{ word: 'Sunrise', genes: 'pastel enchi' }]).at(-1)).toEqual([
      'Sunrise',
      'pastel enchi',
    ]);
  });
});
