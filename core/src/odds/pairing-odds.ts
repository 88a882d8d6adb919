import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import { appearance, welfareNotes, type Genotype } from '../loci/genotype.ts';
import { WILD, type Locus } from '../loci/locus.ts';
import { genotypeLabel, NORMAL } from '../notation/label.ts';
import { tradePercent } from '../notation/spell.ts';
import { locusOutcomes, type LocusOutcome } from './locus-outcomes.ts';
import { independentFactors, oddsOf, takeTop, TIE, type LocusTable } from './factors.ts';
import { distributionAt, type Parent } from './parent.ts';

/** One distinct genotype an egg can have. */
export interface Outcome {
  readonly genotype: Readonly<Record<string, Genotype>>;
  /** Per egg; `pMale` and `pFemale` are its shares by sex and add up to it. */
  readonly p: number;
  readonly pMale: number;
  readonly pFemale: number;
  /** Its share among the young that live; given where some eggs of the pair do not. */
  readonly pHatched?: number;
  readonly label: string;
}

/** Everything that looks alike, as one line: what shows, and what the animals that show it may carry. */
export interface VisibleOutcome {
  readonly label: string;
  readonly p: number;
  readonly pMale: number;
  readonly pFemale: number;
  /** Its share among the young that live; given where some eggs of the pair do not. */
  readonly pHatched?: number;
  /** "66% Het Clown" and the like: the odds of what does not show, given what does. */
  readonly carries: readonly string[];
  readonly appearance: Readonly<Record<string, string>>;
}

/** The loci at which the pair can produce more than one thing, or something that is not wild type. */
function segregatingLoci(sire: Parent, dam: Parent, catalogue: Catalogue): LocusTable[] {
  const ids = new Set([...sire.loci.keys(), ...dam.loci.keys()]);
  return catalogue.loci
    .filter((locus) => ids.has(locus.id))
    .map((locus) => ({
      locus,
      outcomes: locusOutcomes(locus, distributionAt(sire, locus.id), distributionAt(dam, locus.id)),
    }))
    .filter(
      ({ outcomes }) => outcomes.length > 1 || outcomes[0]!.genotype.some((alleleId) => alleleId !== WILD),
    );
}

/**
 * What a pairing can produce, most probable first, ties by label in code-unit order.
 *
 * A parent's loci are independent of one another. With many loci only the first `top` are built.
 *
 * @param top - how many outcomes to list at most
 * @returns `total`: the probability that the listed ones cover
 * @example pairingOutcomes(parseParent('het Pied', 'male').parent, parseParent('het Pied', 'female').parent).total // 1
 */
export function pairingOutcomes(
  sire: Parent,
  dam: Parent,
  top = Number.POSITIVE_INFINITY,
  catalogue: Catalogue = CATALOGUE,
): { readonly outcomes: readonly Outcome[]; readonly total: number } {
  const factors = independentFactors(segregatingLoci(sire, dam, catalogue), ({ outcomes }) =>
    outcomes.map((o) => ({ value: o.genotype, ...oddsOf([o]) })),
  );
  const outcomes = takeTop(factors, top, ({ of, ...odds }) => ({
    genotype: of,
    ...odds,
    label: genotypeLabel(of, catalogue),
  }));
  return { outcomes, total: outcomes.reduce((sum, outcome) => sum + outcome.p, 0) };
}

/**
 * The same, grouped by what shows: what somebody looking at the hatchlings can choose from.
 *
 * @example visibleOutcomes(parseParent('het Pied', 'male').parent, parseParent('Pied', 'female').parent).map(({ p }) => p) // [0.5,0.5]
 */
