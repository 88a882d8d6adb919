import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import { appearance, welfareNotes, type Genotype } from '../loci/genotype.ts';
import { WILD, type Locus } from '../loci/locus.ts';
import { genotypeLabel, NORMAL, tradePercent } from '../notation/label.ts';
import { locusOutcomes, type LocusOutcome } from './locus-outcomes.ts';
import { distributionAt, type Parent } from './parent.ts';
import { topProducts } from './top-products.ts';

/** One distinct genotype an egg can have. */
export interface Outcome {
  readonly genotype: Readonly<Record<string, Genotype>>;
  /** Per egg; `pMale` and `pFemale` are its shares by sex and add up to it. */
  readonly p: number;
  readonly pMale: number;
  readonly pFemale: number;
  readonly label: string;
}

/** Everything that looks alike, as one line: what shows, and what the animals that show it may carry. */
export interface VisibleOutcome {
  readonly label: string;
  readonly p: number;
  readonly pMale: number;
  readonly pFemale: number;
  /** "66% Het Clown" and the like: the odds of what does not show, given what does. */
  readonly carries: readonly string[];
  readonly appearance: Readonly<Record<string, string>>;
}

interface LocusTable {
  readonly locus: Locus;
  readonly outcomes: readonly LocusOutcome[];
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

/** A choice at one autosomal locus, or a joint choice at all sex-linked ones (which share the offspring's sex). */
interface Part<T> {
  readonly weight: number;
  readonly pMale: number;
  readonly pFemale: number;
  readonly entries: readonly (readonly [string, T])[];
}

/**
 * The tables as independent factors: one per autosomal locus, and one for all sex-linked loci together, since those are
 * tied by the offspring's sex. Products of the factors' weights are probabilities per egg.
 */
function independentFactors<T>(
  tables: readonly LocusTable[],
  toEntries: (table: LocusTable) => readonly { value: T; pMale: number; pFemale: number }[],
): Part<T>[][] {
  const factors: Part<T>[][] = [];
  let linked: Part<T>[] = [{ weight: 1, pMale: 1, pFemale: 1, entries: [] }];
  for (const table of tables) {
    const parts = toEntries(table).map(({ value, pMale, pFemale }) => ({
      weight: (pMale + pFemale) / 2,
      pMale,
      pFemale,
      entries: [[table.locus.id, value] as const],
    }));
    if (!table.locus.sexLinked) factors.push(parts);
    else {
      linked = linked.flatMap((one) =>
        parts.map((other) => {
          const pMale = one.pMale * other.pMale;
          const pFemale = one.pFemale * other.pFemale;
          return {
            weight: (pMale + pFemale) / 2,
            pMale,
            pFemale,
            entries: [...one.entries, ...other.entries],
          };
        }),
      );
    }
  }
  return [...factors, linked.filter((part) => part.weight > 0)];
}

function combine<T>(chosen: readonly Part<T>[]): {
  p: number;
  pMale: number;
  pFemale: number;
  of: Record<string, T>;
} {
  const pMale = chosen.reduce((product, part) => product * part.pMale, 0.5);
  const pFemale = chosen.reduce((product, part) => product * part.pFemale, 0.5);
  return {
    p: pMale + pFemale,
    pMale,
    pFemale,
    of: Object.fromEntries(chosen.flatMap((part) => part.entries)),
  };
}

/** Two probabilities closer than this are the same but for rounding, and their order is the labels'. */
const TIE = 1e-12;

const byOdds = (a: { p: number; label: string }, b: { p: number; label: string }): number =>
  Math.abs(a.p - b.p) > TIE * Math.max(a.p, b.p)
    ? b.p - a.p
    : a.label < b.label
      ? -1
      : a.label > b.label
        ? 1
        : 0;

/** Takes the heaviest products until `top` are found and the next is clearly lighter, so that ties sort by label. */
function takeTop<T, R extends { p: number; label: string }>(
  factors: readonly (readonly Part<T>[])[],
  top: number,
  toResult: (combined: { p: number; pMale: number; pFemale: number; of: Record<string, T> }) => R,
): R[] {
  const results: R[] = [];
  for (const { chosen, weight } of topProducts(factors)) {
    if (results.length >= top && weight < results[top - 1]!.p * (1 - TIE)) break;
    results.push(toResult(combine(chosen)));
  }
  return results.toSorted(byOdds).slice(0, top);
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
    outcomes.map((o) => ({ value: o.genotype, pMale: o.pMale, pFemale: o.pFemale })),
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
      pMale: members.reduce((sum, m) => sum + m.pMale, 0),
      pFemale: members.reduce((sum, m) => sum + m.pFemale, 0),
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
