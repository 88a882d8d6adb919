import {
  mealIntervals,
  moveEpisodes,
  tallyWorked,
  type FeedingRules,
  type MoveEpisode,
  type TubKind,
  type WorkedTally,
} from '@karyotome/core';
import { toKeptAnimal } from '../states/compute-state.ts';
import type { KeptRow } from '../states/kept-animals.queries.ts';

/** What the records of some animals teach about all. */
export interface Lessons {
  readonly worked: readonly WorkedTally[];
  /** Days between meals taken -> how often. */
  readonly intervals: ReadonlyMap<number, number>;
  readonly episodes: readonly MoveEpisode[];
}

interface LessonsInput {
  readonly rows: readonly KeptRow[];
  readonly kinds: ReadonlyMap<string, TubKind>;
  readonly rules: FeedingRules;
  readonly today: string;
}

declare module '../../threads/pool.ts' {
  interface Tasks {
    /** Gathers what the records of animals teach. */
    'gather-lessons': (input: LessonsInput) => Lessons;
  }
}

export function gatherLessons({ rows, kinds, rules, today }: LessonsInput): Lessons {
  const histories = rows.map((row) => toKeptAnimal(row, new Map(), today).history);
  const kindOfTub = namesOf(kinds);
  const intervals = new Map<number, number>();
  for (const days of histories.flatMap(mealIntervals)) intervals.set(days, (intervals.get(days) ?? 0) + 1);
  return {
    worked: tallyWorked(
      histories.map((history) => ({ history, kindOfTub })),
      rules,
    ),
    intervals,
    episodes: histories.flatMap((history) => moveEpisodes(history, (tub) => kinds.get(tub), today)),
  };
}

/** Tub id -> the name of its kind. */
export const namesOf = (kinds: ReadonlyMap<string, TubKind>): Map<string, string> =>
  new Map([...kinds].map(([id, { name }]) => [id, name]));
