import { daysBetween, type IsoDay } from '../calendar/days.ts';
import { kaplanMeier, medianWait, type Duration, type SurvivalStep } from '../survival/kaplan-meier.ts';
import { fitHazards, type HazardFit } from '../survival/proportional-hazards.ts';
import type { History, MoveRecord } from './history.ts';
import { judgeMove } from './judge-move.ts';

/** One move to a larger tub, and how long it was to the next meal. */
export interface MoveEpisode extends Duration {
  readonly move: string;
  /** The kind of tub it came into, in words. */
  readonly into: string;
  /** Grams at the move, as a multiple of what the kind of tub begins at; null where either is not known. */
  readonly ratio: number | null;
  readonly wentBack: boolean;
}

export interface TubKind {
  readonly name: string;
  readonly ladderId: string;
  readonly step: number;
  readonly minG: number;
}

/**
 * Moves up a ladder, each watched until a meal, the next move, or today.
 *
 * @example moveEpisodes({ hatchedOn: null, weights: [], feedings: [], sheds: [], moves: [] }, () => undefined, '2026-11-28') // []
 */
export function moveEpisodes(
  history: History,
  kindOf: (tubId: string) => TubKind | undefined,
  today: IsoDay,
): MoveEpisode[] {
  return history.moves.flatMap((move, i): MoveEpisode[] => {
    const from = move.fromTub === null ? undefined : kindOf(move.fromTub);
    const into = move.toTub === null ? undefined : kindOf(move.toTub);
    if (!from || !into || from.ladderId !== into.ladderId || into.step <= from.step) return [];
    const next = history.moves[i + 1];
    const until = next?.on ?? today;
    const meal = history.feedings.find(({ taken, on }) => taken && on >= move.on && on <= until);
    return [
      {
        move: move.id,
        into: into.name,
        days: daysBetween(move.on, meal?.on ?? until),
        came: meal !== undefined,
        ratio: ratioAt(history, move, into),
        wentBack: wasTakenBack(next, kindOf, into) || judgeMove(move, history, today) === 'not-eating',
      },
    ];
  });
}

function ratioAt(history: History, move: MoveRecord, into: TubKind): number | null {
  const weight = history.weights.findLast(({ on }) => on <= move.on);
  return weight && into.minG > 0 ? weight.massG / into.minG : null;
}

function wasTakenBack(
  next: MoveRecord | undefined,
  kindOf: (tubId: string) => TubKind | undefined,
  into: TubKind,
): boolean {
  const then = next?.toTub ? kindOf(next.toTub) : undefined;
  return then !== undefined && then.ladderId === into.ladderId && then.step < into.step;
}

export interface LearnedMoves {
  readonly into: string;
  readonly moves: number;
  readonly wentBack: number;
  /** The day by which half had eaten. */
  readonly medianDays: number | null;
  readonly steps: readonly SurvivalStep[];
}

/** Fewer moves say nothing about what weight does. */
const ENOUGH_MOVES = 12;

/**
 * What became of moves in this collection, by the kind of tub, and whether heavier ones eat sooner.
 *
 * @example learnFromMoves([]) // {"kinds": [], "byWeight": null}
 */
export function learnFromMoves(episodes: readonly MoveEpisode[]): {
  kinds: LearnedMoves[];
  byWeight: HazardFit | null;
} {
  const kinds = [...new Set(episodes.map(({ into }) => into))].map((into): LearnedMoves => {
    const own = episodes.filter((episode) => episode.into === into);
    const steps = kaplanMeier(own);
    return {
      into,
      moves: own.length,
      wentBack: own.filter(({ wentBack }) => wentBack).length,
      medianDays: medianWait(steps),
      steps,
    };
  });
  const weighed = episodes.filter((episode) => episode.ratio !== null);
  const byWeight =
    weighed.length < ENOUGH_MOVES
      ? null
      : fitHazards(weighed.map(({ days, came, ratio }) => ({ days, came, x: [ratio! - 1] })));
  return { kinds: kinds.toSorted((a, b) => b.moves - a.moves), byWeight };
}
