import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { CATALOGUE } from '../catalogue/catalogue.ts';
import { pairingCautions, pairingOutcomes, visibleOutcomes, whyImpossible } from './pairing-odds.ts';
import { parseParent, type Parent } from './parent.ts';
import { parseGenes } from '../notation/parse.ts';
import { targetOdds } from './target.ts';

const sire = (text: string): Parent => parseParent(text, 'male').parent;
const dam = (text: string): Parent => parseParent(text, 'female').parent;
const oddsOf = (s: string, d: string): Record<string, number> =>
  Object.fromEntries(pairingOutcomes(sire(s), dam(d)).outcomes.map((o) => [o.label, o.p]));

describe('pairing odds', () => {
  test('a monohybrid cross gives 1 : 2 : 1 (Mendel 1866, section 4)', () => {
    expect(oddsOf('het clown', 'het clown')).toEqual({ Clown: 0.25, 'Het Clown': 0.5, Normal: 0.25 });
  });

  test('a dihybrid cross shows 9 : 3 : 3 : 1 (Mendel 1866, section 8)', () => {
    const shown = visibleOutcomes(sire('het clown het pied'), dam('het clown het pied'));
    expect(Object.fromEntries(shown.map((o) => [o.label, o.p * 16]))).toEqual({
      Normal: 9,
      Clown: 3,
      Pied: 3,
      'Clown Pied': 1,
    });
  });

  test('four incomplete dominant genes to wild type give sixteen kinds (common practice, no source)', () => {
    const { outcomes, total } = pairingOutcomes(sire('pastel enchi leopard fire'), dam('normal'));
    expect(outcomes).toHaveLength(16);
    expect(new Set(outcomes.map((o) => o.p))).toEqual(new Set([0.0625]));
    expect(total).toBe(1);
  });

  test('non-visual young of two carriers are 66% het', () => {
    const normal = visibleOutcomes(sire('het clown'), dam('het clown')).find((o) => o.label === 'Normal');
    expect(normal!.carries).toEqual(['66% Het Clown']);
  });

  test('two alleles of one complex: every egg gets one or the other', () => {
    expect(oddsOf('freeway', 'normal')).toEqual({ Asphalt: 0.5, 'Yellow Belly': 0.5 });
  });

  test('a male-maker gives the gene to sons, crossovers aside; a carrier dam to either', () => {
    const [banana] = pairingOutcomes(sire('male-maker banana'), dam('normal')).outcomes;
    const row = pairingOutcomes(sire('male-maker banana'), dam('normal')).outcomes.find(
      (o) => o.label === 'Banana',
    )!;
    expect(banana!.pMale + banana!.pFemale).toBeCloseTo(banana!.p, 15);
    expect(row.pMale).toBeCloseTo(0.5 * 0.93, 12);
    expect(row.pFemale).toBeCloseTo(0.5 * 0.07, 12);
    const fromDam = pairingOutcomes(sire('normal'), dam('banana')).outcomes.find(
      (o) => o.label === 'Banana',
    )!;
    expect(fromDam.pMale).toBeCloseTo(0.25, 12);
    expect(fromDam.pFemale).toBeCloseTo(0.25, 12);
  });

  test('odds of any pair add up to 1, and by sex to one half', () => {
    const anyGenes = fc
      .subarray(
        CATALOGUE.loci.flatMap((locus) => locus.alleles.slice(0, 1).map((allele) => allele.name)),
        { maxLength: 5 },
      )
      .map((names) => names.map((name, i) => (i % 2 ? `het ${name}` : name)).join(' ') || 'normal');
    fc.assert(
      fc.property(anyGenes, anyGenes, (s, d) => {
        const { outcomes, total } = pairingOutcomes(sire(s), dam(d));
        expect(total).toBeCloseTo(1, 10);
        expect(outcomes.reduce((sum, o) => sum + o.pMale, 0)).toBeCloseTo(0.5, 10);
        const shown = visibleOutcomes(sire(s), dam(d), 5000);
        expect(shown.reduce((sum, o) => sum + o.p, 0)).toBeCloseTo(1, 10);
      }),
      { numRuns: 60 },
    );
  });

  test('the first K are the first K of the whole list', () => {
    const s = sire('pastel enchi 66% het clown 50% het pied');
    const d = dam('het clown het pied fire leopard');
    const all = pairingOutcomes(s, d).outcomes;
    expect(pairingOutcomes(s, d, 7).outcomes).toEqual(all.slice(0, 7));
  });

  test('a caution is shown where the pair can produce what it is about, and only there', () => {
    expect(pairingCautions(sire('cinnamon'), dam('normal'))).toEqual([]);
    expect(pairingCautions(sire('cinnamon'), dam('black pastel'))).toEqual([
      'Two copies in the dark complex: often kinked or duck-billed.',
    ]);
    expect(pairingCautions(sire('spider'), dam('spider'))).toHaveLength(2);
  });

  test('a morph the pairing cannot give is answered with what it can', () => {
    expect(whyImpossible(sire('normal'), dam('clown'), { clown: 'clown/clown' })).toEqual([
      { locus: 'Clown', seen: 'Clown', possible: ['Normal'] },
    ]);
    expect(whyImpossible(sire('het clown'), dam('clown'), { clown: 'clown/clown' })).toEqual([]);
  });
});

describe('odds of a target', () => {
  test('at least one in five of 1 in 8: 1 - (7/8)^5', () => {
    const odds = targetOdds(sire('pastel het clown'), dam('het clown'), parseGenes('pastel clown'), 5);
    expect(odds.p).toBeCloseTo(0.125, 12);
    expect(odds.atLeastOne).toBeCloseTo(0.4870911, 7);
  });

  test('an uncertain parent is the same for every egg of the clutch', () => {
    // By hand: with chance 2/3 the sire carries, then 1/2 an egg from a visual dam; else none ever.
    const odds = targetOdds(sire('66% het clown'), dam('clown'), parseGenes('clown'), 4);
    expect(odds.p).toBeCloseTo(1 / 3, 12);
    expect(odds.atLeastOne).toBeCloseTo((2 / 3) * (1 - 0.5 ** 4), 12);
  });

  test('a gene named visual is met by its double, super only by two copies', () => {
    const s = sire('pastel');
    const d = dam('pastel');
    expect(targetOdds(s, d, parseGenes('pastel')).p).toBeCloseTo(0.75, 12);
    expect(targetOdds(s, d, parseGenes('super pastel')).p).toBeCloseTo(0.25, 12);
    expect(targetOdds(sire('het clown'), dam('het clown'), parseGenes('het clown')).p).toBeCloseTo(0.75, 12);
  });

  test('a target of one of several is met by either', () => {
    // A Freeway parent gives yellow belly or asphalt to every egg, never neither (common practice, no source).
    const odds = targetOdds(sire('freeway'), dam('normal'), parseGenes('yellow belly or asphalt'));
    expect(odds.p).toBeCloseTo(1, 12);
    expect(targetOdds(sire('freeway'), dam('normal'), parseGenes('asphalt')).p).toBeCloseTo(0.5, 12);
  });
});
