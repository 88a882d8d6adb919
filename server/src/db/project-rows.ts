import type { RoutePlan } from '@karyotome/contract';

export interface ProjectRow {
  collectionId: string;
  id: string;
  name: string;
  /** Genes as they are typed. */
  targets: string[];
  note: string | null;
  plan: RoutePlan | null;
  startedOn: string;
  endedOn: string | null;
  authorId: string;
  version: number;
}

export interface ProjectAnimalRow {
  collectionId: string;
  id: string;
  projectId: string;
  animalId: string;
  reason: string | null;
  /** The step of the plan that it was held back from. */
  step: number | null;
  addedOn: string;
  authorId: string;
}

export interface PlannedPairingRow {
  collectionId: string;
  id: string;
  projectId: string;
  season: number;
  damId: string;
  sireId: string;
  authorId: string;
}
