import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { CATALOGUE, createCatalogue } from '../catalogue/catalogue.ts';
import { allGenotypes, type Genotype } from '../loci/genotype.ts';
import { canonicalLabel, genotypeLabel } from './label.ts';
import { parseGenes } from './parse.ts';

const asObject = (text: string): Record<string, unknown> => Object.fromEntries(parseGenes(text).loci);

describe('reading trade shorthand (common practice, no source)', () => {
  test('the words of one label are read in any order and case', () => {
    const expected = asObject('Cinnamon YB 66% het Clown');
    expect(asObject('66% HET clown yb CINNY')).toEqual(expected);
    expect(expected).toEqual({
      'dark-complex': [{ genotype: ['+', 'cinnamon'], p: 1 }],
      'yellow-belly-complex': [{ genotype: ['+', 'yellow-belly'], p: 1 }],
      clown: [
        { genotype: ['+', '+'], p: expect.closeTo(1 / 3, 12) },
        { genotype: ['+', 'clown'], p: expect.closeTo(2 / 3, 12) },
      ],
    });
  });

  test('a recessive gene named visual has two copies, an incomplete dominant one', () => {
    expect(asObject('pied pastel')).toEqual({
      pied: [{ genotype: ['pied', 'pied'], p: 1 }],
      pastel: [{ genotype: ['+', 'pastel'], p: 1 }],
    });
  });

  test('DH covers the two genes that follow', () => {
    expect(asObject('DH Clown Pied')).toEqual(asObject('het clown het piebald'));
  });

  test('brackets and "possible" keep a gene out of the genotype but on the label', () => {
    const parsed = parseGenes('66% het clown (OD)');
    expect(parsed.possible).toEqual(['orange-dream']);
    expect(canonicalLabel(parsed)).toBe('66% Het Clown (Orange Dream)');
  });

  test('names of doubles, compounds and combinations stand for their genes', () => {
    expect(asObject('Ivory')).toEqual({
      'yellow-belly-complex': [{ genotype: ['yellow-belly', 'yellow-belly'], p: 1 }],
    });
    expect(asObject('Freeway')).toEqual(asObject('asphalt yellow belly'));
    expect(asObject('Killer Bee')).toEqual(asObject('super pastel spider'));
  });

  test('a male-maker is told from a female-maker, before or after the gene', () => {
    expect(parseGenes('MM banana').phases.get('banana')).toBe('male-maker');
    expect(parseGenes('Coral Glow female-maker').phases.get('banana')).toBe('female-maker');
  });

  test('a word with two meanings is asked about', () => {
    const [unknown] = parseGenes('pastel axanthic').unknown;
    expect(unknown).toMatchObject({ word: 'axanthic', reason: 'ambiguous' });
    expect(unknown!.suggestions).toEqual(['Axanthic A', 'Axanthic B', 'Axanthic C', 'Axanthic D']);
  });

  test('a misspelt word comes back with its nearest neighbours', () => {
    const [unknown] = parseGenes('pastl clown').unknown;
    expect(unknown).toMatchObject({ word: 'pastl', reason: 'unknown' });
    expect(unknown!.suggestions).toContain('Pastel');
  });

  test('three alleles of one locus do not fit an animal', () => {
    expect(parseGenes('mojave lesser phantom').unknown[0]).toMatchObject({
      word: 'phantom',
      reason: 'contradictory',
      against: ['mojave', 'lesser'],
    });
  });

  test('a modifier with nothing to modify is reported', () => {
    expect(parseGenes('pastel 50% het').unknown[0]).toMatchObject({ reason: 'dangling', word: '50% het' });
  });
});

