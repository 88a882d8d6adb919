import { canonical, compareAlleles, genotypeKey, type WeightedGenotype } from '../loci/genotype.ts';
import { isRecessive, WILD, type Locus } from '../loci/locus.ts';

/** One gene as a text names it. */
export interface Mention {
  readonly locus: string;
  /** One allele, or the two of a double or compound. */
  readonly alleles: readonly [string] | readonly [string, string];
  /** A recessive gene that shows: it fills both places, or shares them with another one of its locus. */
  readonly shows: boolean;
  /** Alleles of the same locus, one of which it may be instead: "yellow belly or asphalt". */
  readonly or: readonly string[];
  /** The chance that the mention is true. */
  readonly p: number;
  readonly word: string;
  readonly start: number;
  readonly end: number;
}

/** Why the mentions of one locus do not make one genotype. */
export type Misfit =
  /** More alleles than an animal has places for, or things that exclude each other. */
  | { readonly kind: 'contradiction'; readonly mentions: readonly Mention[] }
  /** One gene named twice: one copy or two? */
  | { readonly kind: 'repeated'; readonly mentions: readonly Mention[] };

/**
 * Puts all mentions of one locus together into a genotype distribution.
 *
 * What a double, a compound or a combination has said already may be said again ("Killer Bee Pastel"). A gene that is
 * named twice by itself may mean one copy or two, and is not guessed.
 *
 * @returns the distribution in canonical order, or why there is none
 */
export function assembleLocus(
  locus: Locus,
  mentions: readonly Mention[],
): { readonly genotypes: readonly WeightedGenotype[] } | { readonly misfit: Misfit } {
  const needed = withoutRedundant(locus, mentions);
  const [first, second] = needed;
  const contradiction = { misfit: { kind: 'contradiction', mentions: needed } } as const;
  if (!first || needed.length > 2) return contradiction;
  if (!second) return { genotypes: first.or.length > 0 ? alternatives(locus, first) : alone(locus, first) };
  if (first.or.length > 0 || second.or.length > 0) return contradiction;
  if (first.alleles.length === 2 || second.alleles.length === 2) return contradiction;
  const [a, b] = [first.alleles[0], second.alleles[0]];
  if (a === b) {
    const isRepeated = !isRecessive(locus, a) && first.p === 1 && second.p === 1;
    return isRepeated ? { misfit: { kind: 'repeated', mentions: needed } } : contradiction;
  }
  if (!fitTogether(locus, first, second)) return contradiction;
  return {
    genotypes: weigh([
      [a, b, first.p * second.p],
      [WILD, a, first.p * (1 - second.p)],
      [WILD, b, (1 - first.p) * second.p],
      [WILD, WILD, (1 - first.p) * (1 - second.p)],
    ]),
  };
}

/** The mentions without those that say again what another one says. */
function withoutRedundant(locus: Locus, mentions: readonly Mention[]): Mention[] {
  const both = mentions.find(({ alleles, p }) => alleles.length === 2 && p === 1);
  return mentions.filter((mention, at) => {
    const sameBefore = mentions.findIndex(
      (other) =>
        other.alleles.join() === mention.alleles.join() &&
        other.shows === mention.shows &&
        other.p === mention.p,
    );
    // The same statement twice says nothing new, but for one copy of a gene that shows: there it could be two.
    const isCopy = mention.alleles.length === 1 && !isRecessive(locus, mention.alleles[0]);
    if (sameBefore < at && !isCopy) return false;
    if (!both || mention === both || mention.or.length > 0) return true;
    const isHidden = isRecessive(locus, mention.alleles[0]) && !mention.shows;
    const isPart = mention.alleles.length === 1 && both.alleles.includes(mention.alleles[0]);
    return isHidden || !isPart;
  });
}

function alone(locus: Locus, { alleles, shows, p }: Mention): WeightedGenotype[] {
  const [a, b = shows && isRecessive(locus, a) ? a : WILD] = alleles;
  // A recessive gene that is visual with some chance may still be carried; the text does not say, so it is not.
  return weigh([
    [a, b, p],
    [WILD, WILD, 1 - p],
  ]);
}

/** Each alternative is as likely as the others, as far as the text goes. */
function alternatives(locus: Locus, { alleles, or, shows, p }: Mention): WeightedGenotype[] {
  const all = [alleles[0], ...or];
  const isDouble = alleles.length === 2 || (shows && isRecessive(locus, alleles[0]));
  return weigh([...all.map((a) => [isDouble ? a : WILD, a, p / all.length] as const), [WILD, WILD, 1 - p]]);
}

function fitTogether(locus: Locus, first: Mention, second: Mention): boolean {
  const recessive = [first, second].filter(({ alleles }) => isRecessive(locus, alleles[0]));
  const visual = recessive.filter(({ shows }) => shows);
  // Two visual recessive alleles of one locus share its two places; a visual one beside a carried one does not add up.
  return visual.length === 0 ? recessive.length < 2 : visual.length === 2;
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
