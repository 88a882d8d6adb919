import { daysBetween, type IsoDay } from '../calendar/days.ts';
import type { FactOf } from '../facts.ts';
import { MEAL_IN_DAYS, informativeOffers, type FastingSeason } from './appetite.ts';
import type { History, WeightRecord } from './history.ts';

/** What is out of the ordinary, with the limit it crossed. Masses in grams, shares and chances from 0 to 1. */
export interface Concerns {
  readonly 'below-own-best': {
    readonly massG: number;
    readonly bestG: number;
    readonly bestOn: IsoDay;
    readonly loss: number;
    readonly limit: number;
  };
  /** `deviations`: standard deviations below what growth let expect. */
  readonly 'below-growth': { readonly massG: number; readonly deviations: number };
  /** `chance`: that an animal like it refuses so many in a row. */
  readonly 'meals-refused': { readonly refused: number; readonly days: number; readonly chance: number };
  readonly 'regurgitated-again': { readonly times: number; readonly days: number };
}

/** Something out of the ordinary that a keeper should look at. Says what was seen, never what it is. */
export type Concern = FactOf<Concerns> & {
  readonly since: IsoDay;
  readonly records: readonly string[];
};

/** An animal as concern reads it. */
export interface Watched {
  readonly history: History;
  readonly sex: 'female' | 'male' | 'unknown';
  readonly gravid: boolean;
  readonly laidOn: readonly IsoDay[];
  /** Of its last weight: standard deviations off what its growth lets expect; null where that is not known. */
  readonly lastSurprise: number | null;
}

/* Loss against its own best weight. Common practice, no source. */
const YOUNG_LOSS = 0.1;
const GROWN_LOSS = 0.15;
const YOUNG_DAYS = 365;
/** So far below what was expected: about one weight in a thousand of a healthy animal. */
const SURPRISE_Z = -3.1;
/** A run of refusals is worth a word where so few of its like would have one as long by chance. */
const RARE_RUN = 1 / 1000;
const RUN_DAYS = 21;
const REGURGITATION_DAYS = 90;
/** A weight older than this says nothing about now. */
const STALE_DAYS = 60;

/** How often animals of an age, sex and time of year take what they are offered, counted over the collection. */
export interface AppetiteBaseline {
  readonly cells: ReadonlyMap<string, { readonly taken: number; readonly offered: number }>;
  readonly season: FastingSeason;
}

/** A collection nobody has fed yet takes nine of ten. Common practice, no source. */
const USUAL = { taken: 9, offered: 10 };
/** The cell's rate counts as so many of the animal's own offers. */
const CELL_OFFERS = 6;
const GROWN_DAYS = 900;

function cellOf(watched: Pick<Watched, 'history' | 'sex'>, on: IsoDay, season: FastingSeason): string {
  const { hatchedOn } = watched.history;
  const age = hatchedOn === null ? GROWN_DAYS : daysBetween(hatchedOn, on);
  if (age < 180) return 'hatchling';
  if (age < GROWN_DAYS) return 'growing';
  const inSeason = season.fastMonths.includes(Number(on.slice(5, 7)));
  return `${watched.sex}${inSeason ? ', in the season' : ''}`;
}

/** @example appetiteBaseline([], { adultG: 1500, fastMonths: [] }).cells.size // 0 */
export function appetiteBaseline(
  animals: readonly Pick<Watched, 'history' | 'sex'>[],
  season: FastingSeason,
): AppetiteBaseline {
  const cells = new Map<string, { taken: number; offered: number }>();
  for (const animal of animals) {
    for (const offer of informativeOffers(animal.history)) {
      const key = cellOf(animal, offer.on, season);
      const cell = cells.get(key) ?? { ...USUAL };
      cells.set(key, { taken: cell.taken + Number(offer.taken), offered: cell.offered + 1 });
    }
  }
  return { cells, season };
}

/**
 * What is out of the ordinary about an animal on a day; usually nothing.
 *
 * @example concerns({ history: { hatchedOn: null, weights: [], feedings: [], sheds: [], moves: [] }, sex: 'female', gravid: false, laidOn: [], lastSurprise: null }, appetiteBaseline([], { adultG: 1500, fastMonths: [] }), '2026-11-28') // []
 */
export function concerns(watched: Watched, baseline: AppetiteBaseline, day: IsoDay): Concern[] {
  return [
    ...weightConcern(watched, baseline.season, day),
    ...curveConcern(watched, day),
    ...mealsConcern(watched, baseline, day),
    ...regurgitationConcern(watched.history, day),
  ];
}

