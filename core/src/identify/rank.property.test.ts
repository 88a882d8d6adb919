import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { slowRanking } from '../../test/slow-identify.ts';
import { CATALOGUE } from '../catalogue/catalogue.ts';
import { allGenotypes, type WeightedGenotype } from '../loci/genotype.ts';
import { nextObservations } from './next-observations.ts';
import type { Hypothesis } from './phenotype-space.ts';
import { rank } from './rank.ts';
import type { Observations } from './observations.ts';

/** Loci that hide, that are hidden, that share markers, that have markers: whatever the rules mention. */
const LOCI = [
  'pastel',
  'black-eyed-white',
  'banana',
  'pied',
  'leopard',
  'clown',
  'pinstripe',
  'yellow-belly-complex',
];

const genotypesOf = (locus: string): fc.Arbitrary<WeightedGenotype[]> => {
  const all = allGenotypes(
    CATALOGUE.locusById(locus)!
      .alleles.slice(0, 2)
      .map(({ id }) => id),
  );
  return fc
    .tuple(
      fc.uniqueArray(fc.integer({ min: 0, max: all.length - 1 }), { minLength: 1, maxLength: 3 }),
      fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 3, maxLength: 3 }),
    )
    .map(([places, weights]) => {
      const total = places.reduce((sum, _, i) => sum + weights[i]!, 0);
      return places.map((place, i) => ({ genotype: all[place]!, p: weights[i]! / total }));
    });
};
const loci = fc.uniqueArray(fc.constantFrom(...LOCI), { minLength: 1, maxLength: 4 });
const hypothesis = (ids: readonly string[], sire: string, sex: 'female' | 'male'): fc.Arbitrary<Hypothesis> =>
  fc.tuple(fc.integer({ min: 1, max: 5 }), ...ids.map(genotypesOf)).map(([weight, ...genotypes]) => ({
    sire,
    sex,
    weight,
    loci: ids.map((locus, i) => ({ locus, genotypes: genotypes[i]! })),
  }));
const hypotheses = loci.chain((ids) =>
  fc.tuple(hypothesis(ids, 'a', 'female'), hypothesis(ids, 'b', 'male')).map((both) => {
    const total = both[0].weight + both[1].weight;
    return both.map((one) => ({ ...one, weight: one.weight / total }));
  }),
);
const RELEVANT = CATALOGUE.markers.filter(({ phenotypes }) =>
  phenotypes.some((text) => LOCI.includes(CATALOGUE.alleleById(text.split('/')[0]!)!.locus.id)),
);
const observations: fc.Arbitrary<Observations> = fc.dictionary(
  fc.constantFrom(...RELEVANT.map(({ id }) => id)),
  fc.constantFrom('seen' as const, 'not-seen' as const),
  { maxKeys: 8 },
);
const keyOf = (phenotype: Readonly<Record<string, string>>): string =>
  Object.entries(phenotype)
    .map(([id, text]) => `${id}=${text}`)
    .toSorted()
    .join(' ');

describe('the ranking', () => {
  test('is what a walk through every genotype gives, hiding, sharing and markers included', () => {
    fc.assert(
      fc.property(hypotheses, observations, (what, seen) => {
        const slow = slowRanking(what, seen, CATALOGUE);
        const { ranking } = rank(what, seen, CATALOGUE);
        for (const { phenotype, p } of ranking.candidates)
          expect(p, keyOf(phenotype)).toBeCloseTo(slow.get(keyOf(phenotype)) ?? 0, 10);
      }),
      { numRuns: 150, seed: 11 },
    );
  });

  test('adds up to one, before and after, over the kinds, the sires and the sexes', () => {
    fc.assert(
      fc.property(hypotheses, observations, (what, seen) => {
        const { ranking, space } = rank(what, seen, CATALOGUE);
        const sum = (table: Float64Array): number => table.reduce((a, b) => a + b, 0);
        expect(sum(space.before)).toBeCloseTo(1, 10);
        expect(sum(space.after)).toBeCloseTo(1, 10);
        expect(Object.values(ranking.sires).reduce((a, b) => a + b, 0)).toBeCloseTo(1, 10);
        expect(ranking.pFemale).toBeCloseTo(ranking.sires['a']!, 10);
      }),
      { numRuns: 80, seed: 12 },
    );
  });

  test('does not turn on the order in which loci or hypotheses are listed, nor on how one is split', () => {
    fc.assert(
      fc.property(hypotheses, observations, (what, seen) => {
        const of = (list: readonly Hypothesis[]): Map<string, number> =>
          new Map(
            rank(list, seen, CATALOGUE).ranking.candidates.map(({ phenotype, p }) => [keyOf(phenotype), p]),
          );
        const plain = of(what);
        const turned = of(what.toReversed().map((one) => ({ ...one, loci: one.loci.toReversed() })));
        const halved = of(what.flatMap((one) => [1, 2].map(() => ({ ...one, weight: one.weight / 2 }))));
        for (const [key, p] of plain) {
          expect(turned.get(key), key).toBeCloseTo(p, 10);
          expect(halved.get(key), key).toBeCloseTo(p, 10);
        }
      }),
      { numRuns: 60, seed: 13 },
    );
  });

  test('a marker seen never makes its own gene less likely than the same marker not seen', () => {
    fc.assert(
      fc.property(
        hypotheses,
        fc.constantFrom(...RELEVANT.filter(({ isOfCarriers }) => !isOfCarriers)),
        (what, marker) => {
          const oddsOf = (state: 'seen' | 'not-seen'): number => {
            const { genes } = rank(what, { [marker.id]: state }, CATALOGUE).ranking;
            return genes
              .filter(
                ({ phenotype }) =>
                  marker.phenotypes.includes(phenotype) ||
                  phenotype.split('/').some((a) => marker.phenotypes.includes(a)),
              )
              .reduce((sum, { p }) => sum + p, 0);
          };
          expect(oddsOf('seen')).toBeGreaterThanOrEqual(oddsOf('not-seen') - 1e-9);
        },
      ),
      { numRuns: 120, seed: 14 },
    );
  });

  test('what a look is expected to do averages to what is known now', () => {
    fc.assert(
      fc.property(hypotheses, observations, (what, seen) => {
        const { space } = rank(what, seen, CATALOGUE);
        for (const { pSeen, pNow, pIfSeen, pIfNot, bits } of nextObservations(space, seen, CATALOGUE, null)
          .markers) {
          // The law of total probability; a thousandth for the kinds too faint to be asked about.
          expect(Math.abs(pSeen * pIfSeen + (1 - pSeen) * pIfNot - pNow)).toBeLessThan(1e-3);
          expect(bits).toBeGreaterThan(0);
          expect(bits).toBeLessThanOrEqual(1);
        }
      }),
      { numRuns: 80, seed: 15 },
    );
  });
});
