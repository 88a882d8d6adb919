import { bestAssignment } from './assignment.ts';

/** What a season plan is made from. Values are never negative: what a pair is worth for the stated targets. */
export interface SeasonQuestion {
  readonly females: readonly string[];
  readonly males: readonly { readonly id: string; readonly load: number }[];
  /** Female -> the male the keeper fixed for her, or null where she shall stay alone. */
  readonly fixed: ReadonlyMap<string, string | null>;
  readonly value: (female: string, male: string) => number;
  readonly inbreeding: (female: string, male: string) => number;
  readonly inbreedingBound: number;
}

export interface PlannedPair {
  readonly female: string;
  /** Null: no male is worth it, or none is left. */
  readonly male: string | null;
  readonly value: number;
  readonly inbreeding: number;
  readonly isFixed: boolean;
  readonly traded: Trade | null;
}

/** What a female would have had, and why she does not get it. */
export interface Trade {
  readonly male: string;
  readonly value: number;
  readonly why: 'related' | 'load' | 'fixed';
  /** The females that this male goes to instead, for `load`. */
  readonly insteadOf: readonly string[];
}

/**
 * Assigns males to females for the greatest total value: exact, within each male's load and the bound on relatedness. What
 * the keeper fixed stays as it is, whatever it costs.
 *
 * @example planSeason({ females: ['F1', 'F2'], males: [{ id: 'M1', load: 1 }], fixed: new Map(), value: (female) => (female === 'F2' ? 2 : 1), inbreeding: () => 0, inbreedingBound: 0.1 }).map(({ male }) => male) // [null, "M1"]
 */
export function planSeason(question: SeasonQuestion): PlannedPair[] {
  const { females, males, fixed } = question;
  const left = new Map(males.map(({ id, load }) => [id, load]));
  for (const male of fixed.values()) if (male !== null) left.set(male, (left.get(male) ?? 0) - 1);
  const open = females.filter((female) => !fixed.has(female));
  const slots = males.flatMap(({ id }) => new Array<string>(Math.max(0, left.get(id)!)).fill(id));
  const isAllowed = (female: string, male: string): boolean =>
    question.inbreeding(female, male) <= question.inbreedingBound + 1e-9;
  // Each female may also stay alone: a column of her own, worth nothing.
  const values = open.map((female) => [
    ...slots.map((male) => (isAllowed(female, male) ? question.value(female, male) : -Infinity)),
    ...open.map((other) => (other === female ? 0 : -Infinity)),
  ]);
  const columns = bestAssignment(values);
  const chosen = new Map<string, string | null>(fixed);
  for (const [i, female] of open.entries()) {
    const male = slots[columns[i]!] ?? null;
    chosen.set(female, male !== null && question.value(female, male) > 0 ? male : null);
  }
  return females.map((female) => {
    const male = chosen.get(female) ?? null;
    return {
      female,
      male,
      value: male === null ? 0 : question.value(female, male),
      inbreeding: male === null ? 0 : question.inbreeding(female, male),
      isFixed: fixed.has(female),
      traded: tradeOf(question, chosen, female, isAllowed),
    };
  });
}

/** Less than this is no loss worth a word. */
const WORTH_SAYING = 1e-6;

function tradeOf(
  { males, fixed, value }: SeasonQuestion,
  chosen: ReadonlyMap<string, string | null>,
  female: string,
  isAllowed: (female: string, male: string) => boolean,
): Trade | null {
  const own = chosen.get(female) ?? null;
  const has = own === null ? 0 : value(female, own);
  const best = males
    .map(({ id }) => ({ male: id, value: value(female, id) }))
    .toSorted((a, b) => b.value - a.value)[0];
  if (!best || best.value <= has + WORTH_SAYING) return null;
  const { male } = best;
  if (fixed.has(female)) return { ...best, why: 'fixed', insteadOf: [] };
  if (!isAllowed(female, male)) return { ...best, why: 'related', insteadOf: [] };
  const insteadOf = [...chosen].filter(([, given]) => given === male).map(([other]) => other);
  return { ...best, why: 'load', insteadOf };
}
