import type { PlannerView } from '@karyotome/contract';
import { parseParent } from '@karyotome/core';

type Animal = PlannerView['animals'][number];

/** An animal as the planner gets it, known by its genes alone: a female has six good eggs in every clutch. */
export function plannerAnimal(
  number: string,
  sex: 'female' | 'male',
  genes: string,
  more: Partial<Animal> = {},
): Animal {
  const { loci } = parseParent(genes, sex).parent;
  return {
    id: number,
    number,
    name: null,
    sex,
    label: genes,
    loci: [...loci].map(([locus, list]) => [locus, list.map(({ genotype: [a, b], p }) => [a, b, p])]),
    notReady: [],
    readyIn: 0,
    freeLoad: sex === 'male' ? 1 : 0,
    size: sex === 'female' ? { odds: { first: 6, odds: [1] }, observations: 3 } : null,
    ...more,
  };
}
