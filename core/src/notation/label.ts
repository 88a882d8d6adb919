import { alleleById, alleleName, compareLoci, locusById } from '../catalogue/catalogue.ts';
import { foldPhrase, LONGEST_PHRASE, PHRASES } from '../catalogue/words.ts';
import { canonical, type Genotype, type WeightedGenotype } from '../loci/genotype.ts';
import { isRecessive, WILD, type Locus } from '../loci/locus.ts';
import type { ParsedGenes, Phase } from './parse.ts';

/** What a label says when nothing else is there to say. */
export const NORMAL = 'Normal';

/** 2/3 is written 66% and 1/3 is written 33%, as the trade does; anything else is rounded to a whole percent. */
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
 */
export function joinWords(words: readonly string[]): string {
  return words.reduce((label, word) => {
    if (label === '') return word;
    const before = foldPhrase(label).split(' ').slice(-LONGEST_PHRASE);
    const after = foldPhrase(word).split(' ');
    const runsTogether = before.some((_, i) =>
      after.some((_unused, j) => PHRASES.has([...before.slice(i), ...after.slice(0, j + 1)].join(' '))),
    );
    return `${label}${runsTogether ? ',' : ''} ${word}`;
  }, '');
}

interface Words {
  readonly shown: string[];
  readonly carried: string[];
}

/** The words for one genotype of one locus, apart: what shows, and what is carried unseen. */
function genotypeWords(locus: Locus, genotype: Genotype): Words {
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

/** The label of one genotype per locus: "Pastel Clown Het Pied". Loci come in the catalogue's order. */
export function genotypeLabel(genotypes: Readonly<Record<string, Genotype>>): string {
  const words = Object.keys(genotypes)
    .toSorted(compareLoci)
    .flatMap((id) => {
      const locus = locusById(id);
      return locus ? [genotypeWords(locus, genotypes[id]!)] : [];
    });
  return joinWords([...words.flatMap((w) => w.shown), ...words.flatMap((w) => w.carried)]) || NORMAL;
}

function distributionWords(locus: Locus, genotypes: readonly WeightedGenotype[], phase?: Phase): Words {
  if (genotypes.length === 1) {
    const words = genotypeWords(locus, genotypes[0]!.genotype);
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
    const word = genotypeWords(locus, twice ? [allele.id, allele.id] : canonical(WILD, allele.id));
    return [`${p >= 1 ? '' : `${tradePercent(p)} `}${[...word.shown, ...word.carried].join(' ')}`];
  });
  return { shown: [], carried };
}

/** The one canonical label of a reading: what shows, then what is carried, then what is possible, in brackets. */
export function canonicalLabel(parsed: Pick<ParsedGenes, 'loci' | 'phases' | 'possible'>): string {
  const words = [...parsed.loci.keys()]
    .toSorted(compareLoci)
    .map((id) => distributionWords(locusById(id)!, parsed.loci.get(id)!, parsed.phases.get(id)));
  const possible = parsed.possible
    .map((id) => alleleById(id)!)
    .toSorted((a, b) => compareLoci(a.locus.id, b.locus.id))
    .map(({ allele }) => `(${allele.name})`);
  const named = [...words.flatMap((w) => w.shown), ...words.flatMap((w) => w.carried)];
  return joinWords([...(named.length > 0 ? named : possible.length > 0 ? [] : [NORMAL]), ...possible]);
}
