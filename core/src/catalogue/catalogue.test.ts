import { describe, expect, test } from 'vitest';
import { parseGenes } from '../notation/parse.ts';
import { parseParent } from '../odds/parent.ts';
import { pairingOutcomes } from '../odds/pairing-odds.ts';
import { isRecessive } from '../loci/locus.ts';
import { CATALOGUE, createCatalogue } from './catalogue.ts';
import { COMBINATION_WORDS } from './data/combinations.ts';
import { KNOWN_SINCE } from './data/known-since.ts';
import { DISPUTED_ALLELISM } from './data/main-loci.ts';
import { FIRST_VERSION, updatesSince } from './data/updates.ts';
import { toAdditions } from './entries.ts';
import { squeeze } from './words.ts';

const ALLELES = CATALOGUE.loci.flatMap((locus) => locus.alleles.map((allele) => ({ locus, allele })));

describe('the built-in catalogue', () => {
  test('has at least 150 genes and lines, and 200 names of combinations', () => {
    expect(ALLELES.length).toBeGreaterThanOrEqual(150);
    expect(Object.keys(COMBINATION_WORDS).length).toBeGreaterThanOrEqual(200);
  });

  test('has no id, name or name of a double twice', () => {
    const names = [
      ...ALLELES.flatMap(({ allele }) => [allele.name, ...(allele.double ? [allele.double] : [])]),
      ...CATALOGUE.loci.flatMap(({ compounds }) => compounds.map(({ name }) => name)),
    ].map(squeeze);
    expect(names.filter((name, at) => names.indexOf(name) !== at)).toEqual([]);
    const ids = ALLELES.map(({ allele }) => allele.id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(new Set(CATALOGUE.loci.map(({ id }) => id)).size).toBe(CATALOGUE.loci.length);
  });

  test('has a marker in some zone for every gene that can be seen', () => {
    const told = new Set(CATALOGUE.markers.flatMap(({ phenotypes }) => phenotypes));
    expect(ALLELES.map(({ allele }) => allele.id).filter((id) => !told.has(id))).toEqual([]);
  });

  test('every compound is of two alleles of its locus, and read back by its name', () => {
    for (const locus of CATALOGUE.loci) {
      for (const { alleles, name } of locus.compounds) {
        expect(alleles.every((id) => locus.alleles.some((allele) => allele.id === id))).toBe(true);
        const reading = parseGenes(name);
        expect(reading.unknown, name).toEqual([]);
        expect(reading.loci.get(locus.id)?.[0]?.genotype, name).toEqual(alleles);
      }
    }
  });

  test('every name of a combination is read, or asked about with choices that are read', () => {
    for (const [name, genes] of Object.entries(COMBINATION_WORDS)) {
      const { unknown, loci } = parseGenes(name);
      if (unknown.length === 0) {
        expect(loci.size, name).toBeGreaterThan(0);
        expect(parseGenes([genes].flat()[0]!).loci, name).toEqual(loci);
      } else {
        expect(unknown, name).toMatchObject([{ reason: 'ambiguous' }]);
        expect(unknown[0]!.suggestions.length, name).toBeGreaterThan(1);
        for (const choice of unknown[0]!.suggestions) expect(parseGenes(choice).unknown, choice).toEqual([]);
      }
    }
  });

  test('a complex is recessive throughout, or not at all', () => {
    for (const locus of CATALOGUE.loci) {
      const recessive = locus.alleles.filter(({ id }) => isRecessive(locus, id)).length;
      expect([0, locus.alleles.length], locus.id).toContain(recessive);
    }
  });
});

describe('pairings that breeders know (common practice, no source)', () => {
  const odds = (sire: string, dam: string): Record<string, number> =>
    Object.fromEntries(
      pairingOutcomes(parseParent(sire, 'male').parent, parseParent(dam, 'female').parent).outcomes.map(
        ({ label, p }) => [label, p],
      ),
    );

  test('visual to visual gives all visual; to a carrier half; to a non-carrier all carriers', () => {
    expect(odds('clown', 'clown')).toEqual({ Clown: 1 });
    expect(odds('clown', 'het clown')).toEqual({ Clown: 0.5, 'Het Clown': 0.5 });
    expect(odds('clown', 'normal')).toEqual({ 'Het Clown': 1 });
  });

  test('two alleles of one complex in a parent: every egg gets one or the other, never neither', () => {
    expect(odds('freeway', 'normal')).toEqual({ Asphalt: 0.5, 'Yellow Belly': 0.5 });
    expect(odds('spider blackhead', 'normal')).toEqual({ Blackhead: 0.5, Spider: 0.5 });
  });
});

describe('a collection’s own reading', () => {
  test('moves an allele, with its markers, and takes its old company away', () => {
    for (const [allele, [here, there]] of Object.entries(DISPUTED_ALLELISM)) {
      const own = createCatalogue(toAdditions([{ kind: 'allelism', allele, locus: there! }]));
      expect(CATALOGUE.alleleById(allele)!.locus.id).toBe(here);
      expect(own.alleleById(allele)!.locus.id).toBe(there);
      expect(own.locusById(here!)!.alleles.some(({ id }) => id === allele)).toBe(false);
      expect(own.markers.some(({ phenotypes }) => phenotypes.includes(allele))).toBe(true);
    }
    const own = createCatalogue(
      toAdditions([{ kind: 'allelism', allele: 'het-red-axanthic', locus: 'dark-complex' }]),
    );
    // Two places in all: with cinnamon it now shares a locus, with enchi no more.
    expect([...parseGenes('cinnamon hra enchi', own).loci.keys()].toSorted()).toEqual([
      'dark-complex',
      'enchi-complex',
    ]);
    expect(parseGenes('cinnamon hra black pastel', own).unknown).toMatchObject([{ reason: 'contradictory' }]);
  });

  test('a collection that has not taken an update reads as before, with its own entries in force', () => {
    const before = createCatalogue(toAdditions([{ kind: 'as-of', version: FIRST_VERSION }]));
    expect(before.version).toBe(FIRST_VERSION);
    expect(before.locusById('leucistic')!.hides).toBeUndefined();
    expect(CATALOGUE.locusById('leucistic')!.hides).toBe('everything');
    // Nothing but what the updates name differs.
    const changed = new Set(updatesSince(FIRST_VERSION).flatMap(({ before: loci }) => Object.keys(loci)));
    const rest = (catalogue: typeof CATALOGUE) => catalogue.loci.filter(({ id }) => !changed.has(id));
    expect(rest(before)).toEqual(rest(CATALOGUE));
    for (const id of changed) expect(before.locusById(id)).not.toEqual(CATALOGUE.locusById(id));
    expect(updatesSince(CATALOGUE.version)).toEqual([]);
    const own = createCatalogue(
      toAdditions([
        { kind: 'correction', allele: 'leucistic', expression: 'dominant' },
        { kind: 'as-of', version: FIRST_VERSION },
      ]),
    );
    expect(own.alleleById('leucistic')!.allele.expression).toBe('dominant');
    expect(own.locusById('leucistic')!.hides).toBeUndefined();
  });

  test('every year that a gene is known since belongs to an allele of the catalogue', () => {
    for (const [allele, year] of Object.entries(KNOWN_SINCE)) {
      expect(CATALOGUE.alleleById(allele), allele).toBeDefined();
      expect(year).toBeGreaterThan(1980);
    }
  });

  test('survives with every kind of entry, and names what it was given', () => {
    const own = createCatalogue(
      toAdditions([
        { kind: 'compound', alleles: ['lesser', 'bamboo'], name: 'Paper Lantern' },
        { kind: 'viability', alleles: ['spider', 'spider'], p: 1 },
        { kind: 'viability', alleles: ['woma', 'woma'], p: 0.5 },
        { kind: 'frequency', allele: 'clown', frequency: 0.04 },
        { kind: 'label-order', loci: ['mahogany'] },
      ]),
    );
    expect(own.pairName(['bamboo', 'lesser'])).toBe('Paper Lantern');
    expect(own.locusById('spider-blackhead')!.viability).toBeUndefined();
    expect(own.locusById('woma')!.viability).toEqual([{ genotype: ['woma', 'woma'], p: 0.5 }]);
    expect(own.frequencyOf('clown')).toBe(0.04);
    expect(own.frequencyOf('pied')).toBe(0.01);
    expect(own.loci[0]!.id).toBe('mahogany');
  });
});
