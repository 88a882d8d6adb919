import { daysBetween, type IsoDay } from '../calendar/days.ts';
import { appetite, type Appetite } from './appetite.ts';
import { lastCare, type History } from './history.ts';
import { judgeMove } from './judge-move.ts';
import type { LadderStep } from './ladders.ts';
import type { WeighedReason } from './move-reasons.ts';
import { GOOD_RUN, lastOffers, reasonsToStay } from './reasons-to-stay.ts';

/** `none`: nothing to say. `hold`: the weight asks for a move, something else counts against it. */
export type MoveVerdict = 'move-up' | 'hold' | 'go-back' | 'none';

export interface MoveAdvice {
  readonly verdict: MoveVerdict;
  /** Index of the advised step on the ladder, for `move-up` and `hold`. */
  readonly toStep: number | null;
  readonly reasons: readonly WeighedReason[];
}

/* All limits below: common practice, no source. */
const BOLD_MEALS = 8;

const BOLD_EARLY_SHARE = 0.9;

const FAR_OVER = 1.2;

/** Losing weight after a move, it goes back this early. */
const FAILED_AND_LOSING_DAYS = 14;

/** After going back: so many meals, or so many grams, before another try. */
const RETRY_MEALS = 4;

const RETRY_G = 100;

const PUSHING_DAYS = 21;

/** What advice needs besides the records. */
export interface MoveCircumstances {
  readonly gravid: boolean;
  /** The step of the ladder that a tub stands on; null for one that is gone or on another ladder. */
  readonly stepOf: (tubId: string) => number | null;
}

const NOTHING_KNOWN: MoveCircumstances = { gravid: false, stepOf: () => null };

/**
 * Whether an animal should move to the next enclosure of its ladder, with the reasons on both sides, weighed in the open:
 * the heavier side wins, and what blocks a move (in shed, just fed, settling, no fresh weight) blocks it whatever else.
 *
 * @param current - index of the step it lives on
 * @example adviseMove([{ name: 'Small', minG: 0, maxG: 300, inside: '' }, { name: 'Large', minG: 250, maxG: null, inside: '' }], 0, { hatchedOn: null, weights: [], feedings: [], sheds: [], moves: [] }, '2026-11-28').verdict // "none"
 */
export function adviseMove(
  steps: readonly LadderStep[],
  current: number,
  history: History,
  today: IsoDay,
  circumstances: MoveCircumstances = NOTHING_KNOWN,
): MoveAdvice {
  const back = adviseBack(history, today, current, circumstances);
  if (back) return back;
  const ladderStep = steps[current];
  const next = steps[current + 1];
  const weight = history.weights.at(-1);
  if (!ladderStep || !next || !weight) return { verdict: 'none', toStep: null, reasons: [] };
  const own = history.own?.stayUntilG;
  const step = own === undefined ? ladderStep : { ...ladderStep, maxG: own };
  const eating = appetite(history);
  const pro = weightReason(step, next, weight, eating);
  if (!pro) return { verdict: 'none', toStep: null, reasons: [] };
  const con = reasonsToStay({ step, next, history, eating, today });
  const reasons = [
    pro,
    ...appetiteFor(history, eating),
    ...pushingFor(history, today),
    ...con,
    ...gravidReason(circumstances, current + 1 === steps.length - 1),
    ...retryReason(history, eating, current, circumstances),
  ];
  const sum = (side: WeighedReason['side']): number =>
    reasons.reduce((total, reason) => total + (reason.side === side ? reason.weight : 0), 0);
  const blocked = reasons.some((reason) => reason.blocks);
  return {
    verdict: blocked || sum('against') > sum('for') ? 'hold' : 'move-up',
    toStep: current + 1,
    reasons,
  };
}

function pushingFor(history: History, today: IsoDay): WeighedReason[] {
  const pushing = lastCare(history, 'pushing', today);
  if (!pushing || daysBetween(pushing.on, today) > PUSHING_DAYS) return [];
  return [
    {
      side: 'for',
      code: 'pushes-at-tub',
      facts: { seenOn: pushing.on },
      records: [pushing.id],
      weight: 2,
    },
  ];
}

