import { infer as bayesInfer, type INetwork } from 'bayesjs';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { half, only } from '../../test/hypotheses.ts';
import { CATALOGUE, createCatalogue } from '../catalogue/catalogue.ts';
import { infer } from '../inference/infer.ts';
import { compilePedigree } from '../pedigree/from-records.ts';
import { appearance, type WeightedGenotype } from '../loci/genotype.ts';
import type { Hypothesis } from './phenotype-space.ts';
import { rank } from './rank.ts';
import type { Observations } from './observations.ts';

const marker = (id: string) => CATALOGUE.markers.find((one) => one.id === id)!;
const geneOf = (hypotheses: Hypothesis[], observations: Observations, phenotype: string): number =>
  rank(hypotheses, observations, CATALOGUE).ranking.genes.find((gene) => gene.phenotype === phenotype)?.p ??
  0;

describe('with no markers the odds are the engine’s', () => {
  test('a clutch of an uncertain dam, one of them identified', () => {
    const pedigree = compilePedigree([
      {
        id: 'dam',
        sex: 'female',
        sires: [],
        identification: { record: 'r1', genes: 'Pastel 66% het Clown', sure: 'probable' },
      },
      {
        id: 'sire',
        sex: 'male',
        sires: [],
        identification: { record: 'r2', genes: 'Clown Enchi', sure: 'certain' },
      },
      {
        id: 'first',
        sex: 'unknown',
        dam: 'dam',
        sires: [{ id: 'sire', weight: 1 }],
        identification: { record: 'r3', genes: 'Pastel Enchi', sure: 'certain' },
      },
      { id: 'second', sex: 'female', dam: 'dam', sires: [{ id: 'sire', weight: 1 }] },
    ]);
    const exact = infer(pedigree).animals.get('second')!;
    const hypotheses = only(...[...exact].map(([locus, genotypes]) => ({ locus, genotypes })));
    const { ranking } = rank(hypotheses, {}, CATALOGUE);
    for (const [id, genotypes] of exact) {
      const locus = CATALOGUE.locusById(id)!;
      const phenotype = new Map<string, number>();
      for (const { genotype, p } of genotypes)
        phenotype.set(appearance(locus, genotype), (phenotype.get(appearance(locus, genotype)) ?? 0) + p);
      for (const [text, p] of phenotype) {
        if (text !== '')
          expect(ranking.genes.find((gene) => gene.phenotype === text)!.p, text).toBeCloseTo(p, 12);
      }
    }
    expect(ranking.candidates.reduce((sum, { p }) => sum + p, 0)).toBeCloseTo(1, 12);
    expect(ranking.candidates.every(({ p, pBefore }) => p === pBefore)).toBe(true);
  });
});

