import type { Route, RouteParent, RouteStep } from '../planner/routes/route.ts';

/** What is left to do of a route. */
export interface RemainingRoute {
  readonly route: Route;
  /** For each of its steps, which one of the whole route it is. */
  readonly stepOf: readonly number[];
}

/**
 * What is left of a route once young were held back from some of its steps: they take the place of what those steps were to
 * give, and steps that nothing waits for any more fall away. The rough years are those of the whole route.
 *
 * @param held - for steps of the route, counted from 0, the animal that was held back from it
 * @example remainingRoute({ steps: [], roughYears: 1 }, new Map()).stepOf // []
 */
export function remainingRoute(route: Route, held: ReadonlyMap<number, string>): RemainingRoute {
  const needed = new Set<number>();
  const need = (step: number): void => {
    needed.add(step);
    for (const parent of parentsOf(route.steps[step]!))
      if (parent.kind === 'held-back' && !held.has(parent.step)) need(parent.step);
  };
  if (route.steps.length > 0) need(route.steps.length - 1);
  const stepOf = [...needed].toSorted((a, b) => a - b);
  const now = (parent: RouteParent): RouteParent => {
    if (parent.kind !== 'held-back') return parent;
    const animalId = held.get(parent.step);
    return animalId === undefined
      ? { kind: 'held-back', step: stepOf.indexOf(parent.step) }
      : { kind: 'owned', animalId };
  };
  const steps = stepOf.map((step) => {
    const one = route.steps[step]!;
    return { ...one, dam: now(one.dam), sire: now(one.sire) };
  });
  return { route: { ...route, steps }, stepOf };
}

const parentsOf = ({ dam, sire }: RouteStep): RouteParent[] => [dam, sire];

/**
 * The animals of the collection that a route uses, each once.
 *
 * @example ownedParents({ steps: [] }) // []
 */
export const ownedParents = ({ steps }: Pick<Route, 'steps'>): string[] => [
  ...new Set(
    steps.flatMap(parentsOf).flatMap((parent) => (parent.kind === 'owned' ? [parent.animalId] : [])),
  ),
];
