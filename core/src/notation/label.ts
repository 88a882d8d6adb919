import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import { foldPhrase, squeeze } from '../catalogue/words.ts';
import { canonical, type Genotype, type WeightedGenotype } from '../loci/genotype.ts';
import { isRecessive, WILD, type Locus } from '../loci/locus.ts';
import type { Phase } from './modifiers.ts';
import type { ParsedGenes } from './reading.ts';
import { tradePercent } from './spell.ts';

/** What a label says when nothing else is there to say. */
export const NORMAL = 'Normal';

/**
 * Writes words beside one another so that they are read back as they are: where the end of one and the start of the next
 * would together name another gene, a comma stands between them ("Desert, Ghost").
 *
 * @example joinWords(['pastel', 'clown']) // "pastel clown"
 */
export function joinWords(words: readonly string[], catalogue: Catalogue = CATALOGUE): string {
  let label = '';
  let before: string[] = [];
  for (const word of words) {
    const after = foldPhrase(word).split(' ');
    const comma = before.length > 0 && runTogether(before, after, catalogue) ? ',' : '';
    label = label === '' ? word : `${label}${comma} ${word}`;
    before = [...before, ...after].slice(-catalogue.longestName);
  }
  return label;
}

/** Whether words from the end of one and from the start of the next name a gene together. */
function runTogether(before: readonly string[], after: readonly string[], catalogue: Catalogue): boolean {
  if (!mayMeet(before.at(-1)!, after[0]!, catalogue)) return false;
  return before.some((_, i) =>
    after.some((_unused, j) => {
      const name = squeeze([...before.slice(i), ...after.slice(0, j + 1)].join(''));
      return catalogue.names.has(name) || (name.endsWith('s') && catalogue.names.has(name.slice(0, -1)));
    }),
  );
}

/** Catalogue -> two words that meet -> whether any name holds them side by side. Labels are written by the thousand. */
const MEETINGS = new WeakMap<Catalogue, Map<string, boolean>>();

function mayMeet(last: string, first: string, catalogue: Catalogue): boolean {
  let known = MEETINGS.get(catalogue);
  if (!known) MEETINGS.set(catalogue, (known = new Map()));
  const pair = squeeze(last) + squeeze(first);
  let may = known.get(pair);
  if (may === undefined) {
    const singular = pair.replace(/s$/, '');
    may = [...catalogue.names.keys()].some((name) => name.includes(singular));
    known.set(pair, may);
  }
  return may;
}

interface Words {
  readonly shown: string[];
  readonly carried: string[];
}

/** Allele id -> the name it was typed by. */
type TypedNames = ReadonlyMap<string, string>;
const NO_NAMES: TypedNames = new Map();

/** The words for one genotype of one locus, apart: what shows, and what is carried unseen. */
function genotypeWords(
  locus: Locus,
  genotype: Genotype,
  { alleleById, alleleName, pairName }: Catalogue,
  typed: TypedNames = NO_NAMES,
): Words {
  const [a, b] = canonical(genotype[0], genotype[1]);
  const nameOf = (allele: string): string => typed.get(allele) ?? alleleName(allele);
  if (b === WILD) return { shown: [], carried: [] };
  if (a === WILD) {
    return isRecessive(locus, b)
      ? { shown: [], carried: [`Het ${nameOf(b)}`] }
      : { shown: [nameOf(b)], carried: [] };
  }
  if (a === b && typed.has(a) && !alleleById(a)!.allele.double)
    return { shown: [isRecessive(locus, a) ? nameOf(a) : `Super ${nameOf(a)}`], carried: [] };
  if (a === b || locus.compounds.some(({ alleles }) => alleles[0] === a && alleles[1] === b))
    return { shown: [pairName([a, b])], carried: [] };
  return { shown: [nameOf(a), nameOf(b)], carried: [] };
}

/**
 * The label of one genotype per locus: "Pastel Clown Het Pied". Loci come in the catalogue's order.
 *
 * @example genotypeLabel({ pied: ['pied', 'pied'] }) // "Pied"
 */
export function genotypeLabel(
  genotypes: Readonly<Record<string, Genotype>>,
  catalogue: Catalogue = CATALOGUE,
): string {
  const words = Object.keys(genotypes)
    .toSorted(catalogue.compareLoci)
    .flatMap((id) => {
      const locus = catalogue.locusById(id);
      return locus ? [genotypeWords(locus, genotypes[id]!, catalogue)] : [];
    });
  return (
    joinWords([...words.flatMap((w) => w.shown), ...words.flatMap((w) => w.carried)], catalogue) || NORMAL
  );
}

