import type { ParentView } from './animal-summary.ts';

export interface PairingView {
  id: string;
  season: number;
  startedOn: string;
  note: string | null;
  dam: ParentView;
  sires: (ParentView & { weight: number; stored: boolean })[];
  clutches: ClutchSummary[];
  cautions: string[];
  version: number;
}

export interface ClutchSummary {
  id: string;
  name: string;
  laidOn: string;
  eggs: number;
  slugs: number | null;
  hatchedOn: string | null;
  hatched: number | null;
  identified: number;
  day: number;
}