describe('round trip', () => {
  test('every genotype of every locus is read back from its label', () => {
    for (const locus of CATALOGUE.loci) {
      for (const genotype of allGenotypes(locus.alleles.map((allele) => allele.id))) {
        const label = genotypeLabel({ [locus.id]: genotype });
        const back = parseGenes(label);
        expect(back.unknown, label).toEqual([]);
        expect(back.loci.get(locus.id)?.[0]?.genotype ?? ['+', '+'], label).toEqual(genotype);
      }
    }
  });

  test('so is any combination over several loci', () => {
    const anyGenotypes = fc
      .subarray([...CATALOGUE.loci], { minLength: 1, maxLength: 6 })
      .chain((loci) =>
        fc.tuple(
          ...loci.map((locus) =>
            fc
              .constantFrom(...allGenotypes(locus.alleles.map((allele) => allele.id)))
              .map((genotype) => [locus.id, genotype] as [string, Genotype]),
          ),
        ),
      );
    fc.assert(
      fc.property(anyGenotypes, (entries) => {
        const label = genotypeLabel(Object.fromEntries(entries));
        const back = parseGenes(label);
        expect(back.unknown, label).toEqual([]);
        for (const [locus, genotype] of entries) {
          expect(back.loci.get(locus)?.[0]?.genotype ?? ['+', '+'], label).toEqual(genotype);
        }
        expect(canonicalLabel(back)).toBe(label);
      }),
      { numRuns: 300 },
    );
  });

  test('two genes whose names run together into a third are kept apart', () => {
    const label = genotypeLabel({ desert: ['+', 'desert'], ghost: ['ghost', 'ghost'] });
    expect(label).toBe('Desert, Ghost');
    expect([...parseGenes(label).loci.keys()]).toEqual(['desert', 'ghost']);
    expect([...parseGenes('Desert Ghost').loci.keys()]).toEqual(['desert-ghost']);
  });

  test('every pair of genotypes of two loci is read back', () => {
    const one = CATALOGUE.loci.map((locus) => ({
      id: locus.id,
      genotypes: allGenotypes(locus.alleles.map((a) => a.id)),
    }));
    for (const a of one) {
      for (const b of one) {
        if (a.id >= b.id) continue;
        for (const x of a.genotypes) {
          for (const y of b.genotypes) {
            const label = genotypeLabel({ [a.id]: x, [b.id]: y });
            const back = parseGenes(label).loci;
            const read = [a.id, b.id].map((id) => (back.get(id)?.[0]?.genotype ?? ['+', '+']).join('/'));
            if (read[0] !== x.join('/') || read[1] !== y.join('/'))
              expect(read, label).toEqual([x.join('/'), y.join('/')]);
          }
        }
      }
    }
  }, 60_000);

  test('bytes that mean nothing never throw', () => {
    fc.assert(fc.property(fc.string({ maxLength: 80 }), (text) => Array.isArray(parseGenes(text).unknown)));
  });
});

describe('one of several', () => {
  test('is read as equally likely, and written back as it was read', () => {
    const reading = parseGenes('pastel YB or asphalt');
    expect(reading.loci.get('yellow-belly-complex')).toEqual([
      { genotype: ['+', 'asphalt'], p: 0.5 },
      { genotype: ['+', 'yellow-belly'], p: 0.5 },
    ]);
    expect(canonicalLabel(reading)).toBe('Pastel Yellow Belly or Asphalt');
    expect(canonicalLabel(parseGenes(canonicalLabel(reading)))).toBe('Pastel Yellow Belly or Asphalt');
    expect(canonicalLabel(parseGenes('66% het candy or albino'))).toBe('66% Het Albino or Candy');
  });

  test('is asked about where the genes lie at different loci', () => {
    expect(parseGenes('pastel or mojave').unknown).toMatchObject([
      { word: 'or mojave', reason: 'impossible', suggestions: [] },
    ]);
    expect(parseGenes('pastel or').unknown).toMatchObject([
      { word: 'or', reason: 'dangling', suggestions: [] },
    ]);
  });
});

describe("a user's own additions", () => {
  const catalogue = createCatalogue({
    loci: [
      {
        id: 'own-axanthic-river',
        name: 'River Axanthic',
        alleles: [{ id: 'own-axanthic-river', name: 'River Axanthic', expression: 'recessive' }],
        compounds: [],
      },
    ],
    alleles: [
      {
        locus: 'yellow-belly-complex',
        allele: { id: 'own-ember', name: 'Ember', expression: 'incomplete-dominant' },
      },
    ],
    aliases: [{ word: 'sunrise', genes: 'pastel ember' }],
    recombination: [{ locus: 'banana', recombination: 0.1 }],
  });

  test('are read, written, and exclude what they must', () => {
    const reading = parseGenes('sunrise het river axanthic', catalogue);
    expect(reading.unknown).toEqual([]);
    expect(canonicalLabel(reading, catalogue)).toBe('Pastel Ember Het River Axanthic');
    // Three alleles of one complex need three places.
    expect(parseGenes('ember yb gravel', catalogue).unknown).toHaveLength(1);
    expect(catalogue.locusById('banana')!.sexLinked).toEqual({ recombination: 0.1 });
    expect(parseGenes('ember').unknown).toHaveLength(1);
  });
});