describe('closed forms for independent markers', () => {
  // Bayes' rule in odds form: posterior odds are prior odds times the likelihood ratio (Good 1950, Probability and the
  // Weighing of Evidence, section 6.1).
  test('one marker seen multiplies the odds by its ratio, not seen by the ratio of the rests', () => {
    const { pWith, pWithout } = marker('lips: pale');
    const prior = only(half('pastel'));
    expect(geneOf(prior, { 'lips: pale': 'seen' }, 'pastel')).toBeCloseTo(pWith / (pWith + pWithout), 12);
    const rest = (1 - pWith) / (1 - pWith + 1 - pWithout);
    expect(geneOf(prior, { 'lips: pale': 'not-seen' }, 'pastel')).toBeCloseTo(rest, 12);
  });

  test('markers of two zones multiply, of one zone count once, and one left out says nothing', () => {
    const prior = only(half('pastel'));
    const odds = (p: number): number => p / (1 - p);
    const [lips, head] = [marker('lips: pale'), marker('head top: washed out')];
    const both = geneOf(prior, { 'lips: pale': 'seen', 'head top: washed out': 'seen' }, 'pastel');
    expect(odds(both)).toBeCloseTo((lips.pWith / lips.pWithout) * (head.pWith / head.pWithout), 9);
    const own = createCatalogue({
      markers: [{ phenotype: 'pastel', zone: 'lips', text: 'pink', pWith: 0.7, pWithout: 0.3 }],
    });
    const twice = rank(prior, { 'lips: pale': 'seen', 'lips: pink': 'seen' }, own).ranking;
    expect(odds(twice.genes[0]!.p)).toBeCloseTo(lips.pWith / lips.pWithout, 9);
    expect(twice.markers).toContainEqual({ marker: 'lips: pink', factor: 1, countedWith: 'lips: pale' });
    expect(geneOf(prior, {}, 'pastel')).toBeCloseTo(0.5, 12);
  });

  test('a marker that two alleles share distinguishes neither from the other', () => {
    const prior = only({
      locus: 'yellow-belly-complex',
      genotypes: [
        { genotype: ['+', '+'], p: 0.4 },
        { genotype: ['+', 'gravel'], p: 0.2 },
        { genotype: ['+', 'spark'], p: 0.4 },
      ],
    });
    const { genes } = rank(prior, { 'belly edge: speckled, subtle': 'seen' }, CATALOGUE).ranking;
    const [gravel, spark] = ['gravel', 'spark'].map(
      (phenotype) => genes.find((gene) => gene.phenotype === phenotype)!.p,
    );
    expect(spark! / gravel!).toBeCloseTo(2, 9);
    expect(spark! + gravel!).toBeGreaterThan(0.9);
  });

  test('a carriers’ marker moves what is carried, never what shows', () => {
    const prior = only({
      locus: 'pied',
      genotypes: [
        { genotype: ['+', '+'], p: 1 / 3 },
        { genotype: ['+', 'pied'], p: 2 / 3 },
      ],
    });
    const marker = CATALOGUE.markers.find((one) => one.isOfCarriers)!;
    const { ranking } = rank(prior, { [marker.id]: 'seen' }, CATALOGUE);
    expect(ranking.genes).toEqual([]);
    const [carried] = ranking.carried;
    expect(carried!.pBefore).toBeCloseTo(2 / 3, 12);
    const share = (2 / 3) * marker.pWith;
    expect(carried!.p).toBeCloseTo(share / (share + (1 / 3) * marker.pWithout), 12);
  });
});

describe('what hides what', () => {
  const doubles: Hypothesis['loci'][number] = {
    locus: 'black-eyed-white',
    genotypes: [
      { genotype: ['+', 'fire'], p: 0.5 },
      { genotype: ['fire', 'fire'], p: 0.5 },
    ],
  };
  test('on a white animal, not seeing a gene says nothing of it', () => {
    const white: Hypothesis[] = only(
      { ...doubles, genotypes: [{ genotype: ['fire', 'fire'], p: 1 }] },
      half('pastel'),
    );
    expect(geneOf(white, { 'lips: pale': 'not-seen', 'back: blushed': 'not-seen' }, 'pastel')).toBeCloseTo(
      0.5,
      12,
    );
  });

  test('banana hides what is made of black, and leaves the rest', () => {
    const banana: Hypothesis[] = only(
      { locus: 'banana', genotypes: [{ genotype: ['+', 'banana'], p: 1 }] },
      half('leopard'),
    );
    const black = marker('back: bold black outlines');
    expect(black.substance).toBe('black');
    expect(geneOf(banana, { [black.id]: 'not-seen' }, 'leopard')).toBeCloseTo(0.5, 12);
    expect(geneOf(banana, { 'flanks: extra dots inside the marks': 'seen' }, 'leopard')).toBeGreaterThan(0.8);
  });

  test('two pattern reducers hide half of each other’s detail', () => {
    const both = only(
      { locus: 'clown', genotypes: [{ genotype: ['clown', 'clown'], p: 1 }] },
      half('pinstripe'),
    );
    const lines = marker('back: thin unbroken lines');
    const seen = 0.5 * lines.pWith + 0.5 * lines.pWithout;
    expect(geneOf(both, { [lines.id]: 'seen' }, 'pinstripe')).toBeCloseTo(seen / (seen + lines.pWithout), 12);
  });
});

