import type { Catalogue } from '../catalogue/catalogue.ts';
import { addDays, type IsoDay } from '../calendar/days.ts';
import type { CatalogueTell } from '../catalogue/gather-tells.ts';
import { agreementOn } from '../catalogue/tells.ts';
import { looksAt, looksLabel, tabulate, type LooksSpace } from './looks-space.ts';
import { oneLook, type Sightings } from './sightings.ts';

/** A tell that was not looked for yet, and what seeing it, or not, would do. */
export interface NextLook {
  readonly tell: string;
  /** How much of what is open it is expected to settle, in bits. */
  readonly bits: number;
  readonly pSeen: number;
  /** The gene it speaks of, "Gravel or Spark", and how sure it would be to show. */
  readonly gene: string;
  readonly pNow: number;
  readonly pIfSeen: number;
  readonly pIfNot: number;
}

export interface LookAdvice {
  /** What to look for next, the most telling first. */
  readonly tells: readonly NextLook[];
  /** The genes in which the two leading candidates differ: what an animal to compare with should show. */
  readonly compare: readonly { readonly looks: string; readonly label: string }[];
  /** Where looking now settles little: the day after which to look again. */
  readonly againOn: IsoDay | null;
}

/** A look that is expected to settle less than this is not worth the handling. */
const WORTH_BITS = 0.02;
/** Above this the leader needs no further look. */
const SETTLED = 0.99;
const SHOWN = 3;
/** From the first shed to the second, in a hatchling. Common practice, no source. */
const SECOND_SHED_DAYS = 30;

const entropy = (weights: readonly number[]): number => {
  const total = weights.reduce((a, b) => a + b, 0);
  return weights.reduce((sum, w) => (w > 0 ? sum - (w / total) * Math.log2(w / total) : sum), 0);
};

/**
 * Where to look next: for each tell not yet looked for, the mutual information (Cover & Thomas, Elements of Information
 * Theory, section 2.3) between seeing it and what the animal is, given all that was seen.
 *
 * @param lastShed - the last shed on record, from which the next one is expected
 */
export function lookNext(
  space: LooksSpace,
  sightings: Sightings,
  catalogue: Catalogue,
  lastShed: IsoDay | null,
): LookAdvice {
  const { size, after } = space;
  const leading = Array.from({ length: size }, (_, i) => i)
    .filter((i) => after[i]! > 1e-6)
    .toSorted((a, b) => after[b]! - after[a]!);
  if (leading.length < 2) return { tells: [], compare: [], againOn: null };
  const isSettled = after[leading[0]!]! > SETTLED;
  const looks = isSettled ? [] : weighTells(space, sightings, catalogue, leading);
  const compare = isSettled ? [] : differences(space, leading[0]!, leading[1]!, catalogue);
  const isDoubtful = compare.some(({ looks: text }) => {
    const locus = catalogue.alleleById(text.split('/')[0]!)!.locus;
    return agreementOn(locus.id) === 'debated';
  });
  const again = !isSettled && lastShed !== null && (looks.length === 0 || isDoubtful);
  return {
    tells: looks.slice(0, SHOWN),
    compare,
    againOn: again ? addDays(lastShed, SECOND_SHED_DAYS) : null,
  };

  function weighTells(
    { loci: all }: LooksSpace,
    known: Sightings,
    words: Catalogue,
    cells: readonly number[],
  ): NextLook[] {
    const open = entropy(cells.map((i) => after[i]!));
    // A zone that was looked at for a gene would add nothing a second time.
    const inPlay = new Set(all.flatMap(({ looks }) => looks.flatMap((text) => text.split('/'))));
    const isInPlay = (tell: CatalogueTell): boolean =>
      tell.looks.some((text) => inPlay.has(text) || text.split('/').every((allele) => inPlay.has(allele)));
    const looked = new Set(words.tells.filter(({ id }) => known[id]).map(oneLook));
    return words.tells
      .filter((tell) => !tell.isMarker && isInPlay(tell) && !looked.has(oneLook(tell)))
      .flatMap((tell) => {
        const table = tabulate(all, size, tell, words);
        const first = table?.seen[cells[0]!] ?? 0;
        if (!table || cells.every((i) => Math.abs(table.seen[i]! - first) < 1e-9)) return [];
        const { seen, shows } = table;
        const withIt = cells.map((i) => after[i]! * seen[i]!);
        const without = cells.map((i) => after[i]! * (1 - seen[i]!));
        const pSeen = withIt.reduce((a, b) => a + b, 0);
        const bits = open - pSeen * entropy(withIt) - (1 - pSeen) * entropy(without);
        if (bits < WORTH_BITS) return [];
        const shareOf = (weights: readonly number[]): number => {
          const total = weights.reduce((a, b) => a + b, 0);
          return weights.reduce((sum, weight, i) => (shows[cells[i]!] ? sum + weight : sum), 0) / total;
        };
        return [
          {
            tell: tell.id,
            bits,
            pSeen,
            gene: [...new Set(tell.looks.map((text) => nameOf(text, words)))].join(' or '),
            pNow: shareOf(cells.map((i) => after[i]!)),
            pIfSeen: shareOf(withIt),
            pIfNot: shareOf(without),
          },
        ];
      })
      .toSorted((a, b) => b.bits - a.bits || (a.tell < b.tell ? -1 : 1));
  }
}

function nameOf(looks: string, catalogue: Catalogue): string {
  const { locus, allele } = catalogue.alleleById(looks.split('/')[0]!)!;
  return looks === allele.id ? allele.name : looksLabel({ [locus.id]: looks }, catalogue);
}

function differences(
  { loci }: LooksSpace,
  first: number,
  second: number,
  catalogue: Catalogue,
): { looks: string; label: string }[] {
  const [a, b] = [looksAt(loci, first), looksAt(loci, second)];
  return loci.flatMap(({ locus: { id } }) => {
    if (a[id] === b[id]) return [];
    return [a[id], b[id]].flatMap((looks) =>
      looks === undefined ? [] : [{ looks, label: looksLabel({ [id]: looks }, catalogue) }],
    );
  });
}
