import { seededRandom } from '../numeric/random.ts';

/** A kind of tub: a step of a ladder, with the places the room has for it. */
export interface RoomKind {
  readonly key: string;
  readonly name: string;
  readonly places: number;
  /** Outgrown above this mass, grams; null: never. */
  readonly maxG: number | null;
  /** The kind that comes after it; null: the last. */
  readonly next: string | null;
}

/** An animal of the room, as the forecast sees it. */
export interface RoomAnimal {
  readonly kind: string;
  /** Logarithm of its mass at the end of each week, and its standard deviation. */
  readonly mean: readonly number[];
  readonly sd: readonly number[];
  /** The week from which it may be sold; null: it stays. */
  readonly forSaleFrom: number | null;
}

/** A clutch that will need places. */
export interface ComingClutch {
  /** Days from today to hatching, and their standard deviation. */
  readonly hatchInDays: number;
  readonly sdDays: number;
  readonly eggs: number;
  /** Chance of each egg to become a hatchling, 0 to 1. */
  readonly hatchShare: number;
  /** Chance that the clutch comes at all. */
  readonly chance: number;
}

export interface RoomQuestion {
  readonly kinds: readonly RoomKind[];
  readonly animals: readonly RoomAnimal[];
  readonly clutches: readonly ComingClutch[];
  /** Kind of tub for hatchlings, and their logarithm of mass by week of age. */
  readonly hatchlingKind: string;
  readonly hatchling: { readonly mean: readonly number[]; readonly sd: readonly number[] };
  /** Hatchlings may be sold from this week of their life on. */
  readonly saleAgeWeeks: number;
  /** The share of those for sale that leaves in a week, 0 to 1. */
  readonly salePace: number;
  /** The share of hatchlings that is held back for good, 0 to 1. */
  readonly heldBack: number;
  readonly weeks: number;
  readonly runs: number;
  readonly seed: number;
}

export interface RoomWeek {
  /** Places needed: one run in twenty lies below the first, one above the last. */
  readonly low: number;
  readonly mid: number;
  readonly high: number;
  readonly mean: number;
  /** Chance that the places do not suffice. */
  readonly over: number;
}

export interface RoomKindForecast {
  readonly key: string;
  readonly name: string;
  readonly places: number;
  readonly weeks: readonly RoomWeek[];
  /** The first week in which it tips over in more than half of the runs; null: none. */
  readonly tipsOver: number | null;
  /** The first week with more than one chance in ten of it. */
  readonly risky: number | null;
  /** Places that would suffice all along in nine of ten runs, less those there are; at least 0. */
  readonly missing: number;
}

export interface RoomForecast {
  readonly kinds: readonly RoomKindForecast[];
  readonly runs: number;
}

const LIKELY = 0.5;
const RISKY = 0.1;
/** A week that does not come; a whole number, as weeks index arrays. */
const NEVER = 1 << 20;

/**
 * Week by week, how many places of each kind of tub are needed: animals grow out of theirs, are sold, clutches hatch.
 *
 * An animal's whole path is drawn by one deviate: a fast one stays fast. It moves on in the week in which it outgrows its
 * tub. Of those for sale a constant share leaves in a week.
 *
 * @param onProgress - is called with the share done, 0 to 1, now and then; returning false ends it early
 * Cost: runs x (animals + hatchlings) x steps of the ladder.
 * @example simulateRoom({ kinds: [], animals: [], clutches: [], hatchlingKind: 'tub', hatchling: { mean: [], sd: [] }, saleAgeWeeks: 8, salePace: 0.2, heldBack: 0.1, weeks: 2, runs: 10, seed: 1 }).kinds // []
 */
