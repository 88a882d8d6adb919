import { daysBetween, type IsoDay } from '../calendar/days.ts';
import { appetite, DIGESTING_DAYS, SETTLING_DAYS, type Appetite } from './appetite.ts';
import { lastCare, type History, type MoveRecord } from './history.ts';
import type { LadderStep } from './ladders.ts';
import { inShed } from './shed-state.ts';

/** One reason, the side it speaks for, the rule behind it, and the records it was read from. */
export interface Reason {
  readonly side: 'for' | 'against';
  readonly text: string;
  readonly rule: string;
  readonly records: readonly string[];
}

/** A reason that is weighed against others. */
export interface WeighedReason extends Reason {
  /** How much it counts, 1 to 4. */
  readonly weight: number;
  /** Whatever speaks for it: not now. */
  readonly blocks?: boolean;
}

/** `none`: nothing to say. `hold`: the weight asks for a move, something else speaks against it. */
export type MoveVerdict = 'move-up' | 'hold' | 'go-back' | 'none';

export interface MoveAdvice {
  readonly verdict: MoveVerdict;
  /** Index of the advised step on the ladder, for `move-up` and `hold`. */
  readonly toStep: number | null;
  readonly reasons: readonly WeighedReason[];
}

/** How a move turned out, judged by the meals after it. */
export type MoveOutcome = 'settling' | 'settled' | 'not-eating' | 'not-offered';

/* All limits below: common practice, no source. */
const STALE_WEIGHT_DAYS = 35;
const FAILED_MOVE_DAYS = 21;
const BOLD_MEALS = 8;
const BOLD_EARLY_SHARE = 0.9;
const SHY_SHARE = 0.7;
const SHY_LEEWAY = 1.2;
const GOOD_RUN = 3;
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

/** Judges one move: a meal taken after it settles it; three weeks of refusals say it was too early. */
export function judgeMove(move: MoveRecord, history: History, today: IsoDay): MoveOutcome {
  const next = history.moves.find((other) => other.on > move.on);
  const until = next?.on ?? today;
  const offers = history.feedings.filter(
    (offer) => offer.on >= move.on && offer.on <= until && offer.on !== next?.on,
  );
  if (offers.some((offer) => offer.taken)) return 'settled';
  const days = daysBetween(move.on, until);
  if (days < FAILED_MOVE_DAYS) return 'settling';
  return offers.length >= 2 ? 'not-eating' : 'not-offered';
}

