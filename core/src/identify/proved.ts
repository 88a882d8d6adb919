import { daysBetween, type IsoDay } from '../calendar/days.ts';
import type { Sureness } from '../pedigree/recorded-animal.ts';
import type { CallRecord } from './suggest.ts';

/** One call of one animal, as it was made: what was said to show, and what could have shown. */
export interface PastCall {
  readonly animal: string;
  readonly by: string;
  readonly on: IsoDay;
  readonly sure: Sureness;
  /** Locus id -> what was said to show. */
  readonly shown: Readonly<Record<string, string>>;
  /** Later evidence that settled a locus: its phenotype as it proved to be. */
  readonly proved: Readonly<Record<string, string>>;
}

/** One gene named, or a gene of the pairing left unnamed, that later evidence settled. */
export interface SettledCall {
  readonly by: string;
  readonly sure: Sureness;
  readonly locus: string;
  readonly phenotype: string;
  readonly isRight: boolean;
}

/** A later look of the same animal settles an earlier one where so many days lie between them: colours open up. */
const LATER_DAYS = 14;

/**
 * Calls that were settled later. A named gene is right where it proved to show just so; a gene that proved to show and was
 * not named is a call that was wrong.
 *
 * @example settledCalls([{ animal: 'a1', by: 'p1', on: '2026-07-01', sure: 'probable', shown: { pastel: 'pastel' }, proved: { pastel: 'pastel' } }]).map(({ isRight }) => isRight) // [true]
 */
export function settledCalls(calls: readonly PastCall[]): SettledCall[] {
  return calls.flatMap(({ by, sure, shown, proved }) =>
    Object.entries(proved).flatMap(([locus, truth]) => {
      const said = shown[locus] ?? '';
      if (said === '' && truth === '') return [];
      return [{ by, sure, locus, phenotype: said || truth, isRight: said === truth }];
    }),
  );
}

/**
 * What a later identification of the same animal settles of an earlier one: every locus that either of them names.
 *
 * @example settledByLater({ on: '2026-07-01', shown: { pastel: 'pastel' } }, { on: '2026-08-01', sure: 'certain', shown: { pastel: '+' } }) // {"pastel": "+"}
 */
export function settledByLater(
  earlier: { readonly on: IsoDay; readonly shown: Readonly<Record<string, string>> },
  later: {
    readonly on: IsoDay;
    readonly sure: Sureness;
    readonly shown: Readonly<Record<string, string>>;
  },
): Record<string, string> {
  if (later.sure !== 'certain' || daysBetween(earlier.on, later.on) < LATER_DAYS) return {};
  const loci = new Set([...Object.keys(earlier.shown), ...Object.keys(later.shown)]);
  return Object.fromEntries([...loci].map((locus) => [locus, later.shown[locus] ?? '']));
}

/**
 * One person's record by gene.
 *
 * @example recordsOf([{ by: 'p1', sure: 'probable', locus: 'pastel', phenotype: 'pastel', isRight: true }], 'p1') // [{"phenotype": "pastel", "right": 1, "settled": 1}]
 */
export function recordsOf(settled: readonly SettledCall[], by: string): CallRecord[] {
  const found = new Map<string, { phenotype: string; right: number; settled: number }>();
  for (const call of settled) {
    if (call.by !== by) continue;
    const one = found.get(call.phenotype) ?? { phenotype: call.phenotype, right: 0, settled: 0 };
    one.settled += 1;
    if (call.isRight) one.right += 1;
    found.set(call.phenotype, one);
  }
  return [...found.values()];
}
