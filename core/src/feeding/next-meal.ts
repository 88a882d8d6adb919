import { addDays, daysBetween, type IsoDay } from '../calendar/days.ts';
import { appetite } from '../husbandry/appetite.ts';
import { lastCare, type History } from '../husbandry/history.ts';
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

export interface Meal {
  readonly verdict: MealVerdict;
  /** Grams of prey. */
  readonly preyG: number;
  readonly species: PreySpecies;
  readonly size: string;
  readonly state: PreyState;
  /** "rat pup" */
  readonly prey: string;
  readonly dueOn: IsoDay;
  readonly everyDays: number;
  /** The rule and the numbers behind it, in words. */
  readonly why: string;
  readonly records: readonly string[];
  readonly plan: PlanState;
}

const FIRST_SHED_DAY = 8;
/** So many refusals in a row, in the season, are a fast. Common practice, no source. */
const FAST_REFUSALS = 3;

export function planOf(history: History, plans: readonly FeedingPlan[]): FeedingPlan {
  const wanted = history.own?.planId ?? history.plan?.planId;
  return plans.find(({ id }) => id === wanted) ?? plans.find(({ id }) => id === 'frozen-first') ?? plans[0]!;
}

/**
 * The next meal: what, when, and why it is due or passed over.
 *
 * @param day - the day it is asked for, usually today
 * @returns null for an animal that was never weighed
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
  const taken = history.feedings.filter((offer) => offer.taken).length;
  const isStart = history.plan !== undefined && taken < plan.start.meals;
  const regurgitated = lastCare(history, 'regurgitated', day);
  const afterRest =
    regurgitated && !history.feedings.some((offer) => offer.taken && offer.on > regurgitated.on);
  const share = (own.share ?? usual.share) * (afterRest ? rules.afterRestShare : 1);
  const preyG = weight.massG * share;
  const change = state.step?.change;
  const species = change?.species ?? (isStart ? plan.start.species : (own.species ?? rules.species));
  const { size } = preyFor(species, preyG);
  const everyDays = own.everyDays ?? usual.everyDays;
  const spaced = spacing(history, circumstances, rules, everyDays, day);
  const planned = firstOrNext(history, rules, weight.on, spaced.everyDays);
  const passed = lastCare(history, 'not-offered', day);
  // Passed over tonight: tomorrow again.
  const dueOn = passed && passed.on >= planned ? addDays(passed.on, 1) : planned;
  const held = whyHeld(history, circumstances, rules, regurgitated, day);
  const grams = `${Math.round(weight.massG)} g on ${weight.on}: ${percent(share)} are about ${Math.round(preyG)} g, every ${everyDays} days`;
  return {
    verdict: held && dueOn <= day ? held.verdict : dueOn > day ? spaced.verdict : 'due',
    preyG: Math.round(preyG),
    species,
    size,
    state: change?.state ?? (isStart ? plan.start.state : 'frozen-thawed'),
    prey: `${species} ${size}`,
    dueOn,
    everyDays,
    why: [grams, spaced.why, afterRest ? 'A smaller meal after a regurgitation' : null, held?.why ?? null]
      .filter((part) => part !== null)
      .join('. ')
      .concat('.'),
    records: [weight.id, ...(held?.records ?? [])],
    plan: state,
  };
}

const percent = (share: number): string => `${Math.round(share * 1000) / 10}%`;

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
): { everyDays: number; verdict: 'later' | 'fasting'; why: string | null } {
  const weight = history.weights.at(-1)!.massG;
  const usual = { everyDays, verdict: 'later' as const, why: null };
  if (weight < rules.adultG || !rules.fastMonths.includes(Number(day.slice(5, 7)))) return usual;
  const { refusedInARow: inARow } = appetite(history);
  if (inARow < FAST_REFUSALS || everyDays >= rules.fastingEveryDays) return usual;
  return {
    everyDays: rules.fastingEveryDays,
    verdict: 'fasting',
    why: `${sex === 'male' ? 'A male' : 'An adult'} that fasts in the season, ${inARow} refusals in a row: offered every ${rules.fastingEveryDays} days`,
  };
}

function whyHeld(
  history: History,
  { gravid }: FeedingCircumstances,
  rules: FeedingRules,
  regurgitated: { id: string; on: IsoDay } | null,
  day: IsoDay,
): { verdict: MealVerdict; why: string; records: readonly string[] } | null {
  if (regurgitated && daysBetween(regurgitated.on, day) < rules.restDays) {
    return {
      verdict: 'resting',
      why: `Regurgitated on ${regurgitated.on}: ${rules.restDays} days of rest. A second time is for a veterinarian`,
      records: [regurgitated.id],
    };
  }
  const shed = rules.offerInShed ? null : inShed(history.sheds, day);
  if (shed) {
    return {
      verdict: 'in-shed',
      why: `In shed (${shed.stage}), day ${shed.days}: passed over`,
      records: [shed.record],
    };
  }
  if (gravid && !rules.offerGravid) return { verdict: 'gravid', why: 'Gravid: passed over', records: [] };
  if (waitsForFirstShed(history, day)) {
    return { verdict: 'first-shed', why: 'No meal before the first shed: it lives on its yolk', records: [] };
  }
  return null;
}