export function visibleOutcomes(
  sire: Parent,
  dam: Parent,
  top = 200,
  catalogue: Catalogue = CATALOGUE,
): VisibleOutcome[] {
  const tables = segregatingLoci(sire, dam, catalogue);
  const factors = independentFactors(tables, ({ locus, outcomes }) => {
    const groups = new Map<string, { phenotype: string; members: LocusOutcome[] }>();
    for (const outcome of outcomes) {
      const phenotype = appearance(locus, outcome.genotype);
      const group = groups.get(phenotype) ?? { phenotype, members: [] };
      group.members.push(outcome);
      groups.set(phenotype, group);
    }
    return [...groups.values()].map(({ phenotype, members }) => ({
      value: { phenotype, locus, members },
      ...oddsOf(members),
    }));
  });
  return takeTop(factors, top, ({ of, ...odds }) => {
    const groups = Object.entries(of);
    return {
      ...odds,
      label: genotypeLabel(
        Object.fromEntries(groups.map(([id, { phenotype }]) => [id, shownGenotype(phenotype)])),
        catalogue,
      ),
      carries: groups.flatMap(([, { locus, members }]) => carriedWords(locus, members)),
      appearance: Object.fromEntries(groups.map(([id, { phenotype }]) => [id, phenotype])),
    };
  });
}

/** The plainest genotype with this appearance. */
export function shownGenotype(phenotype: string): Genotype {
  const [first, second] = phenotype.split('/');
  return second ? [first!, second] : [WILD, first || WILD];
}

function carriedWords(locus: Locus, members: readonly LocusOutcome[]): string[] {
  const total = members.reduce((sum, m) => sum + m.pMale + m.pFemale, 0);
  return locus.alleles
    .filter((allele) => allele.expression === 'recessive')
    .flatMap((allele) => {
      const carriers = members.filter(({ genotype: [a, b] }) => (a === allele.id) !== (b === allele.id));
      const hidden = carriers.filter(({ genotype }) => appearance(locus, genotype) === '');
      const p = hidden.reduce((sum, m) => sum + m.pMale + m.pFemale, 0) / total;
      return p <= 0 ? [] : [p > 1 - TIE ? `Het ${allele.name}` : `${tradePercent(p)} Het ${allele.name}`];
    });
}

/**
 * Cautions for what the pair can produce, to be seen before the animals are put together.
 *
 * @example pairingCautions(parseParent('Pied', 'male').parent, parseParent('Pied', 'female').parent) // []
 */
export function pairingCautions(sire: Parent, dam: Parent, catalogue: Catalogue = CATALOGUE): string[] {
  const notes = segregatingLoci(sire, dam, catalogue).flatMap(({ locus, outcomes }) =>
    outcomes.flatMap(({ genotype }) => welfareNotes(locus, genotype)),
  );
  return [...new Set(notes)];
}

/** What a pair cannot give at a locus: labels of what was seen (null: nothing of the locus shows) and of all it can give. */
export interface Impossible {
  readonly locus: string;
  readonly seen: string | null;
  readonly possible: readonly string[];
}

/**
 * Why the pairing cannot give an animal that looks like this; empty where it can.
 *
 * @param phenotype - locus id -> appearance, as `appearance()` words it; loci left out are not judged
 * @example whyImpossible(toParent(parseGenes('het clown'), 'male'), toParent(parseGenes('pastel'), 'female'), { clown: 'clown' }).map(({ locus }) => locus) // ["Clown"]
 */
export function whyImpossible(
  sire: Parent,
  dam: Parent,
  phenotype: Readonly<Record<string, string>>,
  catalogue: Catalogue = CATALOGUE,
): Impossible[] {
  return Object.entries(phenotype).flatMap(([id, look]) => {
    const locus = catalogue.locusById(id);
    if (!locus) return [];
    const outcomes = locusOutcomes(locus, distributionAt(sire, id), distributionAt(dam, id));
    if (outcomes.some(({ genotype }) => appearance(locus, genotype) === look)) return [];
    const possible = [
      ...new Set(
        outcomes.map(({ genotype }) =>
          genotypeLabel({ [id]: shownGenotype(appearance(locus, genotype)) }, catalogue),
        ),
      ),
    ];
    const seen = genotypeLabel({ [id]: shownGenotype(look) }, catalogue);
    return [{ locus: locus.name, seen: seen === NORMAL ? null : seen, possible }];
  });
}
