import { daysBetween, type IsoDay } from '../calendar/days.ts';
import { nextMeal, planOf, type Meal } from '../feeding/next-meal.ts';
import type { FeedingPlan } from '../feeding/plans.ts';
import type { FeedingRules } from '../feeding/rules.ts';
import type { FactOf } from '../facts.ts';
import type { HealthFlags } from '../health/health-facts.ts';
import { NO_HEALTH_RECORDS } from '../health/health-records.ts';
import { healthState, type HealthState } from '../health/health-state.ts';
import { healthFlags } from '../health/health-tasks.ts';
import type { CollectionGrowth } from '../growth/collection.ts';
import { Growth, type ExpectedMass } from '../growth/growth.ts';
import type { GrowthSubject } from '../growth/prepare.ts';
import { NO_LOANS, type LoanRecord } from '../loans/loan-records.ts';
import { isAway, loanOn } from '../loans/loan.ts';
import { saleLacks, type SaleLacks, type SaleRules } from '../sales/readiness.ts';
import { appetite, DIGESTING_DAYS, SETTLING_DAYS, type Appetite } from './appetite.ts';
import { concerns, type AppetiteBaseline, type Concern, type Concerns } from './concern.ts';
import { lastCare, type History, type WeightRecord } from './history.ts';
import type { LadderStep } from './ladders.ts';
import { adviseMove, type MoveAdvice } from './move-advice.ts';
import { shedCycle, soakPlan, type ShedCycle, type SoakPlan } from './shed-cycle.ts';
import { animalTasks, cleaningTasks, nextWeighing, type AnimalDay } from './today.ts';
import type { Task } from './task.ts';

/** The tub an animal lives in: its place on the ladder, and the places of tubs it lived in before. */
export interface Housing {
  readonly steps: readonly LadderStep[];
  /** Index into `steps`. */
  readonly step: number;
  /** The step of the same ladder that a tub stands on; null for one that is gone or on another ladder. */
  readonly stepOf: (tubId: string) => number | null;
}

/** One animal as husbandry reads it. */
export interface KeptAnimal extends GrowthSubject {
  readonly history: History;
  /** From ovulation to laying. */
  readonly gravid: boolean;
  /** The day on which it was last sexed; null where it never was. */
  readonly sexedOn: IsoDay | null;
  readonly identified: boolean;
  /** An identification that is not certain: how sure, and from which day; null otherwise. */
  readonly unsure: (AnimalDay['unsure'] & object) | null;
  /** Null for an animal without a tub. */
  readonly housing: Housing | null;
}

/** What the whole collection has in common: its rules, and what its records say of growth and appetite. */
export interface HerdBasis {
  readonly rules: FeedingRules;
  readonly saleRules: SaleRules;
  readonly plans: readonly FeedingPlan[];
  readonly growth: CollectionGrowth;
  readonly appetite: AppetiteBaseline;
}

/** What to know of an animal before touching it. */
export interface HandlingFlags extends Concerns, HealthFlags {
  'on-loan': Pick<LoanRecord, 'direction' | 'partner' | 'until'>;
  gravid: object;
  digesting: { daysSinceMeal: number };
  settling: { days: number };
}
export type HandlingFlag = FactOf<HandlingFlags>;

/** All that husbandry computes of one animal for one day. Masses in grams. */
export interface AnimalState {
  readonly weight: WeightRecord | null;
  /** What a weighing on this day should show; null where nothing is known to grow from. */
  readonly expected: ExpectedMass | null;
  /** How it stands to the growth curve: age in days, difference of the logarithm of mass. */
  readonly offCurve: { readonly age: number; readonly off: number } | null;
  readonly meal: Meal | null;
  readonly planId: string;
  readonly appetite: Appetite;
  readonly shed: ShedCycle | null;
  readonly soak: SoakPlan | null;
  readonly concerns: readonly Concern[];
  readonly health: HealthState;
  /** The breeding loan that runs. */
  readonly loan: LoanRecord | null;
  readonly advice: MoveAdvice;
  /** The tub it came from with its last move; null where there is none. */
  readonly movedFrom: string | null;
  readonly flags: readonly HandlingFlag[];
  readonly cleanedOn: IsoDay | null;
  readonly isCleaningDue: boolean;
  readonly nextWeighingOn: IsoDay | null;
  readonly lacks: readonly FactOf<SaleLacks>[];
  readonly tasks: readonly Task[];
}

