import { daysBetween, type IsoDay } from '../calendar/days.ts';
import type { History, MoveRecord } from './history.ts';

/** How a move turned out, judged by the meals after it. */
export type MoveOutcome = 'settling' | 'settled' | 'not-eating' | 'not-offered';

export const FAILED_MOVE_DAYS = 21;

/**
 * Judges one move: a meal taken after it settles it; three weeks of refusals say it was too early.
 *
 * @example judgeMove({ id: 'm', on: '2026-11-27', fromTub: 'T1', toTub: 'T2' }, { moves: [], feedings: [] }, '2026-11-28') // "settling"
 */
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
