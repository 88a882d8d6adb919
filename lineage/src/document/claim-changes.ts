/** A claim as far as it is compared: what is said at a locus, and how likely it is. */
export interface Compared {
  readonly locus: string;
  readonly words: string;
  readonly p: number;
}

/** What is claimed otherwise at a locus: labels; null where nothing was, or would be, claimed. */
export interface Difference {
  readonly locus: string;
  readonly from: string | null;
  readonly to: string | null;
}

/** Two probabilities this close are the same claim. */
const SAME_CHANCE = 0.005;

/** What another statement says, or would say, otherwise, locus by locus. */
export function claimChanges(before: readonly Compared[], after: readonly Compared[]): Difference[] {
  const loci = new Set([...before, ...after].map(({ locus }) => locus));
  return [...loci].flatMap((locus): Difference[] => {
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
