import type {
  CatalogueChange,
  Genotype,
  NotReady,
  Readiness,
  SeasonEventKind,
  SeasonForecast,
  SeasonRules,
  WholeOdds,
} from '@karyotome/core';
import type { Sex } from './animal-status.ts';

export interface SeasonEventView {
  id: string;
  kind: SeasonEventKind;
  on: string;
  sireId: string | null;
  note: string | null;
  author: string;
}

/** What can be done with a female on the board, in the order in which they are shown. */
export const FEMALE_GROUPS = ['together', 'gravid', 'laid', 'apart', 'ready', 'not-yet'] as const;
export type FemaleGroup = (typeof FEMALE_GROUPS)[number];
export const MALE_GROUPS = ['in-season', 'ready', 'resting'] as const;
export type MaleGroup = (typeof MALE_GROUPS)[number];

/** A female on the season board. */
export interface BoardFemale {
  id: string;
  group: FemaleGroup;
  number: string;
  name: string | null;
  label: string;
  massG: number | null;
  /** The last meal that was taken; null where none is recorded in the last year. */
  lastMealOn: string | null;
  hatchedOn: string | null;
  floorG: number;
  lastClutch: { id: string; name: string; laidOn: string; eggs: number } | null;
  readiness: Readiness;
  /** Her pairing of this season; null before the first introduction. */
  pairing: {
    id: string;
    version: number;
    sires: { id: string; number: string; weight: number; stored: boolean }[];
    events: SeasonEventView[];
    forecast: SeasonForecast;
    clutch: { id: string; name: string; day: number; eggs: number; hatchedOn: string | null } | null;
    cautions: string[];
  } | null;
}

/** A male on the season board. */
export interface BoardMale {
  id: string;
  group: MaleGroup;
  number: string;
  name: string | null;
  label: string;
  massG: number | null;
  /** Weights of the last year, for the trend. */
  weights: { on: string; massG: number }[];
  females: number;
  locks: number;
  lastLockOn: string | null;
  /** The female he is with now. */
  with: { id: string; number: string } | null;
  readiness: Readiness;
}

/** The season's rules, and how many animals are on the board; females and males are read page by page. */
export interface SeasonBoardView {
  season: number;
  today: string;
  /** How many females are in each group. */
  females: Record<FemaleGroup, number>;
  males: Record<MaleGroup, number>;
  rules: SeasonRules;
  rulesVersion: number;
  /** How many clutches of the keeper's own each waiting time rests on. */
  learned: { ovulationToShed: number; shedToEggs: number; eggsToPip: number };
}

/** An animal of the other sex with which the young would be inbred over the bound of the rules. */
export interface RelatedMate {
  id: string;
  inbreeding: number;
}

/** A clutch of the past, for the look back. */
export interface DoneClutchView {
  clutchId: string;
  name: string;
  season: string;
  dam: string;
  sire: string;
  celsius: number | null;
  eggs: number;
  slugs: number;
  hatched: number;
}

/** Locus id with its distribution, packed for many animals. */
export type PackedLoci = [locus: string, genotypes: [a: Genotype[0], b: Genotype[1], p: number][]][];

/** Everything the planner computes from, in the browser's worker. */
export interface PlannerView {
  season: number;
  rules: SeasonRules;
  /** Animals not grown yet that were too many to plan with. */
  leftOut: number;
  entries: CatalogueChange[];
  animals: {
    id: string;
    number: string;
    name: string | null;
    sex: Exclude<Sex, 'unknown'>;
    label: string;
    loci: PackedLoci;
    notReady: NotReady[];
    /** Years until it may breed by age and weight. */
    readyIn: number;
    freeLoad: number;
    /** Of a female: her good eggs, and how many clutches of her own that rests on. */
    size: { odds: WholeOdds; observations: number } | null;
  }[];
  /** Share of good eggs that hatch, over the collection, and the good eggs it rests on. */
  hatch: { share: number; eggs: number };
  /** Kinship of each pair of the animals above: `kinship[i * (i + 1) / 2 + j]` for j at most i. */
  kinship: number[];
}

export interface FeedView {
  id: string;
  name: string;
  /** Who made it. */
  by: string;
  createdAt: string;
}
