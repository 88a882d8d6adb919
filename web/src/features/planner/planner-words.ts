import type { PlannerView } from '@karyotome/contract';
import type { PlannedPair, Route, RouteParent, RouteStep, SimulationResult } from '@karyotome/core';
import { oddsWords } from '../../format/format.ts';

/* What the planner says, in words. */

export type NameOf = (animalId: string) => string;
export const namesOf = (view: PlannerView | undefined): NameOf => {
  const byId = new Map((view?.animals ?? []).map((animal) => [animal.id, animal]));
  return (id) => {
    const animal = byId.get(id);
    return animal ? `${animal.number}${animal.name ? ` ${animal.name}` : ''}` : 'an animal';
  };
};

/** "1 in 8" where that is simple, else a percentage. */
export function perEggWords(p: number): string {
  const one = 1 / p;
  return p > 0 && Math.abs(one - Math.round(one)) < 1e-6 && one >= 2
    ? `1 in ${Math.round(one)}`
    : oddsWords(p);
}

export const kinWords = (inbreeding: number | null): string =>
  inbreeding === null ? 'not known' : inbreeding < 1e-9 ? 'not related' : oddsWords(inbreeding);

const parentWords = (parent: RouteParent, route: Route, nameOf: NameOf): string => {
  if (parent.kind === 'owned') return nameOf(parent.animalId);
  if (parent.kind === 'bought') return 'the bought animal';
  const { keep } = route.steps[parent.step]!;
  return `the ${keep!.label} ${keep!.sex} of step ${parent.step + 1}`;
};

/** One step of a route: who with whom, and what to hold back. */
export function stepWords(step: RouteStep, route: Route, nameOf: NameOf): { pair: string; keep: string } {
  const pair = `${parentWords(step.dam, route, nameOf)} × ${parentWords(step.sire, route, nameOf)}`;
  const odds = perEggWords(step.perEgg);
  return {
    pair,
    keep: step.keep
      ? `Hold back a ${step.keep.sex} ${step.keep.label}: ${odds} per egg`
      : `The target: ${odds} per egg`,
  };
}

export const yearsWords = (years: number): string =>
  years < 1.5 ? 'about a year' : `about ${years < 10 ? Math.round(years * 2) / 2 : Math.round(years)} years`;

/** "half of all runs by year 4" */
export function medianWords({ medianYear }: Pick<SimulationResult, 'medianYear'>, years: number): string {
  return medianYear === null
    ? `fewer than half of the runs within ${years} years`
    : `half of the runs by the end of year ${medianYear}`;
}

/** What a female gave up for the whole, and why. */
export function tradeWords({ traded, value }: PlannedPair, nameOf: NameOf): string {
  if (!traded) return '';
  const instead = value > 0 ? ` instead of ${youngWords(value)}` : '';
  const more = `${nameOf(traded.male)} would give ${youngWords(traded.value)}${instead}`;
  if (traded.why === 'related') return `${more}, but they are too closely related.`;
  if (traded.why === 'fixed') return `${more}, but you fixed her.`;
  return traded.insteadOf.length === 0
    ? `${more}, but he is fully booked.`
    : `${more}, but he does more good with ${traded.insteadOf.map(nameOf).join(', ')}.`;
}
export const youngWords = (young: number): string =>
  young >= 10 ? young.toFixed(0) : young >= 1 ? young.toFixed(1) : young.toFixed(2);
