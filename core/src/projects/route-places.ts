import type { Route, RouteTerms } from '../planner/routes/route.ts';

/** What a route takes of the room. */
export interface RoutePlaces {
  /** Places at once, at most: the adults, and all that is held back before anything of it is used. */
  readonly most: number;
  /** Places times years, on average: the adults for as long as it takes, what is held back until it is grown. */
  readonly placeYears: number;
}

/**
 * The cost of a route in places.
 *
 * @param adults - animals that are kept for it all along
 * @param holdBack - young that are held back from each step
 * @param years - how long it takes
 * @example routePlaces({ steps: [], roughYears: 1 }, 2, 1, 3, ROUTE_TERMS) // {"most":2,"placeYears":6}
 */
export function routePlaces(
  { steps }: Route,
  adults: number,
  holdBack: number,
  years: number,
  { growth }: RouteTerms,
): RoutePlaces {
  const kept = steps.flatMap(({ keep }) => (keep ? [growth[keep.sex]] : []));
  const growing = kept.reduce((sum, { from, to }) => sum + (from + to) / 2, 0);
  return { most: adults + holdBack * kept.length, placeYears: adults * years + holdBack * growing };
}
