import type { Parent } from '../../odds/parent.ts';

/** Where a parent of a step comes from. */
export type RouteParent =
  | { readonly kind: 'owned'; readonly animalId: string }
  | { readonly kind: 'bought' }
  /** A hatchling held back from an earlier step. */
  | { readonly kind: 'held-back'; readonly step: number };

/** One pairing of a plan, with what to hold back from it; of the last one, the target itself. */
export interface RouteStep {
  readonly dam: RouteParent;
  readonly sire: RouteParent;
  /** Null on the last step. */
  readonly keep: {
    readonly sex: 'female' | 'male';
    /** Locus id -> what shows, at the target's loci. */
    readonly phenotype: Readonly<Record<string, string>>;
    /** "Clown 66% het Pied": what it is known as. */
    readonly label: string;
  } | null;
  /** The chance that one egg is what is held back (sex included), or the target. */
  readonly perEgg: number;
  /** The expected inbreeding of the young. */
  readonly inbreeding: number;
}

export interface Route {
  readonly steps: readonly RouteStep[];
  /** A rough mean, by which routes are ranked; the simulation gives the distribution. */
  readonly roughYears: number;
}

export interface RouteAnimal {
  readonly id: string;
  readonly sex: 'female' | 'male';
  readonly parent: Parent;
  /** Years until it may breed, 0 for now. */
  readonly readyIn: number;
}

/** What a plan counts on, beside the animals. */
export interface RouteTerms {
  /** Years from hatching to breeding, earliest and latest. */
  readonly growth: Readonly<Record<'female' | 'male', { readonly from: number; readonly to: number }>>;
  /** The chance that a paired female lays nothing in a season. */
  readonly missedSeason: number;
}

/** Common practice, no source: males from their first or second year, females in their third to fifth. */
export const ROUTE_TERMS: RouteTerms = {
  growth: { female: { from: 2.5, to: 4 }, male: { from: 0.9, to: 2 } },
  missedSeason: 0.25,
};