function isYoung(history: History, day: IsoDay): boolean {
  return history.hatchedOn !== null && daysBetween(history.hatchedOn, day) < YOUNG_DAYS;
}

function isFasting(history: History, season: FastingSeason, day: IsoDay): boolean {
  const mass = history.weights.at(-1)?.massG ?? 0;
  return mass >= season.adultG && season.fastMonths.includes(Number(day.slice(5, 7)));
}

function weightConcern(watched: Watched, season: FastingSeason, day: IsoDay): Concern[] {
  const { history, gravid } = watched;
  const last = history.weights.at(-1);
  if (!last || gravid || daysBetween(last.on, day) > STALE_DAYS) return [];
  if (isFasting(history, season, last.on)) return [];
  const laid = watched.laidOn.findLast((on) => on <= day);
  // Eggs are not a loss: after a laying her best is counted anew.
  const comparable = history.weights.filter(
    (weight) => (laid === undefined || weight.on > laid) && !holdsMeal(history, weight),
  );
  const best = comparable.reduce<WeightRecord | null>(
    (a, b) => (a === null || b.massG > a.massG ? b : a),
    null,
  );
  if (!best) return [];
  const limit = isYoung(history, day) ? YOUNG_LOSS : GROWN_LOSS;
  const loss = 1 - last.massG / best.massG;
  if (loss < limit) return [];
  return [
    {
      code: 'below-own-best',
      facts: { massG: last.massG, bestG: best.massG, bestOn: best.on, loss, limit },
      since: last.on,
      records: [best.id, last.id],
    },
  ];
}

function holdsMeal(history: History, weight: WeightRecord): boolean {
  return history.feedings.some(({ taken, on }) => {
    const days = daysBetween(on, weight.on);
    return taken && days >= 0 && days < MEAL_IN_DAYS;
  });
}

function curveConcern({ history, lastSurprise, gravid }: Watched, day: IsoDay): Concern[] {
  const last = history.weights.at(-1);
  if (!last || gravid || lastSurprise === null || lastSurprise > SURPRISE_Z) return [];
  if (daysBetween(last.on, day) > STALE_DAYS) return [];
  return [
    {
      code: 'below-growth',
      facts: { massG: last.massG, deviations: -lastSurprise },
      since: last.on,
      records: [last.id],
    },
  ];
}

function mealsConcern(watched: Watched, baseline: AppetiteBaseline, day: IsoDay): Concern[] {
  const { history } = watched;
  if (watched.gravid) return [];
  const offers = informativeOffers(history, baseline.season).filter(({ on }) => on <= day);
  const lastTaken = offers.findLastIndex(({ taken }) => taken);
  const run = offers.slice(lastTaken + 1);
  const since = offers[lastTaken]?.on ?? run[0]?.on;
  if (run.length === 0 || since === undefined || daysBetween(since, day) < RUN_DAYS) return [];
  const before = offers.slice(0, lastTaken + 1);
  const cell = baseline.cells.get(cellOf(watched, run[0]!.on, baseline.season)) ?? USUAL;
  // Taken and offered as of an animal like it, and its own before the run: what is unusual for it.
  let refused = CELL_OFFERS * (1 - cell.taken / cell.offered) + before.filter(({ taken }) => !taken).length;
  let offered = CELL_OFFERS + before.length;
  let chance = 1;
  for (let i = 0; i < run.length; i++) {
    chance *= refused / offered;
    refused += 1;
    offered += 1;
  }
  if (chance >= RARE_RUN) return [];
  return [
    {
      code: 'meals-refused',
      facts: { refused: run.length, days: daysBetween(since, day), chance },
      since: run.at(-1)!.on,
      records: run.map(({ id }) => id),
    },
  ];
}

function regurgitationConcern(history: History, day: IsoDay): Concern[] {
  const recent = (history.care ?? []).filter(
    ({ act, on }) => act === 'regurgitated' && on <= day && daysBetween(on, day) <= REGURGITATION_DAYS,
  );
  if (recent.length < 2) return [];
  return [
    {
      code: 'regurgitated-again',
      facts: { times: recent.length, days: daysBetween(recent[0]!.on, day) },
      since: recent.at(-1)!.on,
      records: recent.map(({ id }) => id),
    },
  ];
}
