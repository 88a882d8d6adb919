/** A mate for the proof: how likely each egg is to show the gene, if it is carried. */
export interface Mate {
  /** What the mate may be, and for each the chance that one egg shows the gene. The weights add up to 1. */
  readonly cases: readonly { readonly weight: number; readonly pShows: number }[];
}

export interface Proof {
  /** The expected number of eggs looked at until the question is settled. */
  readonly eggs: number;
  /** After so many eggs without the gene the odds are below the limit: settled as a no. */
  readonly eggsForNo: number;
  /** The chance that it ends with a proof that the gene is carried. */
  readonly pProved: number;
}

/** Odds below this count as settled: as good as excluded. An assumption, stated in docs/science.md. */
export const SETTLED_BELOW = 0.01;

/** No more eggs than this are thought of: nobody waits longer for an answer. */
const MOST_EGGS = 400;

/**
 * Looking at eggs one after the other until one shows the gene (it is carried) or the odds that it is carried fall below a
 * limit. With one case this is a geometric waiting time cut off at n, where n non-showing eggs leave the odds
 * p (1-q)^n : (1-p) (Bayes; the halving with a visual mate is its case q = 1/2).
 *
 * @param p - the chance that the gene is carried, above 0 and below 1
 * @returns null where the mate cannot settle it: no egg could show the gene, or not within a few hundred
 * @example eggsUntilSettled(0.5, { cases: [{ weight: 1, pShows: 0.5 }] }) !== null // true
 */
export function eggsUntilSettled(p: number, mate: Mate, limit = SETTLED_BELOW): Proof | null {
  let open = mate.cases.map(({ weight, pShows }) => ({ unseen: weight, pShows }));
  let eggs = 0;
  for (let n = 1; n <= MOST_EGGS; n++) {
    const unseenBefore = open.reduce((sum, one) => sum + one.unseen, 0);
    // The n-th egg is looked at if none before showed the gene, be it carried or not.
    eggs += p * unseenBefore + (1 - p);
    open = open.map(({ unseen, pShows }) => ({ unseen: unseen * (1 - pShows), pShows }));
    const unseen = open.reduce((sum, one) => sum + one.unseen, 0);
    if ((p * unseen) / (p * unseen + 1 - p) < limit) return { eggs, eggsForNo: n, pProved: p * (1 - unseen) };
    if (unseen === unseenBefore) return null;
  }
  return null;
}
