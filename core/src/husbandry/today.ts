import { addDays, daysBetween, type IsoDay } from '../calendar/days.ts';
import { nextMeal } from './appetite.ts';
import type { History } from './history.ts';
import { inShed, BAD_SHED_ADVICE } from './shed-state.ts';
import { judgeMove, type MoveAdvice } from './move-advice.ts';

export type TaskKind =
  | 'meal'
  | 'weigh'
  | 'shed'
  | 'sex'
  | 'identify'
  | 'move'
  | 'settle'
  | 'eggs'
  | 'season'
  | 'climate'
  | 'first-shed';

/** One thing that needs a person now. */
export interface Task {
  readonly kind: TaskKind;
  readonly text: string;
  readonly why: string;
  readonly dueOn: IsoDay;
  readonly records: readonly string[];
}

export interface AnimalDay {
  readonly history: History;
  readonly sex: { readonly sex: 'female' | 'male' | 'unknown'; readonly on: IsoDay | null };
  readonly identified: boolean;
  /** An identification that is not certain: how sure, and from which day. */
  readonly unsure?: { readonly sure: string; readonly on: IsoDay } | null;
  readonly advice: MoveAdvice;
}

/* All intervals: common practice, no source. */
const WEIGH_EVERY_DAYS = 30;
const ADULT_WEIGH_EVERY_DAYS = 60;
const ADULT_G = 1000;
const RECHECK_FEMALE_DAYS = 90;
const YOUNG_DAYS = 400;
const LONG_SHED_DAYS = 14;
const FIRST_SHED = { from: 7, to: 10 } as const;

/** What one animal needs on a day, in the order in which a hand would do it. */
export function animalTasks(animal: AnimalDay, today: IsoDay): Task[] {
  const { history } = animal;
  const age = history.hatchedOn ? daysBetween(history.hatchedOn, today) : null;
  const shed = inShed(history.sheds, today);
  const hasShed = history.sheds.some((record) => record.stage === 'shed');
  const waitsForFirstShed = age !== null && age < 21 && !hasShed;
  return [
    ...firstShedTask(history, age, waitsForFirstShed, today),
    ...shedTask(animal, shed, today),
    ...(waitsForFirstShed || shed ? [] : mealTask(history, today)),
    ...(shed ? [] : weighTask(history, today)),
    ...(hasShed && !animal.identified && age !== null && age < YOUNG_DAYS
      ? [task('identify', 'Identify', 'Hatchlings are identified after the first shed.', today, [])]
      : []),
    ...lookAgainTask(animal, age, today),
    ...sexTask(animal, age, today),
    ...moveTask(animal, today),
  ];
}

function task(kind: TaskKind, text: string, why: string, dueOn: IsoDay, records: readonly string[]): Task {
  return { kind, text, why, dueOn, records };
}

function firstShedTask(history: History, age: number | null, waits: boolean, today: IsoDay): Task[] {
  if (!waits || age === null || age < FIRST_SHED.from) return [];
  const dueOn = addDays(history.hatchedOn!, FIRST_SHED.from);
  const text = `First shed expected, day ${age}`;
  return [
    task(
      'first-shed',
      text,
      `First shed ${FIRST_SHED.from} to ${FIRST_SHED.to} days after hatching.`,
      dueOn > today ? today : dueOn,
      [],
    ),
  ];
}

function shedTask(animal: AnimalDay, shed: ReturnType<typeof inShed>, today: IsoDay): Task[] {
  const { history } = animal;
  if (shed) {
    const late = shed.days > LONG_SHED_DAYS;
    const why = `Sign seen ${shed.days} days ago. Humidity 75 to 80%, no handling, no cleaning; a refused meal does not count.`;
    return [
      task(
        'shed',
        late ? `In shed for ${shed.days} days: look again` : `In shed (${shed.stage}), day ${shed.days}`,
        why,
        shed.since,
        [shed.record],
      ),
    ];
  }
  const last = history.sheds.findLast((record) => record.stage === 'shed');
  const bad = last && (last.complete === false || last.eyeCaps === false);
  if (!bad || daysBetween(last.on, today) > 10) return [];
  return [
    task(
      'shed',
      last.eyeCaps === false ? 'Eye caps retained: check' : 'Shed in pieces: check',
      BAD_SHED_ADVICE,
      last.on,
      [last.id],
    ),
  ];
}

