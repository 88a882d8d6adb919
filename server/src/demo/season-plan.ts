import type { EggSign, SeasonEventKind } from '@karyotome/core';
import type { Founder } from './plan.ts';

/*
 * The season that runs while the demo is loaded: one female in every stage, from the first night together to young that
 * leave the egg. Invented; days are counted back from today.
 */

export const SEASON_FOUNDERS: readonly Founder[] = [
  {
    number: 'F-07',
    name: 'Bramble',
    sex: 'female',
    genes: 'Pastel het Clown',
    ageDays: 2120,
    adultG: 2180,
  },
  { number: 'F-08', name: 'Tansy', sex: 'female', genes: 'Enchi het Piebald', ageDays: 2050, adultG: 2020 },
  { number: 'F-09', name: 'Merle', sex: 'female', genes: 'Mojave het Clown', ageDays: 2210, adultG: 2090 },
  { number: 'F-10', name: 'Yarrow', sex: 'female', genes: 'Fire Enchi', ageDays: 1880, adultG: 1990 },
  {
    number: 'F-11',
    name: 'Linnet',
    sex: 'female',
    genes: 'Orange Dream 66% het Clown',
    truth: 'orange dream het clown',
    ageDays: 1960,
    adultG: 1940,
  },
  { number: 'M-05', name: 'Fennel', sex: 'male', genes: 'Pastel Clown', ageDays: 1500, adultG: 1010 },
];

export const SEASON_RACK = { name: 'Adult 2', levels: 3, tubsPerLevel: 3, stepPosition: 3 } as const;

/** An event so many days ago, with the number of the male it names. */
export type PlannedEvent = readonly [kind: SeasonEventKind, ago: number, male?: string];

export interface PlannedEgg {
  readonly massG: number;
  readonly stuck?: number;
  readonly verdict?: 'doubtful' | 'slug';
}

/** A look at an egg (counted from 1) or at all (0) so many days ago. */
export type PlannedEggCheck =
  | readonly [kind: 'check', ago: number, egg: number, signs: readonly EggSign[]]
  | readonly [kind: 'removed' | 'pip' | 'cut' | 'out' | 'died', ago: number, egg: number];

export interface PlannedSeason {
  readonly dam: string;
  readonly events: readonly PlannedEvent[];
  readonly laid?: {
    readonly ago: number;
    readonly incubator: string;
    /** Empty: laid down, but not looked at one by one yet. */
    readonly eggs: readonly PlannedEgg[];
    readonly count: number;
    readonly slugs: number;
    readonly eggChecks: readonly PlannedEggCheck[];
  };
}

const night = (ago: number, male: string, days: number): PlannedEvent[] => [
  ['introduction', ago, male],
  ['lock', ago - 1, male],
  ['separation', ago - days, male],
];

export const SEASON: readonly PlannedSeason[] = [
  {
    dam: 'F-07',
    events: [...night(168, 'M-05', 3), ...night(157, 'M-05', 2), ['ovulation', 108], ['pre-lay-shed', 88]],
    laid: {
      ago: 57,
      incubator: 'Incubator 1',
      eggs: [
        { massG: 88 },
        { massG: 91, stuck: 1 },
        { massG: 86, stuck: 1 },
        { massG: 93, stuck: 1 },
        { massG: 79 },
        { massG: 90 },
        { massG: 84 },
        { massG: 41, verdict: 'slug' },
      ],
      count: 8,
      slugs: 1,
      eggChecks: [
        ['check', 42, 0, ['veins']],
        ['check', 34, 0, []],
        ['check', 24, 5, ['mould']],
        ['removed', 21, 5],
        ['check', 10, 0, []],
        ['check', 3, 0, ['dent']],
        ['pip', 2, 1],
        ['pip', 1, 2],
        ['pip', 0, 4],
        ['out', 0, 1],
      ],
    },
  },
  {
    dam: 'F-08',
    events: [...night(140, 'M-02', 3), ...night(126, 'M-02', 4), ['ovulation', 52], ['pre-lay-shed', 31]],
    laid: { ago: 0, incubator: 'Incubator 2', eggs: [], count: 7, slugs: 1, eggChecks: [] },
  },
  {
    dam: 'F-09',
    events: [...night(150, 'M-03', 4), ...night(130, 'M-04', 3), ['ovulation', 57], ['pre-lay-shed', 36]],
  },
  { dam: 'F-10', events: [...night(95, 'M-01', 4), ...night(60, 'M-01', 3), ['ovulation', 10]] },
  { dam: 'F-11', events: [...night(24, 'M-05', 3), ...night(8, 'M-05', 4)] },
  {
    dam: 'F-02',
    events: [
      ['introduction', 1, 'M-02'],
      ['lock', 0, 'M-02'],
    ],
  },
];

/** The clutch of the plan that lies in an incubator still: how it lies, and what was seen of it. */
export const STILL_LYING: Readonly<
  Record<string, { incubator: string; eggs: readonly PlannedEgg[]; eggChecks: readonly PlannedEggCheck[] }>
> = {
  j: {
    incubator: 'Incubator 1',
    eggs: [
      { massG: 82 },
      { massG: 85 },
      { massG: 80, stuck: 1 },
      { massG: 83, stuck: 1 },
      { massG: 78, verdict: 'doubtful' },
      { massG: 86 },
      { massG: 84 },
      { massG: 38, verdict: 'slug' },
    ],
    eggChecks: [
      ['check', 25, 0, ['veins']],
      ['check', 17, 5, []],
      ['check', 7, 6, ['veins', 'movement']],
      ['check', 1, 5, ['mould']],
    ],
  },
};

export const INCUBATORS = [
  { name: 'Incubator 1', setC: 31.4, sensor: 'simulated', keptDays: 62 },
  // Read by hand, and not since yesterday: it is silent.
  { name: 'Incubator 2', setC: 31.2, sensor: 'none', keptDays: 9 },
] as const;

/** The room that the racks stand in: its sensor is simulated. */
export const WATCHED_ROOM = { lowC: 24, highC: 30, lowHumidity: 40, keptDays: 14 } as const;

/** What the incubator stood at for the clutches of earlier seasons, by how long ago they were laid. */
export const earlierC = (laidAgo: number): number => (laidAgo > 700 ? 31 : laidAgo > 400 ? 31.8 : 31.4);
