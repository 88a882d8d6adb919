import { daysBetween } from '../calendar/days.ts';
import type { History } from '../husbandry/history.ts';
import { informativeOffers, type FastingSeason } from '../husbandry/appetite.ts';
import { shareOf, type Share } from '../numeric/interval.ts';

export type WorkedBy = 'step' | 'prey' | 'state' | 'light' | 'tub' | 'substrate';

export interface Worked extends Share {
  readonly by: WorkedBy;
  /** "rat pup", "live", the id of the kind of tub */
  readonly value: string;
}

/** An animal's record as this reads it: which kind of tub each tub id is. */
export interface WorkedSubject {
  readonly history: History;
  /** Tub id -> the kind of tub, in words; tubs that are gone may be missing. */
  readonly kindOfTub: ReadonlyMap<string, string>;
}

/**
 * Meals taken of those offered, by what was done: the step, the prey, live or thawed, light, kind of tub, substrate. Offers
 * in shed and while settling after a move are left out.
 *
 * @returns each value that was offered at least once, most offers first, with its 95% interval
 * @example whatWorked([{ history: { feedings: [{ id: 'f', on: '2026-11-01', taken: true, light: 'dark' }], weights: [], sheds: [], moves: [] }, kindOfTub: new Map() }]).map(({ by, value }) => [by, value]) // [["light", "dark"]]
 */
export function whatWorked(subjects: readonly WorkedSubject[], season?: FastingSeason): Worked[] {
  const counts = new Map<string, { by: WorkedBy; value: string; taken: number; of: number }>();
  for (const { history, kindOfTub } of subjects) {
    for (const offer of informativeOffers(history, season)) {
      const move = history.moves.findLast(({ on }) => on <= offer.on);
      const tub = move?.toTub ? kindOfTub.get(move.toTub) : undefined;
      const values: [WorkedBy, string | undefined][] = [
        ['step', offer.step],
        ['prey', offer.species && offer.size ? `${offer.species} ${offer.size}` : undefined],
        ['state', offer.state],
        ['light', offer.light],
        ['tub', tub],
        ['substrate', move?.substrate || undefined],
      ];
      for (const [by, value] of values) {
        if (value === undefined) continue;
        const key = `${by}|${value}`;
        const count = counts.get(key) ?? { by, value, taken: 0, of: 0 };
        counts.set(key, { ...count, taken: count.taken + Number(offer.taken), of: count.of + 1 });
      }
    }
  }
  return [...counts.values()]
    .map(({ by, value, taken, of }) => ({ by, value, ...shareOf(taken, of) }))
    .toSorted((a, b) => b.of - a.of || (a.value < b.value ? -1 : 1));
}

/**
 * Days between meals taken, in order.
 *
 * @example mealIntervals({ feedings: [{ on: '2026-11-01', taken: true }, { on: '2026-11-05', taken: false }, { on: '2026-11-08', taken: true }] }) // [7]
 */
export function mealIntervals(history: History): number[] {
  const taken = history.feedings.filter((offer) => offer.taken);
  return taken.slice(1).map((offer, i) => daysBetween(taken[i]!.on, offer.on));
}
