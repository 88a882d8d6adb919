import { describe, expect, test } from 'vitest';
import { half, only } from '../../test/hypotheses.ts';
import { CATALOGUE, createCatalogue } from '../catalogue/catalogue.ts';
import { nextObservations } from './next-observations.ts';
import type { Hypothesis } from './phenotype-space.ts';
import { rank } from './rank.ts';
import type { Observations } from './observations.ts';

const marker = (id: string) => CATALOGUE.markers.find((one) => one.id === id)!;

describe('a gene that only one candidate sire carries', () => {
  test('and gives to all of his young: the other sire stays open, and the animal may lack it', () => {
    const of = (sire: string, loci: Hypothesis['loci']): Hypothesis => ({
      sire,
      sex: 'male',
      weight: 0.5,
      loci,
    });
    const hypotheses = [
      of('a', [{ locus: 'pastel', genotypes: [{ genotype: ['+', 'pastel'], p: 1 }] }]),
      of('b', []),
    ];
    const { ranking } = rank(hypotheses, {}, CATALOGUE);
    expect(ranking.candidates.map(({ label, p }) => [label, p])).toEqual([
      ['Normal', 0.5],
      ['Pastel', 0.5],
    ]);
    const { pWith, pWithout } = marker('lips: pale');
    expect(rank(hypotheses, { 'lips: pale': 'not-seen' }, CATALOGUE).ranking.sires['b']).toBeCloseTo(
      (1 - pWithout) / (2 - pWith - pWithout),
      12,
    );
  });
});

describe('more than can be weighed', () => {
  test('the least likely phenotypes go first, and how faint they were is said', () => {
    const faint = [
      'leopard',
      'spotnose',
      'ghi',
      'red-stripe',
      'acid',
      'bongo',
      'blade',
      'confusion',
      'cypress',
      'trick',
      'twister',
      'gobi',
      'chocolate',
      'mahogany',
      'sahara',
    ];
    const loci = faint.map((locus) => ({
      locus,
      genotypes: [
        { genotype: ['+', '+'] as const, p: 0.9999 },
        { genotype: ['+', locus] as const, p: 0.0001 },
      ],
    }));
    const { ranking } = rank(only(half('pastel'), ...loci), {}, CATALOGUE);
    expect(ranking.least).toBe(1e-4);
    expect(ranking.candidates.map(({ label, p }) => [label, p])).toEqual([
      ['Normal', 0.5],
      ['Pastel', 0.5],
    ]);
    expect(rank(only(half('pastel'), ...loci.slice(0, 8)), {}, CATALOGUE).ranking.least).toBe(0);
  });
});

describe('look here next', () => {
  const hypotheses = only(half('pastel'), half('spotnose'), half('ghi'));
  test('the expected gain is the mutual information, and the observations are ranked by it', () => {
    const { space } = rank(hypotheses, {}, CATALOGUE);
    const { markers } = nextObservations(space, {}, CATALOGUE, null);
    const bits = markers.map((one) => one.bits);
    expect(bits).toEqual(bits.toSorted((a, b) => b - a));
    const [best] = markers;
    const { pWith, pWithout } = marker(best!.marker);
    // A binary channel with an even input: I = H(Y) - (H(pWith) + H(pWithout)) / 2 (Cover & Thomas, section 7.1).
    const h = (p: number): number => -p * Math.log2(p) - (1 - p) * Math.log2(1 - p);
    expect(best!.bits).toBeCloseTo(h((pWith + pWithout) / 2) - (h(pWith) + h(pWithout)) / 2, 9);
    expect(best!.pSeen).toBeCloseTo((pWith + pWithout) / 2, 12);
    expect(best!.pNow).toBeCloseTo(0.5, 12);
    expect(best!.pIfSeen).toBeCloseTo(pWith / (pWith + pWithout), 12);
    expect(best!.pIfNot).toBeCloseTo((1 - pWith) / (2 - pWith - pWithout), 12);
  });

  test('a zone that was looked at for a gene is not asked for again, and nothing is once it is settled', () => {
    const observations: Observations = { 'lips: pale': 'seen' };
    const { space } = rank(hypotheses, observations, CATALOGUE);
    expect(
      nextObservations(space, observations, CATALOGUE, null).markers.map((one) => one.marker),
    ).not.toContain('lips: pale');
    const sure = rank(
      only({ locus: 'pastel', genotypes: [{ genotype: ['+', 'pastel'], p: 1 }] }),
      {},
      CATALOGUE,
    );
    expect(nextObservations(sure.space, {}, CATALOGUE, '2026-05-01')).toEqual({
      markers: [],
      compare: [],
      againOn: null,
    });
  });

  test('where no marker is left, the day after the second shed is proposed, and what to compare with', () => {
    // A gene of one's own without any marker.
    const own = createCatalogue({
      loci: [
        {
          id: 'own-ember',
          name: 'Ember',
          alleles: [{ id: 'own-ember', name: 'Ember', expression: 'incomplete-dominant' }],
          compounds: [],
        },
      ],
    });
    const { space } = rank(only(half('own-ember')), {}, own);
    expect(nextObservations(space, {}, own, '2026-05-01')).toEqual({
      markers: [],
      compare: [{ phenotype: 'own-ember', label: 'Ember' }],
      againOn: '2026-05-31',
    });
  });
});