function distributionWords(
  locus: Locus,
  genotypes: readonly WeightedGenotype[],
  catalogue: Catalogue,
  phase: Phase | undefined,
  typed: TypedNames,
): Words {
  if (genotypes.length === 1) {
    const words = genotypeWords(locus, genotypes[0]!.genotype, catalogue, typed);
    const prefix = phase === 'male-maker' ? 'Male-Maker ' : phase === 'female-maker' ? 'Female-Maker ' : '';
    return { shown: words.shown.map((word) => `${prefix}${word}`), carried: words.carried };
  }
  // Uncertain: each allele with the chance that it is there, "66% Het Clown" or "50% Pastel".
  const carried = locus.alleles.flatMap((allele) => {
    const p = genotypes
      .filter(({ genotype }) => genotype.includes(allele.id))
      .reduce((sum, entry) => sum + entry.p, 0);
    if (p <= 0) return [];
    const twice = genotypes.some(({ genotype: [a, b] }) => a === allele.id && b === allele.id);
    const shown = twice ? canonical(allele.id, allele.id) : canonical(WILD, allele.id);
    const word = genotypeWords(locus, shown, catalogue, typed);
    return [`${p >= 1 ? '' : `${tradePercent(p)} `}${[...word.shown, ...word.carried].join(' ')}`];
  });
  return { shown: [], carried };
}

/** "Yellow Belly or Asphalt", "66% Het Albino or Candy": one of these, each as likely as the others. */
function eitherWords(
  locus: Locus,
  genotypes: readonly WeightedGenotype[],
  either: readonly string[],
  catalogue: Catalogue,
): Words {
  const alleles = locus.alleles.filter(({ id }) => either.includes(id));
  const [first] = genotypes.filter(({ genotype }) => genotype.includes(either[0]!));
  const p = first!.p * either.length;
  const percent = p > 1 - 1e-9 ? '' : `${tradePercent(p)} `;
  const words = genotypeWords(locus, canonicalWith(first!.genotype, alleles[0]!.id), catalogue);
  const rest = alleles.slice(1).map(({ name }) => ` or ${name}`);
  const spell = (word: string): string => `${percent}${word}${rest.join('')}`;
  return { shown: words.shown.map(spell), carried: words.carried.map(spell) };
}

/** The genotype with as many copies, but of this allele. */
function canonicalWith([a, b]: Genotype, allele: string): Genotype {
  return canonical(a === WILD ? WILD : allele, b === WILD ? WILD : allele);
}

/** What a label is made of: a reading, or what was inferred in its place. */
export type Labelled = Pick<ParsedGenes, 'loci' | 'phases' | 'possible'> &
  Partial<Pick<ParsedGenes, 'either' | 'possibleHets' | 'names'>>;

/** "Possible Het Clown", "(Orange Dream)", and "(Super Pastel)" where one copy is sure and the second is possible. */
function possibleWords(
  { loci, possible, possibleHets = [], names = NO_NAMES }: Labelled,
  catalogue: Catalogue,
): string[] {
  const found = possible
    .map((id) => catalogue.alleleById(id)!)
    .toSorted((a, b) => catalogue.compareLoci(a.locus.id, b.locus.id));
  const isHet = ({ allele }: (typeof found)[number]): boolean => possibleHets.includes(allele.id);
  const nameOf = (id: string): string => names.get(id) ?? catalogue.alleleName(id);
  return [
    ...found.filter(isHet).map(({ allele }) => `Possible Het ${nameOf(allele.id)}`),
    ...found
      .filter((one) => !isHet(one))
      .map(({ locus, allele }) => {
        const hasOne = loci.get(locus.id)?.some(({ genotype }) => genotype.includes(allele.id));
        return hasOne ? `(Super ${nameOf(allele.id)})` : `(${nameOf(allele.id)})`;
      }),
  ];
}

/**
 * The one canonical label of a reading: what shows, then what is carried, then what is possible.
 *
 * @example canonicalLabel(parseGenes('66% het Clown pastel')) // "Pastel 66% Het Clown"
 * @example canonicalLabel(parseGenes('ph clown (od)')) // "Possible Het Clown (Orange Dream)"
 */
export function canonicalLabel(parsed: Labelled, catalogue: Catalogue = CATALOGUE): string {
  const { compareLoci, locusById } = catalogue;
  const { names = NO_NAMES } = parsed;
  const words = [...parsed.loci.keys()].toSorted(compareLoci).map((id) => {
    const either = parsed.either?.get(id);
    if (either) return eitherWords(locusById(id)!, parsed.loci.get(id)!, either, catalogue);
    return distributionWords(locusById(id)!, parsed.loci.get(id)!, catalogue, parsed.phases.get(id), names);
  });
  const possible = possibleWords(parsed, catalogue);
  const named = [...words.flatMap((w) => w.shown), ...words.flatMap((w) => w.carried)];
  return joinWords(
    [...(named.length > 0 ? named : possible.length > 0 ? [] : [NORMAL]), ...possible],
    catalogue,
  );
}