function mealTask(history: History, today: IsoDay): Task[] {
  const meal = nextMeal(history);
  if (!meal || meal.dueOn > today) return [];
  const weight = history.weights.at(-1)!;
  const why = `${Math.round(weight.massG)} g on ${weight.on}: about ${meal.preyG} g every ${meal.everyDays} days.`;
  return [task('meal', `Offer ${meal.prey} (${meal.preyG} g)`, why, meal.dueOn, [weight.id])];
}

const weighEvery = (massG: number): number => (massG >= ADULT_G ? ADULT_WEIGH_EVERY_DAYS : WEIGH_EVERY_DAYS);

/** The day of the next weighing; null for an animal that was never weighed. */
export function nextWeighing(history: History): IsoDay | null {
  const last = history.weights.at(-1);
  return last ? addDays(last.on, weighEvery(last.massG)) : null;
}

function weighTask(history: History, today: IsoDay): Task[] {
  const last = history.weights.at(-1);
  if (!last) return [task('weigh', 'Weigh', 'Never weighed.', today, [])];
  const every = weighEvery(last.massG);
  const dueOn = addDays(last.on, every);
  if (dueOn > today) return [];
  return [
    task(
      'weigh',
      'Weigh',
      `Last weighed on ${last.on}, ${Math.round(last.massG)} g; every ${every} days.`,
      dueOn,
      [last.id],
    ),
  ];
}

/** Colours open up: what was not certain is looked at again once it has shed since. */
function lookAgainTask({ unsure, history }: AnimalDay, age: number | null, today: IsoDay): Task[] {
  if (!unsure || age === null || age > YOUNG_DAYS) return [];
  const shed = history.sheds.findLast(({ stage, on }) => stage === 'shed' && on > unsure.on && on <= today);
  if (!shed) return [];
  return [
    task(
      'identify',
      `Look again: ${unsure.sure} so far`,
      `It has shed since it was identified on ${unsure.on}: colours open up, some fade.`,
      shed.on,
      [shed.id],
    ),
  ];
}

function sexTask(animal: AnimalDay, age: number | null, today: IsoDay): Task[] {
  if (age === null || age > YOUNG_DAYS) return [];
  const { sex, on } = animal.sex;
  if (sex === 'unknown') {
    return [
      task('sex', 'Sex', 'Not sexed yet. Taught hand to hand: inexperienced hands hurt animals.', today, []),
    ];
  }
  if (sex === 'male' || on === null) return [];
  const checkedAt = daysBetween(animal.history.hatchedOn!, on);
  const dueOn = addDays(on, RECHECK_FEMALE_DAYS);
  if (checkedAt > RECHECK_FEMALE_DAYS || dueOn > today) return [];
  return [
    task(
      'sex',
      'Check the sex again',
      'A female is an absence: she is checked again. Inexperienced hands hurt animals.',
      dueOn,
      [],
    ),
  ];
}

function moveTask(animal: AnimalDay, today: IsoDay): Task[] {
  const { advice, history } = animal;
  const records = advice.reasons.flatMap((reason) => reason.records);
  const why = advice.reasons.map((reason) => reason.text).join('. ');
  if (advice.verdict === 'move-up') return [task('move', 'Move up', why, today, records)];
  if (advice.verdict === 'go-back') return [task('move', 'Back to the last tub', why, today, records)];
  if (advice.verdict === 'hold') return [task('move', 'Leave it where it is for now', why, today, records)];
  const last = history.moves.at(-1);
  if (last?.fromTub && judgeMove(last, history, today) === 'settling' && daysBetween(last.on, today) >= 7) {
    return [
      task(
        'settle',
        `Settling since the move, day ${daysBetween(last.on, today)}`,
        'One or two weeks to settle; judged by the meals after it.',
        last.on,
        [last.id],
      ),
    ];
  }
  return [];
}
