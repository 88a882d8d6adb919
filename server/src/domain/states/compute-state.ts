import {
  ACT_OF_KIND,
  animalState,
  frozenPrey,
  isOverdue,
  type AnimalState,
  type HerdBasis,
  type Housing,
  type KeptAnimal,
  type LadderStep,
  type SeasonRules,
  type Task,
  type TaskAct,
} from '@karyotome/core';
import { isGone, type Sex } from '@karyotome/contract';
import { boardPlace, isGravid, type BoardPlace } from '../season/board-place.ts';
import { toHistory, type ValidRecord } from '../records/history.ts';
import type { KeptRow, PackedRecords } from './kept-animals.queries.ts';

/** What the states of a collection's animals are computed from, besides the animals themselves. */
export interface DayBasis extends HerdBasis {
  readonly seasonRules: SeasonRules;
  readonly today: string;
  /** Ladder id -> its steps, the lowest first. */
  readonly ladders: ReadonlyMap<string, readonly LadderStep[]>;
}

/** A state as it is stored; its tasks have rows of their own. */
export type StoredState = Omit<AnimalState, 'tasks'> & {
  /** Null for an animal that is not on the season board. */
  readonly board: BoardPlace | null;
};

/** In shed, with a rest of one, or waiting for the first. */
export const isShedding = ({ shed, soak, meal }: StoredState): boolean =>
  shed !== null || soak !== null || meal?.verdict === 'first-shed';

/** Under treatment, in quarantine, with signs that last, or to be seen by a veterinarian. */
export const isHealthCase = ({
  health: { openSigns, courses, quarantine, nextVisit },
}: StoredState): boolean =>
  openSigns !== null || courses.length > 0 || quarantine !== null || nextVisit !== null;

/** The day of its meal has come: it eats, or is passed over. */
export const isMealDay = ({ meal }: Pick<StoredState, 'meal'>, today: string): boolean =>
  meal !== null && (meal.verdict === 'due' || meal.dueOn <= today);

/** A task with what it is found and counted by. */
export interface TaskRow {
  readonly ordinal: number;
  readonly act: TaskAct;
  readonly kind: string;
  /** 0: its day has passed. 1: due today. */
  readonly urgency: 0 | 1;
  /** The clutch whose bench work it is part of; null for all other tasks. */
  readonly clutchId: string | null;
  /** Frozen prey that it takes. */
  readonly prey: string | null;
  readonly task: Task;
}

/** A computed state, and what it was computed for. */
export interface ComputedState {
  readonly id: string;
  readonly number: string;
  readonly sex: Sex;
  /** For which it was computed. */
  readonly day: string;
  /** Of what it was computed from; null for an animal that has no row. */
  readonly changes: string | null;
  /** Sorts in walking order: rack, level, tub; what has no place comes first. */
  readonly placeKey: string;
  readonly state: StoredState;
  readonly tasks: readonly TaskRow[];
}

/** Reads an animal's row as core reads it. */
export const toKeptAnimal = (row: KeptRow, ladders: DayBasis['ladders'], today: string): KeptAnimal =>
  keptAnimal(row, recordsOf(row), ladders, today);

/** The same with its standing records, in date order. */
export function keptAnimal(
  row: Omit<KeptRow, 'records'>,
  records: readonly ValidRecord[],
  ladders: DayBasis['ladders'],
  today: string,
): KeptAnimal {
  const history = toHistory(row.hatchedOn, records);
  const sexed = records.findLast(({ kind }) => kind === 'sex');
  const identified = records.findLast(({ kind }) => kind === 'identification');
  const sure = identified?.body['sure'];
  return {
    id: row.id,
    sex: row.sex,
    hatchedOn: row.hatchedOn,
    clutchId: row.clutchId,
    weights: history.weights,
    feedings: history.feedings,
    laidOn: row.pairings
      .flatMap(({ damId, clutches }) => (damId === row.id ? clutches.map(({ laidOn }) => laidOn) : []))
      .toSorted(),
    history,
    gravid: isGravid(row.id, row.pairings, today),
    sexedOn: sexed?.onDay ?? null,
    identified: identified !== undefined || row.isStated,
    unsure:
      identified && typeof sure === 'string' && sure !== 'certain' ? { sure, on: identified.onDay } : null,
    housing: housingOf(row, ladders),
  };
}

export function recordsOf({ id: animalId, records }: KeptRow): ValidRecord[] {
  const { ids, kinds, days, bodies } = JSON.parse(records) as PackedRecords;
  return (ids ?? []).map((id, i) => ({
    id,
    animalId,
    kind: kinds[i] as ValidRecord['kind'],
    onDay: days[i]!,
    body: bodies[i]!,
  }));
}

function housingOf(
  { place, from }: Pick<KeptRow, 'place' | 'from'>,
  ladders: DayBasis['ladders'],
): Housing | null {
  const steps = place && ladders.get(place.ladderId);
  if (!place || !steps) return null;
  const { ladderId, step } = place;
  return {
    steps,
    step,
    stepOf: (tubId) => (from?.tubId === tubId && from.ladderId === ladderId ? from.step : null),
  };
}

/** Computes one animal's state from its row. */
export function computeState(row: KeptRow, basis: DayBasis): ComputedState {
  const animal = toKeptAnimal(row, basis.ladders, basis.today);
  const { tasks, ...kept } = animalState(animal, basis, basis.today);
  const state = { ...kept, board: boardPlace(animal, row.pairings, basis.seasonRules, basis.today) };
  return {
    id: row.id,
    number: row.number,
    sex: row.sex,
    day: basis.today,
    changes: row.changes,
    placeKey: placeKeyOf(row),
    state,
    tasks: isGone(row)
      ? []
      : tasks.map((task, ordinal) => taskRow(animal, state, task, { ordinal, today: basis.today })),
  };
}

function taskRow(
  { clutchId, identified, sex }: KeptAnimal,
  { meal }: StoredState,
  task: Task,
  { ordinal, today }: { ordinal: number; today: string },
): TaskRow {
  const { kind } = task;
  // Identifying and sexing is done clutch by clutch at the bench.
  const isBenchWork = (kind === 'identify' && !identified) || (kind === 'sex' && sex === 'unknown');
  return {
    ordinal,
    act: ACT_OF_KIND[kind],
    kind,
    urgency: isOverdue(task, today) ? 0 : 1,
    clutchId: isBenchWork ? clutchId : null,
    prey: kind === 'meal' ? frozenPrey(meal) : null,
    task,
  };
}

const digits = (n: number, count: number): string => String(n).padStart(count, '0');

function placeKeyOf({ place, number }: KeptRow): string {
  return place
    ? `1${digits(place.walkOrder, 5)}|${place.room}|${place.rack}|${digits(place.level, 2)}|${digits(place.slot, 2)}|${number}`
    : `0${number}`;
}
