import type { Catalogue } from '../catalogue/catalogue.ts';
import {
  appearance,
  canonical,
  copies,
  genotypeKey,
  type Genotype,
  type WeightedGenotype,
} from '../loci/genotype.ts';
import { WILD, type Locus } from '../loci/locus.ts';
import { genotypeLabel } from '../notation/label.ts';
import { livingOutcomes, locusOutcomes, type LocusOutcome } from '../odds/locus-outcomes.ts';
import { distributionAt, type Parent } from '../odds/parent.ts';

/** What a clutch says about one gene of one parent. */
export interface ParentNews {
  readonly locus: string;
  /** "Super Pastel", "Het Clown": what it is now likeliest to be at this locus. */
  readonly label: string;
  readonly copies: 0 | 1 | 2;
  readonly allele: string;
  readonly pBefore: number;
  readonly p: number;
  /** Of the young that were identified, how many show the gene. */
  readonly showing: number;
  readonly looked: number;
}

/** A shift smaller than this is not news. */
const WORTH_TELLING = 0.05;

/**
 * Where the identifications of a clutch moved what is known of a parent, the greatest move first.
 *
 * @param before - locus -> distribution with the clutch silent
 * @param after - with it
 * @param shown - what each identified one of the clutch shows: locus id -> appearance
 * @example parentNews(new Map(), new Map(), [], CATALOGUE) // []
 */
export function parentNews(
  before: ReadonlyMap<string, readonly WeightedGenotype[]>,
  after: ReadonlyMap<string, readonly WeightedGenotype[]>,
  shown: readonly Readonly<Record<string, string>>[],
  catalogue: Catalogue,
): ParentNews[] {
  return [...after]
    .flatMap(([id, genotypes]): ParentNews[] => {
      const locus = catalogue.locusById(id);
      const known = before.get(id);
      if (!locus || !known) return [];
      const now = unordered(genotypes);
      const then = unordered(known);
      const [likeliest] = now.toSorted((a, b) => b.p - a.p);
      if (!likeliest) return [];
      const pBefore = then.find(({ key }) => key === likeliest.key)?.p ?? 0;
      if (Math.abs(likeliest.p - pBefore) < WORTH_TELLING) return [];
      const allele = alleleInQuestion(likeliest.genotype, then);
      return [
        {
          locus: id,
          label: genotypeLabel({ [id]: likeliest.genotype }, catalogue),
          allele,
          copies: copies(likeliest.genotype, allele) as 0 | 1 | 2,
          pBefore,
          p: likeliest.p,
          showing: shown.filter((phenotype) => (phenotype[id] ?? '').split('/').includes(allele)).length,
          looked: shown.length,
        },
      ];
    })
    .toSorted((a, b) => Math.abs(b.p - b.pBefore) - Math.abs(a.p - a.pBefore));
}

/** Genotypes with a male's phase merged. */
function unordered(genotypes: readonly WeightedGenotype[]): { key: string; genotype: Genotype; p: number }[] {
  const merged = new Map<string, { key: string; genotype: Genotype; p: number }>();
  for (const { genotype, p } of genotypes) {
    const pair = canonical(genotype[0], genotype[1]);
    const key = genotypeKey(pair);
    const known = merged.get(key);
    if (known) known.p += p;
    else merged.set(key, { key, genotype: pair, p });
  }
  return [...merged.values()];
}

/** The gene that is spoken of: one that it has now, else one that it might have had. */
function alleleInQuestion(now: Genotype, then: readonly { genotype: Genotype; p: number }[]): string {
  const has = now.find((allele) => allele !== WILD);
  if (has !== undefined) return has;
  const others = then.toSorted((a, b) => b.p - a.p).flatMap(({ genotype }) => [...genotype]);
  return others.find((allele) => allele !== WILD) ?? WILD;
}

/** A sex-linked gene in the sex that the pairing hardly gives it to. */
export interface SexClash {
  readonly locus: string;
  readonly label: string;
  /** The chance of this phenotype in this sex, and in the other one. */
  readonly p: number;
  readonly pOther: number;
}

/** Rarer than this in its sex, and at least so many times commoner in the other, is worth a second look. */
const RARE = 0.15;
const TIMES = 3;

