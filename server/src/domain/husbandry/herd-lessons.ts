import { learnFromMoves, tallyWorked, whatWorked, type History, type Worked } from '@karyotome/core';
import type { FeedingLessons, LearnedView } from '@karyotome/contract';
import type { Work } from '../../db/work.ts';
import { kindsOfTubs } from '../enclosures/tub-kinds.ts';
import { overHerd } from '../states/kept-animals.ts';
import { rulesOfFeeding } from './feeding-rules.ts';
import { namesOf, type Lessons } from './gather-lessons.ts';

async function lessonsOf(work: Work): Promise<Lessons[]> {
  return overHerd(work, 'gather-lessons', {
    kinds: await kindsOfTubs(work),
    rules: await rulesOfFeeding(work),
    today: work.today,
  });
}

/** What worked with all animals of the collection, and how far apart their meals were. */
export async function feedingLessons(work: Work): Promise<FeedingLessons> {
  const lessons = await lessonsOf(work);
  const intervals = new Map<number, number>();
  for (const [days, count] of lessons.flatMap((one) => [...one.intervals]))
    intervals.set(days, (intervals.get(days) ?? 0) + count);
  return { worked: whatWorked(lessons.flatMap(({ worked }) => worked)), intervals: middleOf(intervals) };
}

/** What worked with one animal. */
export async function workedWith(work: Work, history: History): Promise<Worked[]> {
  const lived = history.moves.flatMap(({ toTub }) => toTub ?? []);
  const kindOfTub = namesOf(await kindsOfTubs(work, lived));
  return whatWorked(tallyWorked([{ history, kindOfTub }], await rulesOfFeeding(work)));
}

/** Quartiles of days that occurred so often. */
function middleOf(counts: ReadonlyMap<number, number>): FeedingLessons['intervals'] {
  const sorted = [...counts].toSorted(([a], [b]) => a - b);
  const of = sorted.reduce((sum, [, count]) => sum + count, 0);
  if (of === 0) return null;
  const at = (share: number): number => {
    let left = Math.floor(share * (of - 1));
    for (const [days, count] of sorted) {
      if (left < count) return days;
      left -= count;
    }
    return sorted.at(-1)![0];
  };
  return { low: at(0.25), mid: at(0.5), high: at(0.75), of };
}

/** What became of moves up the ladder, so far, in this collection. */
export async function learnedMoves(work: Work): Promise<LearnedView> {
  const lessons = await lessonsOf(work);
  const { kinds, byWeight } = learnFromMoves(lessons.flatMap(({ episodes }) => episodes));
  const tenth = (z: number): number => Math.exp(0.1 * (byWeight!.beta[0]! + z * byWeight!.se[0]!));
  return {
    kinds,
    heavier: byWeight && { ratio: tenth(0), low: tenth(-1.96), high: tenth(1.96) },
  };
}
