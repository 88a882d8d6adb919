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

/** Meals offered and taken under one circumstance. */
export interface WorkedTally {
  readonly by: WorkedBy;
  readonly value: string;
  readonly taken: number;
  readonly of: number;
}

/**
 * Counts meals taken of those offered, by what was done: the step, the prey, live or thawed, light, kind of tub, substrate.
 * Offers in shed and while settling after a move are left out.
 *
 * @example tallyWorked([{ history: { feedings: [{ id: 'f', on: '2026-11-01', taken: true, light: 'dark' }], weights: [], sheds: [], moves: [] }, kindOfTub: new Map() }]) // [{"by": "light", "value": "dark", "taken": 1, "of": 1}]
 */
export function tallyWorked(subjects: readonly WorkedSubject[], season?: FastingSeason): WorkedTally[] {
  const counts = new Map<string, WorkedTally>();
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
      for (const [by, value] of values)
        if (value !== undefined) add(counts, { by, value, taken: Number(offer.taken), of: 1 });
    }
  }
  return [...counts.values()];
}

function add(counts: Map<string, WorkedTally>, { by, value, taken, of }: WorkedTally): void {
  const key = `${by}|${value}`;
  const known = counts.get(key) ?? { by, value, taken: 0, of: 0 };
  counts.set(key, { by, value, taken: known.taken + taken, of: known.of + of });
}

/**
 * What worked, by tallies of animals or of groups of them.
 *
 * @returns each value that was offered at least once, most offers first, with its 95% interval
 * @example whatWorked([{ by: 'light', value: 'dark', taken: 1, of: 2 }, { by: 'light', value: 'dark', taken: 1, of: 1 }]).map(({ by, value, of }) => [by, value, of]) // [["light", "dark", 3]]
 */
export function whatWorked(tallies: readonly WorkedTally[]): Worked[] {
  const counts = new Map<string, WorkedTally>();
  for (const tally of tallies) add(counts, tally);
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