/**
 * Sex and sex-linked genes against one another: what shows is either a crossover, a wrong sex or a wrong identification.
 *
 * @param bySex - what the pairing gives each sex: locus -> distribution
 * @example sexClashes({ female: new Map(), male: new Map() }, 'female', {}, CATALOGUE) // []
 */
export function sexClashes(
  bySex: Readonly<Record<'female' | 'male', ReadonlyMap<string, readonly WeightedGenotype[]>>>,
  sex: 'female' | 'male',
  shown: Readonly<Record<string, string>>,
  catalogue: Catalogue,
): SexClash[] {
  return catalogue.loci
    .filter((locus) => locus.sexLinked && bySex.female.has(locus.id) && bySex.male.has(locus.id))
    .flatMap((locus) => {
      const phenotype = shown[locus.id] ?? '';
      const chance = (one: 'female' | 'male'): number =>
        bySex[one]
          .get(locus.id)!
          .reduce((sum, { genotype, p }) => (appearance(locus, genotype) === phenotype ? sum + p : sum), 0);
      const p = chance(sex);
      const pOther = chance(sex === 'female' ? 'male' : 'female');
      if (p >= RARE || pOther < TIMES * p) return [];
      const label = phenotype === '' ? `no ${locus.name}` : locus.name;
      return [{ locus: locus.id, label, p, pOther }];
    });
}

/** What a pair's hatchlings are at a locus: those that live. */
const hatchlingsOf = (locus: Locus, sire: Parent, dam: Parent): LocusOutcome[] =>
  livingOutcomes(locusOutcomes(locus, distributionAt(sire, locus.id), distributionAt(dam, locus.id)));

/**
 * What a pair gives each sex at the sex-linked loci, over the candidate sires by their shares.
 *
 * @param sires - shares add up to 1
 * @example linkedBySex(toParent(parseGenes('normal'), 'female'), [{ parent: toParent(parseGenes('male maker banana'), 'male'), share: 1 }], CATALOGUE).male.get('banana').length // 2
 */
export function linkedBySex(
  dam: Parent,
  sires: readonly { readonly parent: Parent; readonly share: number }[],
  catalogue: Catalogue,
): Record<'female' | 'male', Map<string, WeightedGenotype[]>> {
  const given = {
    female: new Map<string, WeightedGenotype[]>(),
    male: new Map<string, WeightedGenotype[]>(),
  };
  for (const locus of catalogue.loci.filter(({ sexLinked }) => sexLinked)) {
    const isThere = [dam, ...sires.map(({ parent }) => parent)].some(({ loci }) => loci.has(locus.id));
    if (!isThere) continue;
    const outcomes = sires.flatMap(({ parent, share }) =>
      hatchlingsOf(locus, parent, dam).map((one) => ({
        ...one,
        share,
      })),
    );
    given.female.set(
      locus.id,
      outcomes.map(({ genotype, pFemale, share }) => ({ genotype, p: pFemale * share })),
    );
    given.male.set(
      locus.id,
      outcomes.map(({ genotype, pMale, share }) => ({ genotype, p: pMale * share })),
    );
  }
  return given;
}

/**
 * What a pair's young look like at each locus: locus id -> phenotype -> probability, over the candidate sires by their shares.
 *
 * @param sires - shares add up to 1
 * @example [...phenotypesByLocus(toParent(parseGenes('pastel'), 'female'), [{ parent: toParent(parseGenes('normal'), 'male'), share: 1 }], CATALOGUE).get('pastel').values()] // [0.5, 0.5]
 */
export function phenotypesByLocus(
  dam: Parent,
  sires: readonly { readonly parent: Parent; readonly share: number }[],
  catalogue: Catalogue,
): Map<string, Map<string, number>> {
  const ids = new Set([dam, ...sires.map(({ parent }) => parent)].flatMap(({ loci }) => [...loci.keys()]));
  return new Map(
    [...ids].map((id) => {
      const locus = catalogue.locusById(id)!;
      const odds = new Map<string, number>();
      for (const { parent, share } of sires)
        for (const one of hatchlingsOf(locus, parent, dam)) {
          const phenotype = appearance(locus, one.genotype);
          odds.set(phenotype, (odds.get(phenotype) ?? 0) + (share * (one.pMale + one.pFemale)) / 2);
        }
      return [id, odds];
    }),
  );
}