describe('the general-purpose package bayesjs 0.6.5 gives the same ranking', () => {
  // Naive Bayes: one node a gene, one node a marker, the markers independent given the genes.
  const LOCI = ['pastel', 'leopard', 'spotnose', 'orange-dream'] as const;
  const ids = [
    'lips: pale',
    'eyes: greenish',
    'flanks: extra dots inside the marks',
    'lips: two pale spots on the snout',
    'ground colour: orange',
  ];

  test('on random priors and observations', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.05, max: 0.95, noNaN: true }), { minLength: 4, maxLength: 4 }),
        fc.array(fc.constantFrom('seen', 'not-seen', 'unknown'), { minLength: 5, maxLength: 5 }),
        (priors, states) => {
          const observations: Record<string, 'seen' | 'not-seen'> = {};
          states.forEach((state, i) => {
            if (state !== 'unknown') observations[ids[i]!] = state as 'seen';
          });
          const network: Record<string, unknown> = {};
          const given: Record<string, string> = {};
          LOCI.forEach((locus, i) => {
            network[locus] = {
              id: locus,
              states: ['yes', 'no'],
              parents: [],
              cpt: { yes: priors[i]!, no: 1 - priors[i]! },
            };
          });
          for (const [id, observation] of Object.entries(observations)) {
            const { phenotypes, pWith, pWithout } = marker(id);
            network[id] = {
              id,
              states: ['seen', 'not-seen'],
              parents: [phenotypes[0]!],
              cpt: [
                { when: { [phenotypes[0]!]: 'yes' }, then: { seen: pWith, 'not-seen': 1 - pWith } },
                { when: { [phenotypes[0]!]: 'no' }, then: { seen: pWithout, 'not-seen': 1 - pWithout } },
              ],
            };
            given[id] = observation;
          }
          const hypotheses = only(
            ...LOCI.map((locus, i) => ({
              locus,
              genotypes: [
                { genotype: ['+', '+'], p: 1 - priors[i]! },
                { genotype: ['+', locus], p: priors[i]! },
              ] satisfies WeightedGenotype[],
            })),
          );
          const { ranking } = rank(hypotheses, observations, CATALOGUE);
          for (const { phenotype, p } of ranking.candidates.slice(0, 5)) {
            const joint = Object.fromEntries(LOCI.map((locus) => [locus, phenotype[locus] ? 'yes' : 'no']));
            let theirs = 1;
            const known = { ...given };
            for (const [locus, state] of Object.entries(joint)) {
              theirs *= bayesInfer(network as INetwork, { [locus]: state }, known);
              known[locus] = state;
            }
            expect(p).toBeCloseTo(theirs, 9);
          }
        },
      ),
      { numRuns: 20, seed: 5 },
    );
  });
});

describe('who the sire is, and which sex, move with what is seen', () => {
  const from = (sire: string, sex: 'female' | 'male', pPastel: number): Hypothesis => ({
    sire,
    sex,
    weight: 0.25,
    loci: [
      {
        locus: 'pastel',
        genotypes: [
          { genotype: ['+', '+'], p: 1 - pPastel },
          { genotype: ['+', 'pastel'], p: pPastel },
        ],
      },
    ],
  });
  test('a gene that only one candidate carries points to him', () => {
    const hypotheses = [
      from('a', 'female', 0.5),
      from('a', 'male', 0.5),
      from('b', 'female', 0),
      from('b', 'male', 0),
    ];
    const { pWith, pWithout } = marker('eyes: greenish');
    const { ranking } = rank(hypotheses, { 'eyes: greenish': 'seen' }, CATALOGUE);
    const ofA = 0.5 * (0.5 * pWith + 0.5 * pWithout);
    expect(ranking.sires['a']).toBeCloseTo(ofA / (ofA + 0.5 * pWithout), 12);
    expect(ranking.pFemale).toBeCloseTo(0.5, 12);
  });
});
