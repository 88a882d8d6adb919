import { daysBetween, type IsoDay } from '../calendar/days.ts';
import { appetite, SETTLING_DAYS, type Appetite } from './appetite.ts';
import type { History, MoveRecord } from './history.ts';
import type { LadderStep } from './ladders.ts';
import { inShed } from './shed-state.ts';

/** One reason, the side it speaks for, the rule behind it, and the records it was read from. */
export interface Reason {
  readonly side: 'for' | 'against';
  readonly text: string;
  readonly rule: string;
  readonly records: readonly string[];
}

/** `none`: nothing to say. `hold`: the weight asks for a move, something else speaks against it. */
export type MoveVerdict = 'move-up' | 'hold' | 'go-back' | 'none';

export interface MoveAdvice {
  readonly verdict: MoveVerdict;
  /** Index of the advised step on the ladder, for `move-up` and `hold`. */
  readonly toStep: number | null;
  readonly reasons: readonly Reason[];
}

/** How a move turned out, judged by the meals after it. */
export type MoveOutcome = 'settling' | 'settled' | 'not-eating' | 'not-offered';

/* All limits below: common practice, no source. */
const STALE_WEIGHT_DAYS = 35;
const DIGESTING_DAYS = 2;
const FAILED_MOVE_DAYS = 21;
const BOLD_MEALS = 8;
const BOLD_EARLY_SHARE = 0.9;
const SHY_SHARE = 0.7;
const SHY_LEEWAY = 1.2;
const GOOD_RUN = 3;

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
 * Whether an animal should move to the next enclosure of its ladder, with the reasons on both sides.
 *
 * @param current - index of the step it lives on
 */
export function adviseMove(
  steps: readonly LadderStep[],
  current: number,
  history: History,
  today: IsoDay,
): MoveAdvice {
  const back = adviseBack(history, today);
  if (back) return back;
  const step = steps[current];
  const next = steps[current + 1];
  const weight = history.weights.at(-1);
  if (!step || !next || !weight) return { verdict: 'none', toStep: null, reasons: [] };
  const eating = appetite(history);
  const pro = weightReason(step, next, weight, eating);
  if (!pro) return { verdict: 'none', toStep: null, reasons: [] };
  const con = reasonsAgainst(step, next, history, eating, today);
  const forIt = [pro, ...appetiteFor(history, eating)];
  return {
    verdict: con.length > 0 ? 'hold' : 'move-up',
    toStep: current + 1,
    reasons: [...forIt, ...con],
  };
}

function adviseBack(history: History, today: IsoDay): MoveAdvice | null {
  const move = history.moves.at(-1);
  if (!move?.fromTub || judgeMove(move, history, today) !== 'not-eating') return null;
  const refused = history.feedings.filter((offer) => offer.on >= move.on);
  const text = `No meal in the ${daysBetween(move.on, today)} days since the move, ${refused.length} refused`;
  return {
    verdict: 'go-back',
    toStep: null,
    reasons: [
      {
        side: 'for',
        text,
        rule: `Two to three weeks without interest in food after a move: back to the last tub, more meals and about 100 g, then another try.`,
        records: [move.id, ...refused.map((offer) => offer.id)],
      },
    ],
  };
}

function weightReason(
  step: LadderStep,
  next: LadderStep,
  weight: { id: string; massG: number },
  eating: Appetite,
): Reason | null {
  if (step.maxG === null || weight.massG < next.minG) return null;
  if (weight.massG > step.maxG) {
    const over = Math.round((weight.massG / step.maxG - 1) * 100);
    return {
      side: 'for',
      text: `${Math.round(weight.massG)} g, ${over === 0 ? 'just' : `${over}%`} over the ${step.maxG} g of the ${step.name}`,
      rule: `${step.name}: up to ${step.maxG} g; ${next.name}: from ${next.minG} g.`,
      records: [weight.id],
    };
  }
  if (eating.inARow >= BOLD_MEALS && weight.massG >= step.maxG * BOLD_EARLY_SHARE) {
    return {
      side: 'for',
      text: `${Math.round(weight.massG)} g and a bold feeder, ${eating.inARow} meals in a row`,
      rule: `A bold feeder goes up early: from 90% of the step's ${step.maxG} g with ${BOLD_MEALS} meals in a row.`,
      records: [weight.id],
    };
  }
  return null;
}

function lastOffers(history: History, count: number): string[] {
  return history.feedings.slice(-count).map((offer) => offer.id);
}

function appetiteFor(history: History, eating: Appetite): Reason[] {
  if (eating.inARow < GOOD_RUN) return [];
  return [
    {
      side: 'for',
      text: `Eats well: ${eating.inARow} meals in a row`,
      rule: `A run of ${GOOD_RUN} meals or more before a move.`,
      records: lastOffers(history, eating.inARow),
    },
  ];
}

function reasonsAgainst(
  step: LadderStep,
  next: LadderStep,
  history: History,
  eating: Appetite,
  today: IsoDay,
): Reason[] {
  const weight = history.weights.at(-1)!;
  const against = (when: boolean, text: string, rule: string, records: readonly string[]): Reason[] =>
    when ? [{ side: 'against', text, rule, records }] : [];
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
    ),
    ...against(
      shy && eating.inARow >= GOOD_RUN && withinLeeway,
      `A shy feeder on a good run: ${eating.inARow} in a row, ${eating.takenEver} of ${eating.offeredEver} ever`,
      'A shy feeder on a good run is left where it is, up to 20% over the weight.',
      lastOffers(history, eating.inARow),
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
