import { FEMALE, MALE, UNKNOWN } from '../pedigree/index-pedigree.ts';
import type { LocusEvidence } from './evidence.ts';
import type { Distribution } from './model.ts';

/**
 * The pairs of an animal whose parents' pairs are known.
 *
 * @param dam - cell of her ordered pair; so is `sire`
 * @param likelihood - place of the animal's calls among the evidence
 * @returns bit sets of the alleles from each side, and the joint probability of pairs and calls with its total; null where its
 *   open sex is evidence, or nothing is possible
 */
export function pairsBred({
  dam,
  sire,
  evidence,
  likelihood,
  sex,
}: {
  readonly dam: number;
  readonly sire: number;
  readonly evidence: LocusEvidence;
  readonly likelihood: number;
  readonly sex: number;
}): { first: number; second: number; table: Distribution; total: number } | null {
  const k = evidence.alleles.length;
  const calls = evidence.likelihoods[likelihood]!;
  const linked = evidence.locus.sexLinked === true;
  const [sireX, sireY] = [Math.floor(sire / k), sire % k];
  if (linked && sex === UNKNOWN && sireX !== sireY) return null;
  const r = evidence.locus.recombination ?? 0;
  const fromX = !linked ? 0.5 : sex === FEMALE ? 1 - r : r;
  const isOrdered = linked && sex === MALE;
  const table = new Float64Array(k * k);
  let first = 0;
  let second = 0;
  let total = 0;
  for (const a of [Math.floor(dam / k), dam % k]) {
    for (const [b, share] of [
      [sireX, fromX],
      [sireY, 1 - fromX],
    ] as const) {
      if (share === 0) continue;
      first |= 1 << a;
      second |= 1 << b;
      const p = 0.5 * share * calls[a * k + b]!;
      table[isOrdered || a <= b ? a * k + b : b * k + a]! += p;
      total += p;
    }
  }
  return total === 0 ? null : { first, second, table, total };
}
