import type { Catalogue } from '../catalogue/catalogue.ts';
import type { Sureness } from '../pedigree/recorded-animal.ts';
import { phenotypeLabel } from './phenotype-space.ts';
import type { Ranking } from './rank.ts';

/** A gene likelier than this to be there unseen stays on the label, in brackets. */
const NOT_EXCLUDED = 0.02;

/** Of how many such calls so many must have proved right before they count for the next one. */
const ENOUGH_CALLS = 10;

/** How often calls of one gene, by one person, later proved right. */
export interface CallRecord {
  readonly phenotype: string;
  readonly right: number;
  readonly settled: number;
}

/**
 * What the odds leave open beside a chosen phenotype: genes that would go onto the label in brackets, so that they are not
 * forgotten when the animal is bred years later.
 *
 * @example notExcluded(rank([{ sire: null, sex: 'female', weight: 1, loci: [] }], {}, CATALOGUE).ranking, {}, CATALOGUE) // []
 */
export function notExcluded(
  ranking: Ranking,
  chosen: Readonly<Record<string, string>>,
  catalogue: Catalogue,
): { phenotype: string; label: string; p: number }[] {
  return ranking.genes
    .filter(({ locus, phenotype, p }) => {
      if (p < NOT_EXCLUDED || chosen[locus] === phenotype) return false;
      // A double that shows as one copy is the same gene: it goes by its own word only where the gene is not named at all.
      return !(chosen[locus] ?? '').split('/').includes(phenotype.split('/')[0]!);
    })
    .map(({ locus, phenotype, p }) => {
      const single = phenotype.split('/')[0]!;
      const isRecessive =
        phenotype.includes('/') && catalogue.alleleById(single)?.allele.expression === 'recessive';
      return {
        phenotype,
        label: phenotypeLabel({ [locus]: isRecessive ? phenotype : single }, catalogue),
        p,
      };
    })
    .filter((one, i, all) => all.findIndex((other) => other.label === one.label) === i);
}

/**
 * How sure to call it, to begin with: by the odds of what was chosen, and by how often such calls proved right where enough
 * of them were settled. The person decides.
 *
 * @param p - the odds of what was chosen
 * @param records - of the chosen genes, by the person who calls
 * @example suggestSureness(0.999, []).sure // "certain"
 */
export function suggestSureness(
  p: number,
  records: readonly CallRecord[],
): { sure: Sureness; learned: CallRecord | null } {
  const enough = records.filter(({ settled }) => settled >= ENOUGH_CALLS);
  const worst = enough.toSorted((a, b) => a.right / a.settled - b.right / b.settled)[0] ?? null;
  const share = worst ? Math.min(p, pRight(worst)) : p;
  return { sure: share >= 0.95 ? 'certain' : share >= 0.7 ? 'probable' : 'possible', learned: worst };
}

/** The chance that the next such call is right. Laplace's rule of succession: twenty of twenty is not yet certainty. */
const pRight = ({ right, settled }: CallRecord): number => (right + 1) / (settled + 2);

/**
 * The chance that one person's calls of a gene are wrong, by how often they proved so.
 *
 * @returns null where too few were settled to count
 * @example learnedError({ phenotype: 'pastel', right: 14, settled: 14 }) // 0.0625
 */
export const learnedError = (record: CallRecord): number | null =>
  record.settled >= ENOUGH_CALLS ? (record.settled - record.right + 1) / (record.settled + 2) : null;