export function simulateRoom(
  question: RoomQuestion,
  onProgress: (share: number) => boolean | void = () => undefined,
): RoomForecast | null {
  const { kinds, weeks, runs, salePace } = question;
  const at = new Map(kinds.map(({ key }, i) => [key, i]));
  const random = seededRandom(question.seed);
  // counts[kind][week * runs + run]
  const counts = kinds.map(() => new Uint16Array(weeks * runs));
  const animals = question.animals.map(({ kind, mean, sd, forSaleFrom }) => ({
    kind: at.get(kind)!,
    forSaleFrom,
    leaves: kinds.map(({ maxG }) => thresholds(mean, sd, maxG)),
  }));
  const firstKind = at.get(question.hatchlingKind) ?? 0;
  const young = kinds.map((kind) => thresholds(question.hatchling.mean, question.hatchling.sd, kind.maxG));
  // Of one run: how many more places of each kind are needed from a week on than in the week before.
  const changes = kinds.map(() => new Int32Array(weeks + 1));
  const nextOf = kinds.map(({ next }) => (next === null ? -1 : (at.get(next) ?? -1)));
  const stay = stays(changes, nextOf);
  for (let run = 0; run < runs; run++) {
    for (const { kind, forSaleFrom, leaves } of animals) {
      const until = saleWeek(forSaleFrom, salePace, weeks, random);
      stay(0, until, kind, leaves, deviate(random), 0);
    }
    for (const clutch of question.clutches) {
      if (random() >= clutch.chance) continue;
      const day = clutch.hatchInDays + clutch.sdDays * deviate(random);
      const week = Math.max(0, Math.floor(day / 7));
      for (let egg = 0; egg < clutch.eggs; egg++) {
        if (random() >= clutch.hatchShare || week >= weeks) continue;
        const kept = random() < question.heldBack;
        const until = saleWeek(kept ? null : week + question.saleAgeWeeks, salePace, weeks, random);
        stay(week, until, firstKind, young, deviate(random), week);
      }
    }
    changes.forEach((change, kind) => {
      let needed = 0;
      for (let week = 0; week < weeks; week++) {
        needed += change[week]!;
        counts[kind]![week * runs + run] = needed;
      }
      change.fill(0);
    });
    if (run % 50 === 0 && onProgress(run / runs) === false) return null;
  }
  return { kinds: kinds.map((kind, i) => summarise(kind, counts[i]!, weeks, runs)), runs };
}

type Stay = (
  from: number,
  until: number,
  kind: number,
  leaves: readonly Float64Array[],
  z: number,
  age0: number,
) => void;

/** Takes places from a week until another: from one kind of tub to the next, in the week in which each is outgrown. */
function stays(changes: readonly Int32Array[], nextOf: readonly number[]): Stay {
  return (from, until, kind, leaves, z, age0) => {
    let week = from;
    let current = kind;
    while (week < until) {
      const next = nextOf[current]!;
      const outgrown = next === -1 ? NEVER : firstWeek(leaves[current]!, z) + age0;
      const end = outgrown >= until ? until : outgrown > week ? outgrown : week;
      changes[current]![week]! += 1;
      changes[current]![end]! -= 1;
      week = end;
      if (next === -1) return;
      current = next;
    }
  };
}

/** For each week the deviate above which the mass lies over the limit by then. Falls from week to week. */
function thresholds(mean: readonly number[], sd: readonly number[], maxG: number | null): Float64Array {
  const needed = new Float64Array(mean.length).fill(Infinity);
  if (maxG === null) return needed;
  const limit = Math.log(maxG);
  let least = Infinity;
  mean.forEach((value, week) => {
    const spread = Math.max(sd[week]!, 1e-9);
    least = Math.min(least, (limit - value) / spread);
    needed[week] = least;
  });
  return needed;
}

/** The first week whose threshold the deviate passes; beyond the last, never. */
function firstWeek(needed: Float64Array, z: number): number {
  let low = 0;
  let high = needed.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (needed[middle]! <= z) high = middle;
    else low = middle + 1;
  }
  return low === needed.length ? NEVER : low;
}

/** The week in which it leaves: each week for sale it is sold with the same chance. */
function saleWeek(from: number | null, pace: number, weeks: number, random: () => number): number {
  if (from === null || pace <= 0 || from >= weeks) return weeks;
  const first = from > 0 ? from : 0;
  if (pace >= 1) return first;
  const wait = Math.floor(Math.log(1 - random()) / Math.log(1 - pace));
  return wait >= weeks - first ? weeks : first + wait;
}

/** A standard normal deviate (Box & Muller 1958, Annals of Mathematical Statistics 29, 610-611). */
function deviate(random: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

function summarise(kind: RoomKind, counts: Uint16Array, weeks: number, runs: number): RoomKindForecast {
  const at = (sorted: Uint16Array, share: number): number =>
    sorted[Math.min(runs - 1, Math.floor(share * runs))]!;
  const peaks = new Uint16Array(runs);
  const rows = Array.from({ length: weeks }, (_, week): RoomWeek => {
    const row = counts.slice(week * runs, (week + 1) * runs);
    let over = 0;
    let sum = 0;
    row.forEach((count, run) => {
      sum += count;
      if (count > kind.places) over += 1;
      if (count > peaks[run]!) peaks[run] = count;
    });
    row.sort();
    return {
      low: at(row, 0.05),
      mid: at(row, 0.5),
      high: at(row, 0.95),
      mean: sum / runs,
      over: over / runs,
    };
  });
  peaks.sort();
  const first = (limit: number): number | null => {
    const week = rows.findIndex(({ over }) => over > limit);
    return week === -1 ? null : week;
  };
  return {
    key: kind.key,
    name: kind.name,
    places: kind.places,
    weeks: rows,
    tipsOver: first(LIKELY),
    risky: first(RISKY),
    missing: Math.max(0, at(peaks, 0.9) - kind.places),
  };
}