const NO_ADVICE: MoveAdvice = { verdict: 'none', toStep: null, reasons: [] };

/**
 * Everything husbandry says of one animal on a day, from its records and what the collection has in common.
 *
 * @example animalState({ id: 'A', sex: 'female', hatchedOn: '2026-01-01', clutchId: null, weights: [], feedings: [], laidOn: [], history: { hatchedOn: '2026-01-01', weights: [], feedings: [], sheds: [], moves: [] }, gravid: false, sexedOn: null, identified: true, unsure: null, housing: null }, { rules: FEEDING_RULES, saleRules: SALE_RULES, plans: FEEDING_PLANS, growth: fitCollection([]), appetite: appetiteBaseline([], FEEDING_RULES) }, '2026-11-28').tasks.map(({ code }) => code) // ["first-weighing-due"]
 */
export function animalState(animal: KeptAnimal, basis: HerdBasis, today: IsoDay): AnimalState {
  const { history, gravid, sex, housing } = animal;
  const { rules, plans } = basis;
  const growth = Growth.knows(animal) ? new Growth(animal, basis.growth) : null;
  const loan = loanOn(history.loans ?? NO_LOANS, today);
  const away = isAway(loan);
  const meal = away ? null : nextMeal(history, today, { sex, gravid }, rules, plans);
  const found = concerns({ ...animal, lastSurprise: growth?.lastSurprise ?? null }, basis.appetite, today);
  const advice =
    housing && !away
      ? adviseMove(housing.steps, housing.step, history, today, { gravid, stepOf: housing.stepOf })
      : NO_ADVICE;
  const eating = appetite(history);
  const health = healthState(history.health ?? NO_HEALTH_RECORDS, today);
  return {
    weight: history.weights.at(-1) ?? null,
    expected: growth?.expected(today) ?? null,
    offCurve: growth?.offCurve(today) ?? null,
    meal,
    planId: planOf(history, plans).id,
    appetite: eating,
    shed: shedCycle(history, today),
    soak: soakPlan(history, today),
    concerns: found,
    health,
    loan,
    advice,
    movedFrom: history.moves.at(-1)?.fromTub ?? null,
    flags: [...healthFlags(health), ...loanFlags(loan), ...flagsOf(animal, eating, found, today)],
    cleanedOn: lastCare(history, 'cleaned', today)?.on ?? null,
    isCleaningDue: cleaningTasks(history, rules.cleanEveryDays, today).length > 0,
    nextWeighingOn: nextWeighing(history, health.courses),
    lacks: saleLacks(history, basis.saleRules),
    tasks: animalTasks(
      {
        history,
        sex: { sex, on: animal.sexedOn },
        identified: animal.identified,
        unsure: animal.unsure,
        advice,
        meal,
        concerns: found,
        health,
        loan,
        cleanEveryDays: rules.cleanEveryDays,
      },
      today,
    ),
  };
}

function loanFlags(loan: LoanRecord | null): HandlingFlag[] {
  if (!loan) return [];
  const { direction, partner, until } = loan;
  return [{ code: 'on-loan', facts: { direction, partner, until } }];
}

function flagsOf(
  { history, gravid }: KeptAnimal,
  { lastTakenOn }: Appetite,
  [concern]: readonly Concern[],
  today: IsoDay,
): HandlingFlag[] {
  const move = history.moves.findLast(({ fromTub }) => fromTub !== null);
  const sinceMove = move ? daysBetween(move.on, today) : Infinity;
  const sinceMeal = lastTakenOn ? daysBetween(lastTakenOn, today) : Infinity;
  return [
    ...(gravid ? [{ code: 'gravid', facts: {} } as const] : []),
    ...(sinceMeal < DIGESTING_DAYS
      ? [{ code: 'digesting', facts: { daysSinceMeal: sinceMeal } } as const]
      : []),
    ...(sinceMove < SETTLING_DAYS ? [{ code: 'settling', facts: { days: sinceMove } } as const] : []),
    ...(concern ? [concern] : []),
  ];
}
