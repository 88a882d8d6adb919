import type { AnimalSummary, MealPreset, TodayLine, TodayQuery, TodayView } from '@karyotome/contract';
import {
  ACT_OF_KIND,
  isOverdue,
  offeredStep,
  TASK_ACTS,
  thawList,
  type Meal,
  type Task,
  type TaskAct,
} from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { summariesOf } from '../animals/animals.service.ts';
import { placeAdvice, placesOf, type PlacedAdvice } from '../enclosures/placed-advice.ts';
import { freezerOf } from '../husbandry/freezer.service.ts';
import { statesOf, unstoredStates } from '../states/animal-states.ts';
import { headLines, type HeadLine } from './head-lines.ts';
import { comparePlaces, fromCursor, NOBODY, rankOf, toCursor, type TaskPlace } from './task-place.ts';
import { benchTasks, dueTasks, type DueTask, type TaskCount } from './today.queries.ts';
import { benchTasksOf, countedTasks, dueTasksOf } from './unstored-tasks.ts';

/** Everything at once: for calendars and tests. */
export const WHOLE_DAY: TodayQuery = { limit: 1_000_000, after: null, sort: null, act: null, by: 'place' };

type Found = { readonly place: TaskPlace } & (
  { readonly of: 'head'; readonly line: HeadLine } | { readonly of: 'animal'; readonly due: DueTask }
);

/**
 * What needs a person now: what was missed, then the freezer and the heat, incubators, sales, the season, eggs, the bench,
 * then animals in walking order (room, rack, level, tub; what has no place comes first). By act: the same, act by act.
 */
export async function viewToday(work: Work, query = WHOLE_DAY): Promise<TodayView> {
  const unstored = await unstoredStates(work);
  const except = unstored.map(({ id }) => id);
  const counted = await countedTasks(work, unstored);
  const thaw = thawList(counted);
  const { lines: stock } = await freezerOf(work, thaw);
  const bench = [...(await benchTasks(work, except)), ...unstored.flatMap(benchTasksOf)];
  const head = await headLines(work, stock, bench);
  const isByAct = query.by === 'act';
  const after = query.after === null ? null : fromCursor(query.after);
  const { act, limit } = query;
  const found = [
    ...head.map((line, ordinal): Found => ({
      of: 'head',
      line,
      place: headPlace(line, ordinal, work.today, isByAct),
    })),
    ...unstored.flatMap((state) => dueTasksOf(state, isByAct)).map(ofAnimal),
  ]
    .filter(({ place }) => after === null || comparePlaces(place, after) > 0)
    .filter((one) => act === null || ACT_OF_KIND[taskOf(one).kind] === act);
  const stored = await dueTasks(work, { act, isByAct, except, after, limit: limit + 1 });
  const sorted = [...found, ...stored.map(ofAnimal)].toSorted((a, b) => comparePlaces(a.place, b.place));
  const page = sorted.slice(0, limit);
  const last = page.at(-1);
  const total = totalsOf(counted, head, work.today, act);
  const left = (prey: string): number | null => stock.find((line) => line.prey === prey)?.left ?? null;
  return {
    today: work.today,
    lines: await toLines(work, page),
    next: last && sorted.length > page.length ? toCursor(last.place) : null,
    ...total,
    thaw: thaw.map((line) => ({ ...line, left: left(line.prey) })),
  };
}

const ofAnimal = (due: DueTask): Found => ({ of: 'animal', due, place: due });
const taskOf = (found: Found): Task => (found.of === 'head' ? found.line.due : found.due.task);

function headPlace({ due }: HeadLine, ordinal: number, today: string, isByAct: boolean): TaskPlace {
  const urgency = isOverdue(due, today) ? 0 : 1;
  return { urgency, rank: rankOf(ACT_OF_KIND[due.kind], isByAct), placeKey: '', id: NOBODY, ordinal };
}

function totalsOf(
  counted: readonly TaskCount[],
  head: readonly HeadLine[],
  today: string,
  wanted: TaskAct | null,
): Pick<TodayView, 'counts' | 'total' | 'overdue'> {
  const all: TaskCount[] = [
    ...counted,
    ...head.map(({ due }) => ({
      act: ACT_OF_KIND[due.kind],
      urgency: isOverdue(due, today) ? 0 : 1,
      prey: null,
      count: 1,
    })),
  ];
  const sum = (which: (one: TaskCount) => boolean): number =>
    all.filter(which).reduce((total, { count }) => total + count, 0);
  const isWanted = ({ act }: TaskCount): boolean => wanted === null || act === wanted;
  return {
    counts: Object.fromEntries(
      TASK_ACTS.map((act) => [act, sum((one) => one.act === act)]),
    ) as TodayView['counts'],
    total: sum(isWanted),
    overdue: sum((one) => isWanted(one) && one.urgency === 0),
  };
}

/** The page's lines, with the animals that they show. */
async function toLines(work: Work, page: readonly Found[]): Promise<TodayLine[]> {
  const shown = new Set(page.flatMap((one) => (one.of === 'head' ? (one.line.animalId ?? []) : one.due.id)));
  const animals = new Map((await summariesOf(work, [...shown])).map((animal) => [animal.id, animal]));
  const hasState = page.flatMap((one) =>
    one.of === 'animal' && (one.due.task.kind === 'move' || one.due.task.kind === 'meal') ? one.due.id : [],
  );
  const states = await statesOf(work, [...new Set(hasState)]);
  const advised = page.flatMap((one) =>
    taskOf(one).kind === 'move' && one.of === 'animal' ? one.due.id : [],
  );
  const places = await placesOf(work, advised, states);
  return page.map((one) => {
    if (one.of === 'head') return headLine(one.line, animals);
    const { id, ordinal, task: due } = one.due;
    const state = states.get(id);
    return {
      ...EMPTY,
      ...due,
      key: `${id}-${ordinal}-${due.kind}`,
      animal: animals.get(id)!,
      advice: due.kind === 'move' && state ? placeAdvice(places, id, state) : null,
      preset: due.kind === 'meal' && state?.meal ? presetOf(state.meal) : null,
      staysInTub: state?.advice.verdict === 'hold',
    };
  });
}

const EMPTY = {
  animal: null,
  clutch: null,
  incubator: null,
  room: null,
  advice: null as PlacedAdvice | null,
  preset: null,
  staysInTub: false,
  zone: null,
  rack: null,
} satisfies Partial<TodayLine>;

const headLine = (
  { due, key, animalId, of }: HeadLine,
  animals: ReadonlyMap<string, AnimalSummary>,
): TodayLine => ({
  ...EMPTY,
  ...due,
  key: `${key}-${due.kind}`,
  animal: animalId === undefined ? null : (animals.get(animalId) ?? null),
  ...of,
});

function presetOf({ species, size, massG, state, plan }: Meal): MealPreset {
  return { species, size, preyG: massG, state, step: offeredStep(plan) };
}
