import type { INetwork } from 'bayesjs';
import type { Pedigree } from '../src/pedigree/document.ts';

const GENOTYPES = ['++', '+c', 'cc'] as const;

/**
 * A single-locus pedigree (locus `c`, one allele, one sire each) as a network for the general-purpose package bayesjs: one
 * node with three states for each animal, and one for each call, given as evidence.
 */
export function toBayesNetwork(pedigree: Pedigree): { network: INetwork; given: Record<string, string> } {
  const network: Record<string, unknown> = {};
  const given: Record<string, string> = {};
  const passes = (genotype: string): number => (genotype === '++' ? 0 : genotype === '+c' ? 0.5 : 1);
  for (const animal of pedigree.animals) {
    const [sire] = animal.sires ?? [];
    const parents = animal.dam !== undefined && sire ? [animal.dam, sire.id] : [];
    const stated = animal.founder?.['c'] ?? [];
    const prior = Object.fromEntries(
      GENOTYPES.map((g) => [g, stated.find(({ genotype }) => genotype.join('') === g)?.p ?? 0]),
    );
    network[animal.id] = {
      id: animal.id,
      states: [...GENOTYPES],
      parents,
      cpt:
        parents.length === 0
          ? prior
          : GENOTYPES.flatMap((d) =>
              GENOTYPES.map((s) => {
                const [x, y] = [passes(d), passes(s)];
                return {
                  when: { [parents[0]!]: d, [parents[1]!]: s },
                  then: { '++': (1 - x) * (1 - y), '+c': x * (1 - y) + y * (1 - x), cc: x * y },
                };
              }),
            ),
    };
    animal.calls?.forEach((call, n) => {
      const id = `${animal.id}-call-${n}`;
      const within = new Set(call.is.map((genotype) => genotype.join('')));
      const error = call.error ?? 0;
      network[id] = {
        id,
        states: ['as called', 'otherwise'],
        parents: [animal.id],
        cpt: GENOTYPES.map((g) => {
          const p = within.has(g) ? 1 - error : error;
          return { when: { [animal.id]: g }, then: { 'as called': p, otherwise: 1 - p } };
        }),
      };
      given[id] = 'as called';
    });
  }
  return { network: network as INetwork, given };
}
