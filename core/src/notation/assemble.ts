import { canonical, compareAlleles, genotypeKey, type WeightedGenotype } from '../loci/genotype.ts';
import { isRecessive, WILD, type Locus } from '../loci/locus.ts';

/** One gene as a text names it. `visual`: two copies, or one beside another visual recessive of the same locus. */
export interface Mention {
  readonly locus: string;
  readonly allele: string;
  readonly copies: 1 | 2 | 'visual';
  /** Alleles of the same locus, one of which it may be instead: "yellow belly or asphalt". */
  readonly or?: readonly string[];
  /** The chance that the mention is true. */
  readonly p: number;
  readonly word: string;
}

/**
 * Puts all mentions of one locus together into a genotype distribution.
 *
 * @returns the distribution in canonical order, or null where the mentions need more than two places
 */
export function assembleLocus(locus: Locus, mentions: readonly Mention[]): WeightedGenotype[] | null {
  const unique = mentions.filter(
    (mention, index) =>
      mentions.findIndex((other) => other.allele === mention.allele && other.copies === mention.copies) ===
      index,
  );
  const [first, second] = unique;
  if (!first || unique.length > 2) return null;
  if (first.or || second?.or) return second ? null : alternatives(first);
  if (!second) {
    const whole = first.copies === 1 ? canonical(WILD, first.allele) : canonical(first.allele, first.allele);
    // A recessive gene that is visual with some chance may still be carried; the text does not say, so it is not.
    return weigh([
      [whole[0], whole[1], first.p],
      [WILD, WILD, 1 - first.p],
    ]);
  }
  if (first.allele === second.allele || !fitTogether(locus, first, second)) return null;
  return weigh([
    [first.allele, second.allele, first.p * second.p],
    [WILD, first.allele, first.p * (1 - second.p)],
    [WILD, second.allele, (1 - first.p) * second.p],
    [WILD, WILD, (1 - first.p) * (1 - second.p)],
  ]);
}

/** Each alternative is as likely as the others, as far as the text goes. */
function alternatives({ allele, or = [], copies, p }: Mention): WeightedGenotype[] {
  const all = [allele, ...or];
  return weigh([
    ...all.map((a) => [copies === 1 ? WILD : a, a, p / all.length] as const),
    [WILD, WILD, 1 - p],
  ]);
}

function fitTogether(locus: Locus, first: Mention, second: Mention): boolean {
  if (first.copies === 2 || second.copies === 2) return false;
  const visual = [first, second].filter((mention) => mention.copies === 'visual').length;
  const recessive = [first, second].filter((mention) => isRecessive(locus, mention.allele)).length;
  // Two visual recessive alleles of one locus share its two places; a visual one beside a carried one does not add up.
  return visual === 0 ? recessive < 2 : visual === 2;
}

function weigh(entries: readonly (readonly [string, string, number])[]): WeightedGenotype[] {
  const byKey = new Map<string, WeightedGenotype>();
  for (const [a, b, p] of entries) {
    if (p <= 0) continue;
    const genotype = canonical(a, b);
    const key = genotypeKey(genotype);
    byKey.set(key, { genotype, p: p + (byKey.get(key)?.p ?? 0) });
  }
  return [...byKey.values()].toSorted(
    (x, y) => compareAlleles(x.genotype[0], y.genotype[0]) || compareAlleles(x.genotype[1], y.genotype[1]),
  );
}
