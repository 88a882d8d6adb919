import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { CATALOGUE } from '../catalogue/catalogue.ts';
import { appearance, viabilityOf } from '../loci/genotype.ts';
import { parseGenes } from '../notation/parse.ts';
import { pairingOutcomes, visibleOutcomes } from './pairing-odds.ts';
import { parseParent, type Parent } from './parent.ts';
import { targetOdds, targetScenarios, toTarget } from './target.ts';

const sire = (text: string): Parent => parseParent(text, 'male').parent;
const dam = (text: string): Parent => parseParent(text, 'female').parent;
const hatched = (s: string, d: string): Record<string, number> =>
  Object.fromEntries(
    pairingOutcomes(sire(s), dam(d)).outcomes.map((one) => [one.label, one.pHatched ?? one.p]),
  );

describe('genotypes that do not live', () => {
  test('two visual spiders give two spiders to one normal among the living (Cuénot 1905: 2 to 1)', () => {
    const { outcomes } = pairingOutcomes(sire('spider'), dam('spider'));
    expect(Object.fromEntries(outcomes.map(({ label, p }) => [label, p]))).toEqual({
      Spider: 0.5,
      Normal: 0.25,
      'Super Spider': 0.25,
    });
    const living = hatched('spider', 'spider');
    expect(living['Spider']).toBeCloseTo(2 / 3, 12);
    expect(living['Normal']).toBeCloseTo(1 / 3, 12);
    expect(living['Super Spider']).toBe(0);
  });

  test('a second locus does not change the ratio, and its own odds stay (by hand: 2/3 of 1/4)', () => {
    const living = hatched('champagne het clown', 'champagne het clown');
    expect(living['Champagne Clown']).toBeCloseTo((2 / 3) * (1 / 4), 12);
  });

  test('where all live, nothing is said of the living alone', () => {
    for (const one of pairingOutcomes(sire('spider'), dam('normal')).outcomes)
      expect(one).not.toHaveProperty('pHatched');
    expect(targetOdds(sire('spider'), dam('pastel'), parseGenes('spider'))).toEqual({ p: 0.5 });
  });

  test('the target counts eggs, and among the young those that live (by hand)', () => {
    const odds = targetOdds(sire('spider'), dam('spider'), parseGenes('spider'), 2);
    expect(odds.p).toBeCloseTo(3 / 4, 12);
    expect(odds.pHatched).toBeCloseTo(2 / 3, 12);
    expect(odds.atLeastOne).toBeCloseTo(1 - (1 / 4) ** 2, 12);
    // What does not live is no target of a plan: half of the eggs are living spiders.
    const scenarios = targetScenarios(sire('spider'), dam('spider'), toTarget(parseGenes('spider')));
    expect(scenarios.reduce((sum, s) => sum + s.weight * (s.pMale + s.pFemale), 0)).toBeCloseTo(0.5, 12);
    // A quarter of the eggs die of a gene that the target does not name.
    const clown = targetScenarios(sire('spider clown'), dam('spider clown'), toTarget(parseGenes('clown')));
    expect(clown.reduce((sum, s) => sum + s.weight * (s.pMale + s.pFemale), 0)).toBeCloseTo(0.75, 12);
  });

  test('agrees with a walk through every egg, for any pair of genes of the catalogue', () => {
    const named = CATALOGUE.loci.filter(({ sexLinked }) => !sexLinked);
    const lethal = named.filter(({ viability }) => viability).map(({ alleles }) => alleles[0]!.name);
    const others = named.slice(0, 12).map(({ alleles }) => alleles[0]!.name);
    const genes = fc
      .tuple(fc.subarray(lethal), fc.subarray(others, { maxLength: 2 }))
      .map((lists) => lists.flat().join(', ') || 'normal');
    fc.assert(
      fc.property(genes, genes, (s, d) => {
        const fast = pairingOutcomes(sire(s), dam(d));
        const weigh = (genotype: (typeof fast.outcomes)[number]['genotype']): number =>
          Object.entries(genotype).reduce(
            (product, [id, pair]) => product * viabilityOf(CATALOGUE.locusById(id)!, pair),
            1,
          );
        const living = fast.outcomes.reduce((sum, one) => sum + one.p * weigh(one.genotype), 0);
        for (const one of fast.outcomes)
          expect(one.pHatched ?? one.p, one.label).toBeCloseTo((one.p * weigh(one.genotype)) / living, 10);
        const shown = visibleOutcomes(sire(s), dam(d), 5000);
        expect(shown.reduce((sum, one) => sum + (one.pHatched ?? one.p), 0)).toBeCloseTo(1, 10);
      }),
      { numRuns: 60 },
    );
  });
});

describe('what is possible is never absent', () => {
  test('a possible het of the sire gives visual young with its chance', () => {
    const outcomes = pairingOutcomes(sire('ph clown'), dam('clown')).outcomes;
    expect(Object.fromEntries(outcomes.map(({ label, p }) => [label, p]))).toEqual({
      'Het Clown': 0.75,
      Clown: 0.25,
    });
  });

  test('a possible second copy or another gene reaches the young', () => {
    const labels = (s: string, d: string): string[] =>
      pairingOutcomes(sire(s), dam(d)).outcomes.map(({ label }) => label);
    expect(labels('pastel (fire)', 'fire')).toContain('Pastel Fire');
    expect(labels('pastel (fire)', 'fire')).toContain('Pastel Super Fire');
    expect(labels('pastel (super)', 'normal')).toEqual(['Pastel']);
    expect(labels('pastel (pastel)', 'normal')).toEqual(['Pastel', 'Normal']);
  });
});

describe('a target of normal', () => {
  test('is an egg on which nothing shows', () => {
    expect(targetOdds(sire('pastel'), dam('enchi'), parseGenes('normal')).p).toBeCloseTo(0.25, 12);
    expect(targetOdds(sire('het clown'), dam('het clown'), parseGenes('normal')).p).toBeCloseTo(0.75, 12);
    expect(targetOdds(sire('pastel het clown'), dam('clown'), parseGenes('normal het clown')).p).toBeCloseTo(
      0.25,
      12,
    );
    const clown = CATALOGUE.locusById('clown')!;
    expect(appearance(clown, ['+', 'clown'])).toBe('');
  });
});
