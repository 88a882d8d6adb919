import type { ClaimChangeView } from '@karyotome/contract';

/** A claim as far as it is compared: what is said at a locus, and how likely it is. */
export interface Compared {
  readonly locus: string;
  readonly words: string;
  readonly p: number;
}

/** Two probabilities this close are the same claim. */
const SAME_CHANCE = 0.005;

/**
 * What another statement would say otherwise, locus by locus.
 *
 * @returns labels; null where nothing was, or would be, claimed
 */
export function claimChanges(before: readonly Compared[], after: readonly Compared[]): ClaimChangeView[] {
  const loci = new Set([...before, ...after].map(({ locus }) => locus));
  return [...loci].flatMap((locus): ClaimChangeView[] => {
    const at = (claims: readonly Compared[]): readonly Compared[] =>
      claims.filter((claim) => claim.locus === locus);
    const [then, now] = [at(before), at(after)];
    const isSame =
      then.length === now.length &&
      now.every(({ words, p }) =>
        then.some((one) => one.words === words && Math.abs(one.p - p) < SAME_CHANCE),
      );
    return isSame ? [] : [{ locus, from: labelOf(then), to: labelOf(now) }];
  });
}

const labelOf = (claims: readonly Compared[]): string | null =>
  claims.length === 0 ? null : claims.map(({ words }) => words).join(', ');