function gravidReason({ gravid }: MoveCircumstances, intoLast: boolean): WeighedReason[] {
  if (!gravid) return [];
  return intoLast
    ? [
        {
          side: 'for',
          code: 'gravid-takes-change',
          facts: {},
          records: [],
          weight: 2,
        },
      ]
    : [
        {
          side: 'against',
          code: 'gravid',
          facts: {},
          records: [],
          weight: 3,
          blocks: true,
        },
      ];
}

/** It was taken back from a larger tub: more meals or more grams first. */
function retryReason(
  history: History,
  eating: Appetite,
  current: number,
  { stepOf }: MoveCircumstances,
): WeighedReason[] {
  const move = history.moves.at(-1);
  const from = move?.fromTub ? stepOf(move.fromTub) : null;
  if (!move || from === null || from <= current) return [];
  const then = history.weights.findLast(({ on }) => on <= move.on);
  const gained = then ? history.weights.at(-1)!.massG - then.massG : 0;
  const meals = history.feedings.filter((offer) => offer.taken && offer.on > move.on).length;
  if (meals >= RETRY_MEALS || gained >= RETRY_G) return [];
  return [
    {
      side: 'against',
      code: 'moved-back-recently',
      facts: {
        on: move.on,
        meals,
        gainedG: gained,
        mealsInARow: eating.inARow,
        retryMeals: RETRY_MEALS,
        retryG: RETRY_G,
      },
      records: [move.id],
      weight: 4,
      blocks: true,
    },
  ];
}

function adviseBack(
  history: History,
  today: IsoDay,
  current: number,
  { stepOf }: MoveCircumstances,
): MoveAdvice | null {
  const move = history.moves.at(-1);
  if (!move?.fromTub) return null;
  const from = stepOf(move.fromTub);
  // One that came down the ladder is where it was to go.
  if (from !== null && from >= current) return null;
  const refused = history.feedings.filter((offer) => offer.on >= move.on);
  const days = daysBetween(move.on, today);
  const losing = refused.length >= 2 && days >= FAILED_AND_LOSING_DAYS && losesSince(history, move.on);
  const outcome = judgeMove(move, history, today);
  if (outcome !== 'not-eating' && !(outcome === 'settling' && losing)) return null;
  return {
    verdict: 'go-back',
    toStep: null,
    reasons: [
      {
        side: 'for',
        code: 'not-eating-since-move',
        facts: { days, refused: refused.length, losesMass: losing, retryG: RETRY_G },
        records: [move.id, ...refused.map((offer) => offer.id)],
        weight: 4,
      },
    ],
  };
}

function losesSince(history: History, on: IsoDay): boolean {
  const before = history.weights.findLast((weight) => weight.on <= on);
  const last = history.weights.at(-1);
  return before !== undefined && last !== undefined && last.on > on && last.massG < before.massG * 0.98;
}

function weightReason(
  step: LadderStep,
  next: LadderStep,
  weight: { id: string; massG: number },
  eating: Appetite,
): WeighedReason | null {
  if (step.maxG === null || weight.massG < next.minG) return null;
  if (weight.massG > step.maxG) {
    return {
      side: 'for',
      code: 'over-step-mass',
      facts: {
        massG: weight.massG,
        step: step.name,
        maxG: step.maxG,
        nextStep: next.name,
        nextMinG: next.minG,
      },
      records: [weight.id],
      weight: weight.massG > step.maxG * FAR_OVER ? 3 : 2,
    };
  }
  if (eating.inARow >= BOLD_MEALS && weight.massG >= step.maxG * BOLD_EARLY_SHARE) {
    return {
      side: 'for',
      code: 'bold-feeder',
      facts: {
        massG: weight.massG,
        maxG: step.maxG,
        mealsInARow: eating.inARow,
        neededMeals: BOLD_MEALS,
        fromShare: BOLD_EARLY_SHARE,
      },
      records: [weight.id],
      weight: 2,
    };
  }
  return null;
}

function appetiteFor(history: History, eating: Appetite): WeighedReason[] {
  if (eating.inARow < GOOD_RUN) return [];
  return [
    {
      side: 'for',
      code: 'eats-well',
      facts: { mealsInARow: eating.inARow, neededMeals: GOOD_RUN },
      records: lastOffers(history, eating.inARow),
      weight: 1,
    },
  ];
}
