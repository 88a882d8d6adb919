import { addDays, daysBetween, type IsoDay } from '../calendar/days.ts';
import type { FactOf } from '../facts.ts';
import { appetite } from '../husbandry/appetite.ts';
import { lastCare, type History, type ShedStage } from '../husbandry/history.ts';
import { inShed, waitsForFirstShed } from '../husbandry/shed-state.ts';
import { planState, type PlanState } from './plan-state.ts';
import { FEEDING_PLANS, type FeedingPlan } from './plans.ts';
import { preyFor, type PreySpecies, type PreyState } from './prey.ts';
import { FEEDING_RULES, weightClass, type FeedingRules } from './rules.ts';

/** What feeding needs to know about an animal besides its records. */
export interface FeedingCircumstances {
  readonly sex: 'female' | 'male' | 'unknown';
  /** From ovulation to laying. */
  readonly gravid: boolean;
}
export const ORDINARY: FeedingCircumstances = { sex: 'unknown', gravid: false };

/** `due`: to be offered now. `later`: its day has not come. The rest say why it is passed over although its day came. */
export type MealVerdict = 'due' | 'later' | 'in-shed' | 'gravid' | 'resting' | 'fasting' | 'first-shed';

/** The animal's last mass in grams, and the share of it that a meal is. */
export interface MealBasis {
  readonly massG: number;
  readonly weighedOn: IsoDay;
  readonly share: number;
}

/** Why a meal differs from the usual one, or is passed over. */
export interface MealNotes {
  readonly 'fasting-season': {
    readonly sex: FeedingCircumstances['sex'];
    readonly refusedInARow: number;
    readonly everyDays: number;
  };
  readonly 'smaller-after-regurgitation': { readonly share: number };
  readonly 'resting-after-regurgitation': { readonly on: IsoDay; readonly restDays: number };
  readonly 'in-shed': { readonly stage: Exclude<ShedStage, 'shed'>; readonly day: number };
  readonly gravid: object;
  readonly 'before-first-shed': object;
}
export type MealNote = FactOf<MealNotes>;

export interface Meal {
  readonly verdict: MealVerdict;
  /** Of the prey, grams. */
  readonly massG: number;
  readonly species: PreySpecies;
  readonly size: string;
  readonly state: PreyState;
  /** "rat pup" */
  readonly prey: string;
  readonly dueOn: IsoDay;
  readonly everyDays: number;
  /** What the mass of the prey was reckoned from. */
  readonly basis: MealBasis;
  readonly notes: readonly MealNote[];
  readonly records: readonly string[];
  readonly plan: PlanState;
}

const FIRST_SHED_DAY = 8;
/** So many refusals in a row, in the season, are a fast. Common practice, no source. */
const FAST_REFUSALS = 3;

/** @example planOf({ hatchedOn: null, weights: [], feedings: [], sheds: [], moves: [] }, FEEDING_PLANS).id // "frozen-first" */
export function planOf(history: History, plans: readonly FeedingPlan[]): FeedingPlan {
  const wanted = history.own?.planId ?? history.plan?.planId;
  return plans.find(({ id }) => id === wanted) ?? plans.find(({ id }) => id === 'frozen-first') ?? plans[0]!;
}

/**
 * The next meal: what, when, and why it is due or passed over.
 *
 * @param day - the day it is asked for, usually today
 * @returns null for an animal that was never weighed
 * @example nextMeal({ hatchedOn: '2026-01-01', weights: [], feedings: [], sheds: [], moves: [] }, '2026-11-28') // null
 */
