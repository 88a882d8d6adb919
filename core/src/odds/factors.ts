import type { Locus } from '../loci/locus.ts';
import type { LocusOutcome } from './locus-outcomes.ts';
import { topProducts } from './top-products.ts';

/** What one locus can give. */
export interface LocusTable {
  readonly locus: Locus;
  readonly outcomes: readonly LocusOutcome[];
}

/** A choice at one autosomal locus, or a joint choice at all sex-linked ones (which share the offspring's sex). */
interface Part<T> {
  readonly weight: number;
  readonly pMale: number;
  readonly pFemale: number;
  /** `pMale` and `pFemale`, each genotype weighed by its viability. */
  readonly liveMale: number;
  readonly liveFemale: number;
  readonly entries: readonly (readonly [string, T])[];
}

/**
 * The tables as independent factors: one per autosomal locus, and one for all sex-linked loci together, since those are
 * tied by the offspring's sex. Products of the factors' weights are probabilities per egg.
 */
export function independentFactors<T>(
  tables: readonly LocusTable[],
  toEntries: (
    table: LocusTable,
  ) => readonly { value: T; pMale: number; pFemale: number; liveMale: number; liveFemale: number }[],
): Part<T>[][] {
  const factors: Part<T>[][] = [];
  let linked: Part<T>[] = [{ weight: 1, pMale: 1, pFemale: 1, liveMale: 1, liveFemale: 1, entries: [] }];
  for (const table of tables) {
    const parts = toEntries(table).map(({ value, ...odds }) => ({
      weight: (odds.pMale + odds.pFemale) / 2,
      ...odds,
      entries: [[table.locus.id, value] as const],
    }));
    if (!table.locus.sexLinked) factors.push(parts);
    else {
      linked = linked.flatMap((one) =>
        parts.map((other) => {
          const pMale = one.pMale * other.pMale;
          const pFemale = one.pFemale * other.pFemale;
          return {
            weight: (pMale + pFemale) / 2,
            pMale,
            pFemale,
            liveMale: one.liveMale * other.liveMale,
            liveFemale: one.liveFemale * other.liveFemale,
            entries: [...one.entries, ...other.entries],
          };
        }),
      );
    }
  }
  return [...factors, linked.filter((part) => part.weight > 0)];
}

/** One choice of every factor put together. */
interface Combined<T> {
  readonly p: number;
  readonly pMale: number;
  readonly pFemale: number;
  readonly pHatched?: number;
  readonly of: Record<string, T>;
}

/** @param living - the chance that an egg of the pair lives */
function combine<T>(chosen: readonly Part<T>[], living: number): Combined<T> {
  const product = (of: (part: Part<T>) => number): number =>
    chosen.reduce((total, part) => total * of(part), 0.5);
  const pMale = product((part) => part.pMale);
  const pFemale = product((part) => part.pFemale);
  const live = product((part) => part.liveMale) + product((part) => part.liveFemale);
  return {
    p: pMale + pFemale,
    pMale,
    pFemale,
    ...(living < 1 ? { pHatched: living > 0 ? live / living : 0 } : {}),
    of: Object.fromEntries(chosen.flatMap((part) => part.entries)),
  };
}

/** The chance that an egg lives: the factors are independent, given its sex. */
function livingOf(factors: readonly (readonly Part<unknown>[])[]): number {
  const share = (of: (part: Part<unknown>) => number): number =>
    factors.reduce((total, parts) => total * parts.reduce((sum, part) => sum + of(part), 0), 0.5);
  const living = share((part) => part.liveMale) + share((part) => part.liveFemale);
  return living > 1 - TIE ? 1 : living;
}

/** Two probabilities closer than this are the same but for rounding, and their order is the labels'. */
export const TIE = 1e-12;

/** So many outcomes beyond the listed ones are looked at, to put equally likely ones in order. */
const MOST_TIES = 50_000;

const byOdds = (a: { p: number; label: string }, b: { p: number; label: string }): number =>
  Math.abs(a.p - b.p) > TIE * Math.max(a.p, b.p)
    ? b.p - a.p
    : a.label < b.label
      ? -1
      : a.label > b.label
        ? 1
        : 0;

/** Takes the heaviest products until `top` are found and the next is clearly lighter, so that ties sort by label. */
export function takeTop<T, R extends { p: number; label: string }>(
  factors: readonly (readonly Part<T>[])[],
  top: number,
  toResult: (combined: Combined<T>) => R,
): R[] {
  const results: R[] = [];
  const living = livingOf(factors);
  for (const { chosen, weight } of topProducts(factors)) {
    if (results.length >= top && weight < results[top - 1]!.p * (1 - TIE)) break;
    if (results.length >= top + MOST_TIES) break;
    results.push(toResult(combine(chosen, living)));
  }
  return results.toSorted(byOdds).slice(0, top);
}

/** Outcomes of one locus together: their chances by sex, and those of the ones that live. */
export function oddsOf(
  outcomes: readonly LocusOutcome[],
): Pick<Part<unknown>, 'pMale' | 'pFemale' | 'liveMale' | 'liveFemale'> {
  const sum = (of: (outcome: LocusOutcome) => number): number =>
    outcomes.reduce((total, outcome) => total + of(outcome), 0);
  return {
    pMale: sum((o) => o.pMale),
    pFemale: sum((o) => o.pFemale),
    liveMale: sum((o) => o.pMale * o.viability),
    liveFemale: sum((o) => o.pFemale * o.viability),
  };
}
