import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import { foldPhrase } from '../catalogue/words.ts';
import { canonical, type Genotype, type WeightedGenotype } from '../loci/genotype.ts';
import { isRecessive, WILD, type Locus } from '../loci/locus.ts';
import type { ParsedGenes, Phase } from './parse.ts';

/** What a label says when nothing else is there to say. */
export const NORMAL = 'Normal';

/**
 * 2/3 is written 66% and 1/3 is written 33%, as the trade does; anything else is rounded to a whole percent.
 *
 * @example tradePercent(2 / 3) // "66%"
 */
export function tradePercent(p: number): string {
  if (Math.abs(p - 2 / 3) < 0.005) return '66%';
  if (Math.abs(p - 1 / 3) < 0.005) return '33%';
  if (p < 0.005) return 'under 1%';
  if (p > 0.995 && p < 1) return 'over 99%';
  return `${Math.round(p * 100)}%`;
}

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
    before = [...before, ...after].slice(-catalogue.longestPhrase);
  }
  return label;
}

function runTogether(before: readonly string[], after: readonly string[], catalogue: Catalogue): boolean {
  if (!catalogue.joints.has(`${before.at(-1)} ${after[0]}`)) return false;
  return before.some((_, i) =>
    after.some((_unused, j) =>
      catalogue.phrases.has([...before.slice(i), ...after.slice(0, j + 1)].join(' ')),
    ),
  );
}

interface Words {
  readonly shown: string[];
  readonly carried: string[];
}

/** The words for one genotype of one locus, apart: what shows, and what is carried unseen. */
function genotypeWords(locus: Locus, genotype: Genotype, { alleleById, alleleName }: Catalogue): Words {
  const [a, b] = canonical(genotype[0], genotype[1]);
  if (b === WILD) return { shown: [], carried: [] };
  if (a === b) {
    const allele = alleleById(a)!.allele;
    const name = isRecessive(locus, a) ? allele.name : (allele.double ?? `Super ${allele.name}`);
    return { shown: [name], carried: [] };
  }
  if (a === WILD) {
    return isRecessive(locus, b)
      ? { shown: [], carried: [`Het ${alleleName(b)}`] }
      : { shown: [alleleName(b)], carried: [] };
  }
  const compound = locus.compounds.find(({ alleles }) => alleles[0] === a && alleles[1] === b);
  return { shown: compound ? [compound.name] : [alleleName(a), alleleName(b)], carried: [] };
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
  phase?: Phase,
): Words {
  if (genotypes.length === 1) {
    const words = genotypeWords(locus, genotypes[0]!.genotype, catalogue);
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
    const word = genotypeWords(locus, twice ? [allele.id, allele.id] : canonical(WILD, allele.id), catalogue);
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

/**
 * The one canonical label of a reading: what shows, then what is carried, then what is possible, in brackets.
 *
 * @example canonicalLabel(parseGenes('66% het Clown pastel')) // "Pastel 66% Het Clown"
 */
export function canonicalLabel(
  parsed: Pick<ParsedGenes, 'loci' | 'phases' | 'possible'> & Partial<Pick<ParsedGenes, 'either'>>,
  catalogue: Catalogue = CATALOGUE,
): string {
  const { compareLoci, locusById, alleleById } = catalogue;
  const words = [...parsed.loci.keys()].toSorted(compareLoci).map((id) => {
    const either = parsed.either?.get(id);
    if (either) return eitherWords(locusById(id)!, parsed.loci.get(id)!, either, catalogue);
    return distributionWords(locusById(id)!, parsed.loci.get(id)!, catalogue, parsed.phases.get(id));
  });
  const possible = parsed.possible
    .map((id) => alleleById(id)!)
    .toSorted((a, b) => compareLoci(a.locus.id, b.locus.id))
    .map(({ allele }) => `(${allele.name})`);
  const named = [...words.flatMap((w) => w.shown), ...words.flatMap((w) => w.carried)];
  return joinWords(
    [...(named.length > 0 ? named : possible.length > 0 ? [] : [NORMAL]), ...possible],
    catalogue,
  );
}