export function nextMeal(
  history: History,
  day: IsoDay,
  circumstances: FeedingCircumstances = ORDINARY,
  rules: FeedingRules = FEEDING_RULES,
  plans: readonly FeedingPlan[] = FEEDING_PLANS,
): Meal | null {
  const weight = history.weights.at(-1);
  if (!weight) return null;
  const own = history.own ?? {};
  const usual = weightClass(rules, weight.massG);
  const plan = planOf(history, plans);
  const state = planState(history, plan, day, rules);
  const regurgitated = lastCare(history, 'regurgitated', day);
  const afterRest =
    regurgitated && !history.feedings.some((offer) => offer.taken && offer.on > regurgitated.on);
  const share = (own.share ?? usual.share) * (afterRest ? rules.afterRestShare : 1);
  const preyG = weight.massG * share;
  const prey = preyOffered(history, plan, state, rules);
  const { species } = prey;
  const { size } = preyFor(species, preyG);
  const everyDays = own.everyDays ?? usual.everyDays;
  const spaced = spacing(history, circumstances, rules, everyDays, day);
  const planned = firstOrNext(history, rules, weight.on, spaced.everyDays);
  const passed = lastCare(history, 'not-offered', day);
  // Passed over tonight: tomorrow again.
  const dueOn = passed && passed.on >= planned ? addDays(passed.on, 1) : planned;
  const held = whyHeld(history, circumstances, rules, regurgitated, day);
  return {
    verdict: held && dueOn <= day ? held.verdict : dueOn > day ? spaced.verdict : 'due',
    massG: Math.round(preyG),
    species,
    size,
    state: prey.state,
    prey: `${species} ${size}`,
    dueOn,
    everyDays,
    basis: { massG: weight.massG, weighedOn: weight.on, share },
    notes: [
      ...spaced.notes,
      ...(afterRest
        ? [{ code: 'smaller-after-regurgitation', facts: { share: rules.afterRestShare } } as const]
        : []),
      ...(held ? [held.note] : []),
    ],
    records: [weight.id, ...(held?.records ?? [])],
    plan: state,
  };
}

/** The kind of prey: by the step of the ladder of refusals, by how the plan starts, or as usual. */
function preyOffered(
  history: History,
  plan: FeedingPlan,
  { step }: PlanState,
  rules: FeedingRules,
): { species: Meal['species']; state: Meal['state'] } {
  const taken = history.feedings.filter((offer) => offer.taken).length;
  const isStart = history.plan !== undefined && taken < plan.start.meals;
  const usual = isStart
    ? plan.start
    : { species: history.own?.species ?? rules.species, state: 'frozen-thawed' as const };
  return {
    species: step?.change?.species ?? usual.species,
    state: step?.change?.state ?? usual.state,
  };
}

function firstOrNext(history: History, rules: FeedingRules, weighedOn: IsoDay, everyDays: number): IsoDay {
  const last = history.feedings.at(-1);
  if (last) return addDays(last.on, everyDays);
  const shed = history.sheds.find((record) => record.stage === 'shed');
  const firstDay = shed?.on ?? (history.hatchedOn ? addDays(history.hatchedOn, FIRST_SHED_DAY) : weighedOn);
  return history.plan?.firstMealOn ?? addDays(firstDay, rules.firstMealAfterShedDays);
}

/** An adult that fasts in the season is offered a meal less often. */
function spacing(
  history: History,
  { sex }: FeedingCircumstances,
  rules: FeedingRules,
  everyDays: number,
  day: IsoDay,
): { everyDays: number; verdict: 'later' | 'fasting'; notes: MealNote[] } {
  const weight = history.weights.at(-1)!.massG;
  const usual = { everyDays, verdict: 'later' as const, notes: [] };
  if (weight < rules.adultG || !rules.fastMonths.includes(Number(day.slice(5, 7)))) return usual;
  const { refusedInARow } = appetite(history);
  if (refusedInARow < FAST_REFUSALS || everyDays >= rules.fastingEveryDays) return usual;
  return {
    everyDays: rules.fastingEveryDays,
    verdict: 'fasting',
    notes: [{ code: 'fasting-season', facts: { sex, refusedInARow, everyDays: rules.fastingEveryDays } }],
  };
}

function whyHeld(
  history: History,
  { gravid }: FeedingCircumstances,
  rules: FeedingRules,
  regurgitated: { id: string; on: IsoDay } | null,
  day: IsoDay,
): { verdict: MealVerdict; note: MealNote; records: readonly string[] } | null {
  if (regurgitated && daysBetween(regurgitated.on, day) < rules.restDays) {
    return {
      verdict: 'resting',
      note: {
        code: 'resting-after-regurgitation',
        facts: { on: regurgitated.on, restDays: rules.restDays },
      },
      records: [regurgitated.id],
    };
  }
  const shed = rules.offerInShed ? null : inShed(history.sheds, day);
  if (shed) {
    return {
      verdict: 'in-shed',
      note: { code: 'in-shed', facts: { stage: shed.stage, day: shed.days } },
      records: [shed.record],
    };
  }
  if (gravid && !rules.offerGravid)
    return { verdict: 'gravid', note: { code: 'gravid', facts: {} }, records: [] };
  if (waitsForFirstShed(history, day)) {
    return { verdict: 'first-shed', note: { code: 'before-first-shed', facts: {} }, records: [] };
  }
  return null;
}
