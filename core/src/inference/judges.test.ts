import { infer as bayesInfer } from 'bayesjs';
import { describe, expect, test } from 'vitest';
import { toBayesNetwork } from '../../test/bayes-network.ts';
import { fastlinkLogLikelihood, looplessPedigree } from '../../test/linkage.ts';
import { tangledLine } from '../../test/tangled-line.ts';
import { infer } from './infer.ts';

/* Programs that others wrote, on the same pedigrees. */

describe('the general-purpose package bayesjs 0.6.5 has the same posteriors', () => {
  test.each([2, 9, 23])(
    'on an inbred line of 14 animals with soft calls, seed %d, to 1e-12',
    (seed) => {
      const pedigree = tangledLine({ animals: 14, founders: 4, seed, identified: 0.6 });
      const { network, given } = toBayesNetwork(pedigree);
      const { animals } = infer(pedigree);
      for (const { id } of pedigree.animals) {
        const genotypes = animals.get(id)!.get('c')!;
        for (const state of ['++', '+c', 'cc']) {
          const ours = genotypes.find(({ genotype }) => genotype.join('') === state)?.p ?? 0;
          expect(Math.abs(ours - bayesInfer(network, { [id]: state }, given)), `${id} ${state}`).toBeLessThan(
            1e-12,
          );
        }
      }
    },
    60_000,
  );
});

describe("Debian's fastlink 4.1P has the same likelihoods", () => {
  test.each([
    [12, 1, 0],
    [60, 2, 0],
    [60, 3, 0.05],
    [300, 4, 0.02],
    [959, 5, 0.05],
  ])('a family of %d without loops, seed %d, calls wrong with %d', (count, seed, error) => {
    const linkage = looplessPedigree(count, seed, error);
    const ours = infer(linkage.pedigree).logLikelihood!;
    // It prints six decimals.
    expect(Math.abs(ours - fastlinkLogLikelihood(linkage))).toBeLessThan(5e-6);
  });
});