/**
 * Whether an animal should move to the next enclosure of its ladder, with the reasons on both sides, weighed in the open:
 * the heavier side wins, and what blocks a move (in shed, just fed, settling, no fresh weight) blocks it whatever else.
 *
 * @param current - index of the step it lives on
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
  const con = reasonsAgainst(step, next, history, eating, today);
  const reasons = [
    pro,
    ...appetiteFor(history, eating),
    ...pushingFor(history, today),
    ...con,
    ...gravidReason(circumstances, current + 1 === steps.length - 1),
    ...retryReason(history, eating, current, circumstances),
  ];
  const sum = (side: Reason['side']): number =>
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
      text: `Pushes at its tub, seen on ${pushing.on}`,
      rule: 'One that pushes at the front or the sides has outgrown its tub.',
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
          text: 'Gravid: she takes the change best now',
          rule: 'The last tub is entered when gravid: she takes the change best then, and eats well after laying.',
          records: [],
          weight: 2,
        },
      ]
    : [
        {
          side: 'against',
          text: 'Gravid',
          rule: 'A gravid female is left alone, but for the move into the last tub.',
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
      text: `Taken back on ${move.on}: ${meals} meals and ${Math.round(gained)} g since, ${eating.inARow} in a row`,
      rule: `After going back, ${RETRY_MEALS} meals or about ${RETRY_G} g, then another try.`,
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
  const text = `No meal in the ${days} days since the move, ${refused.length} refused${losing ? ', and it loses weight' : ''}`;
  return {
    verdict: 'go-back',
    toStep: null,
    reasons: [
      {
        side: 'for',
        text,
        rule: `Two to three weeks without interest in food after a move: back to the last tub, more meals and about 100 g, then another try.`,
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
    const over = Math.round((weight.massG / step.maxG - 1) * 100);
    return {
      side: 'for',
      text: `${Math.round(weight.massG)} g, ${over === 0 ? 'just' : `${over}%`} over the ${step.maxG} g of the ${step.name}`,
      rule: `${step.name}: up to ${step.maxG} g; ${next.name}: from ${next.minG} g.`,
      records: [weight.id],
      weight: weight.massG > step.maxG * FAR_OVER ? 3 : 2,
    };
  }
  if (eating.inARow >= BOLD_MEALS && weight.massG >= step.maxG * BOLD_EARLY_SHARE) {
    return {
      side: 'for',
      text: `${Math.round(weight.massG)} g and a bold feeder, ${eating.inARow} meals in a row`,
      rule: `A bold feeder goes up early: from 90% of the step's ${step.maxG} g with ${BOLD_MEALS} meals in a row.`,
      records: [weight.id],
      weight: 2,
    };
  }
  return null;
}

function lastOffers(history: History, count: number): string[] {
  return history.feedings.slice(-count).map((offer) => offer.id);
}

function appetiteFor(history: History, eating: Appetite): WeighedReason[] {
  if (eating.inARow < GOOD_RUN) return [];
  return [
    {
      side: 'for',
      text: `Eats well: ${eating.inARow} meals in a row`,
      rule: `A run of ${GOOD_RUN} meals or more before a move.`,
      records: lastOffers(history, eating.inARow),
      weight: 1,
    },
  ];
}

function reasonsAgainst(
  step: LadderStep,
  next: LadderStep,
  history: History,
  eating: Appetite,
  today: IsoDay,
): WeighedReason[] {
  const weight = history.weights.at(-1)!;
  /** Blocks, unless it is given a weight to be weighed by. */
  const against = (
    when: boolean,
    text: string,
    rule: string,
    records: readonly string[],
    counts?: number,
  ): WeighedReason[] =>
    when
      ? [{ side: 'against', text, rule, records, weight: counts ?? 4, ...(counts ? {} : { blocks: true }) }]
      : [];
  const shed = inShed(history.sheds, today);
  const move = history.moves.findLast((record) => record.fromTub !== null);
  const sinceMove = move ? daysBetween(move.on, today) : Infinity;
  const sinceMeal = eating.lastTakenOn ? daysBetween(eating.lastTakenOn, today) : Infinity;
  const age = daysBetween(weight.on, today);
  const shy = eating.share !== null && eating.share < SHY_SHARE;
  const withinLeeway = step.maxG !== null && weight.massG <= step.maxG * SHY_LEEWAY;
  return [
    ...against(
      shed !== null,
      `In shed: ${shed?.stage}, day ${shed?.days}`,
      'No handling and no move while it sheds.',
      shed ? [shed.record] : [],
    ),
    ...against(
      sinceMeal < DIGESTING_DAYS,
      `Fed ${sinceMeal === 0 ? 'today' : 'yesterday'}`,
      'No handling for 48 hours after a meal.',
      lastOffers(history, 1),
    ),
    ...against(
      eating.refusedInARow >= 2,
      `Not eating: ${eating.refusedInARow} meals refused in a row`,
      'A snake that refuses stays where it is: a tub that is too big stops a young one from eating.',
      lastOffers(history, eating.refusedInARow),
      4,
    ),
    ...against(
      shy && eating.inARow >= GOOD_RUN && withinLeeway,
      `A shy feeder on a good run: ${eating.inARow} in a row, ${eating.takenEver} of ${eating.offeredEver} ever`,
      'A shy feeder on a good run is left where it is, up to 20% over the weight.',
      lastOffers(history, eating.inARow),
      4,
    ),
    ...against(
      next.mealsBefore !== undefined && eating.inARow < next.mealsBefore,
      `${eating.inARow} of the ${next.mealsBefore} meals in a row that the ${next.name} asks for`,
      `${next.name}: after ${next.mealsBefore} meals in a row.`,
      lastOffers(history, Math.max(1, eating.inARow)),
    ),
    ...against(
      sinceMove < SETTLING_DAYS,
      `Moved ${sinceMove} days ago`,
      'One or two weeks to settle after a move.',
      move ? [move.id] : [],
    ),
    ...against(
      age > STALE_WEIGHT_DAYS,
      `Last weighed ${age} days ago: weigh it first`,
      'A weight before a move, not older than five weeks.',
      [weight.id],
    ),
  ];
}
