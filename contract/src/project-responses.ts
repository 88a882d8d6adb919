import type { Luck, SharedAnimal } from '@karyotome/core';
import type { AnimalSummary, ParentView } from './animal-summary.ts';
import type { RoutePlanInput } from './project-requests.ts';

export interface RoutePlan extends RoutePlanInput {
  chosenOn: string;
}

export interface ProjectSummary {
  id: string;
  name: string;
  targets: string[];
  note: string | null;
  startedOn: string;
  endedOn: string | null;
  version: number;
  /** Animals that belong to it. */
  animals: number;
  plan: RoutePlan | null;
  /** Animals that it wants now, and other projects too. */
  shared: (SharedAnimal & Pick<AnimalSummary, 'number' | 'sex'>)[];
}

export interface ProjectAnimal {
  id: string;
  animal: AnimalSummary;
  reason: string | null;
  /** The step of the plan, counted from 0, that it was held back from. */
  step: number | null;
  addedOn: string;
  /** The chance that it is each of the project's targets. */
  chances: number[];
}

/** What hatched of one clutch, for one target. */
export interface ClutchOutcome {
  young: number;
  /** Young that are the target for certain. */
  hits: number;
  /** Young of which it is not known. The clutch counts for the luck once there is none. */
  open: number;
  /** Hits to be expected, by what was known of the parents before their young were looked at. */
  expected: number;
}

export interface ProjectPairing {
  /** Of the plan and of the pairing that was made; one of them is there. */
  plannedId: string | null;
  pairingId: string | null;
  season: number;
  dam: ParentView;
  sires: ParentView[];
  clutches: {
    id: string;
    name: string;
    laidOn: string;
    hatchedOn: string | null;
    eggs: number;
    hatched: number | null;
    /** For each of the project's targets. */
    outcomes: ClutchOutcome[];
  }[];
}

export interface ProjectView extends ProjectSummary {
  projectAnimals: ProjectAnimal[];
  /** The newest season first. */
  pairings: ProjectPairing[];
  /** For each target, over all seasons; null where nothing is settled yet. */
  luck: (Luck | null)[];
  /** Names of the projects that share an animal with it. */
  others: { id: string; name: string }[];
}
