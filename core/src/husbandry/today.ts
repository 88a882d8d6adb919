import { addDays, daysBetween, type IsoDay } from '../calendar/days.ts';
import type { Meal } from '../feeding/next-meal.ts';
import { SEE_A_VET, type Concern } from './concern.ts';
import { lastCare, type History } from './history.ts';
import { judgeMove, type MoveAdvice } from './move-advice.ts';
import { shedCycle, soakPlan, type ShedCycle } from './shed-cycle.ts';
import { BAD_SHED_ADVICE, waitsForFirstShed } from './shed-state.ts';

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
  | 'first-shed'
  | 'clean'
  | 'concern'
  | 'heat'
  | 'stock';

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
  readonly meal: Meal | null;
  readonly concerns: readonly Concern[];
  readonly cleanEveryDays: number;
}

/* All intervals: common practice, no source. */
const WEIGH_EVERY_DAYS = 30;
const ADULT_WEIGH_EVERY_DAYS = 60;
const ADULT_G = 1000;
const RECHECK_FEMALE_DAYS = 90;
const YOUNG_DAYS = 400;
/** After a shed the tub is cleaned within so many days. */
const CLEAN_AFTER_SHED_DAYS = 7;
const FIRST_SHED = { from: 7, to: 10 } as const;

/** What one animal needs on a day, in the order in which a hand would do it. */
export function animalTasks(animal: AnimalDay, today: IsoDay): Task[] {
  const { history } = animal;
  const age = history.hatchedOn ? daysBetween(history.hatchedOn, today) : null;
  const shed = shedCycle(history, today);
  const hasShed = history.sheds.some((record) => record.stage === 'shed');
  return [
    ...animal.concerns.map((concern) => concernTask(concern)),
    ...firstShedTask(history, age, today),
    ...shedTask(animal, shed, today),
    ...(animal.meal?.verdict === 'due' ? [mealTask(animal.meal)] : []),
    ...(shed ? [] : weighTask(history, today)),
    ...(shed ? [] : cleanTask(history, animal.cleanEveryDays, today)),
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

function firstShedTask(history: History, age: number | null, today: IsoDay): Task[] {
  if (age === null || age < FIRST_SHED.from || !waitsForFirstShed(history, today)) return [];
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

function concernTask({ text, unusual, since, records }: Concern): Task {
  return task('concern', text, `${unusual} ${SEE_A_VET}`, since, records);
}

function shedTask(animal: AnimalDay, shed: ShedCycle | null, today: IsoDay): Task[] {
  const { history } = animal;
  if (shed) {
    const { from, to } = shed.expected;
    const why = `Sign seen ${shed.days} days ago; the skin is expected ${from} to ${to}. Humidity 75 to 80%, no handling, no cleaning; a refused meal does not count.`;
    const text = shed.late
      ? `In shed for ${shed.days} days: look again`
      : `In shed (${shed.stage}), day ${shed.days}`;
    return [task('shed', text, why, shed.since, [shed.record])];
  }
  const soak = soakPlan(history, today);
  if (!soak || (!soak.dueToday && !soak.veterinarian)) return [];
  const what = {
    pieces: 'Shed in pieces',
    caps: 'Eye caps retained',
    both: 'Shed in pieces, eye caps retained',
  };
  const text = soak.veterinarian
    ? `${what[soak.what]} after ${soak.soaks.length} soaks: a veterinarian’s`
    : `${what[soak.what]}: soak, day ${soak.soaks.length + 1}`;
  return [task('shed', text, BAD_SHED_ADVICE, soak.since, [soak.record])];
}

function mealTask(meal: Meal): Task {
  const { step, next, triesUsed } = meal.plan;
  const isTrying = step !== null && (meal.plan.index > 0 || triesUsed > 0);
  const trying = isTrying
    ? ` ${step.name}: try ${triesUsed + 1} of ${step.tries}.${next ? ` Then: ${next.name}.` : ''}${step.caution ? ` ${step.caution}` : ''}`
    : '';
  const state = meal.state === 'frozen-thawed' ? '' : `${meal.state} `;
  const how = isTrying && meal.plan.index > 0 ? `, ${step.name.toLowerCase()}` : '';
  return task(
    'meal',
    `Offer ${state}${meal.prey} (${meal.preyG} g)${how}`,
    `${meal.why}${trying}`,
    meal.dueOn,
    meal.records,
  );
}

/** Tubs are cleaned by the clock once a cleaning was recorded, and after a shed. */
function cleanTask(history: History, everyDays: number, today: IsoDay): Task[] {
  const last = lastCare(history, 'cleaned', today);
  if (!last) return [];
  const shed = history.sheds.findLast(({ stage, on }) => stage === 'shed' && on <= today);
  if (shed && shed.on > last.on && daysBetween(shed.on, today) <= CLEAN_AFTER_SHED_DAYS) {
    return [
      task('clean', 'Clean after the shed', 'After a shed the tub is cleaned.', addDays(shed.on, 1), [
        shed.id,
      ]),
    ];
  }
  const dueOn = addDays(last.on, everyDays);
  if (dueOn > today) return [];
  return [task('clean', 'Clean', `Last cleaned on ${last.on}; every ${everyDays} days.`, dueOn, [last.id])];
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
