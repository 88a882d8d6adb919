import { compareAlleles } from '../loci/genotype.ts';
import type { WeightedGenotype } from '../loci/genotype.ts';
import { isRecessive, WILD, type Locus } from '../loci/locus.ts';
import { assembleLocus, type Mention, type Misfit } from './assemble.ts';
import type { ParsedGenes } from './reading.ts';
import { squeeze } from '../catalogue/words.ts';
import type { Collective, Placement } from './placement.ts';

/** How many choices of a collective name are offered. */
const MOST_CHOICES = 6;

/** Puts all that was read together, locus by locus; what does not fit is reported. */
export function finishReading(read: Placement): ParsedGenes {
  const loci = new Map<string, readonly WeightedGenotype[]>();
  const either = new Map<string, readonly string[]>();
  const { catalogue } = read;
  for (const id of new Set(read.mentions.map(({ locus }) => locus))) {
    const locus = catalogue.locusById(id)!;
    const mentions = read.mentions.filter((mention) => mention.locus === id);
    const found = assembleLocus(locus, mentions);
    if ('misfit' in found) {
      reportMisfit(read, locus, found.misfit);
      continue;
    }
    loci.set(id, found.genotypes);
    const open = mentions.find(({ or }) => or.length > 0);
    if (open) either.set(id, [open.alleles[0], ...open.or].toSorted(compareAlleles));
  }
  for (const collective of read.collectives) checkCollective(read, collective, loci);
  checkNormal(read);
  const possible = read.possible.filter(({ allele }) => hasPlaceFor(allele, read, loci));
  return {
    loci: new Map([...loci].toSorted(([a], [b]) => catalogue.compareLoci(a, b))),
    phases: read.phases,
    either,
    possible: [...new Set(possible.map(({ allele }) => allele))],
    possibleHets: [...new Set(possible.filter(({ isHet }) => isHet).map(({ allele }) => allele))],
    names: read.names,
    isNormal: read.normal !== null,
    unknown: read.unknown.toSorted((a, b) => a.start - b.start),
  };
}

/** A possible allele of which both copies are certain already says nothing more. */
function hasPlaceFor(
  allele: string,
  { catalogue }: Placement,
  loci: ReadonlyMap<string, readonly WeightedGenotype[]>,
): boolean {
  const genotypes = loci.get(catalogue.alleleById(allele)!.locus.id);
  return !genotypes?.every(({ genotype }) => genotype[0] === allele && genotype[1] === allele);
}

function reportMisfit(read: Placement, locus: Locus, { kind, mentions }: Misfit): void {
  const ordered = mentions.toSorted((a, b) => a.start - b.start);
  const [first] = ordered;
  const last = ordered.at(-1)!;
  if (kind === 'repeated') {
    reportRepeated(read, first!, last);
    return;
  }
  const words = (list: readonly Mention[]): string[] => [...new Set(list.map(({ word }) => word))];
  // Two recessive genes of one locus, carried both, show together: that is their compound.
  const hidden = ordered.filter(({ shows, alleles }) => !shows && isRecessive(locus, alleles[0]));
  const suggestions =
    hidden.length === 2 && ordered.length === 2 && hidden[0]!.alleles[0] !== hidden[1]!.alleles[0]
      ? [read.catalogue.pairName([hidden[0]!.alleles[0], hidden[1]!.alleles[0]])]
      : [];
  read.report(last, 'contradictory', suggestions, words(ordered.slice(0, -1)));
}

/** "Mojave Mojave", "Pastel Bumblebee": one copy or two? A combination that brings the gene stays as it is. */
function reportRepeated(read: Placement, first: Mention, last: Mention): void {
  const name = read.catalogue.alleleName(last.alleles[0]);
  const combination = [first, last].find(({ word }) => !isNameOf(read, word, last.alleles[0]));
  const between = read.text.slice(first.end, last.start);
  const rest = combination ? ` ${combination.word}` : '';
  if (/^[\s-]*$/.test(between)) {
    const choices = [`Super ${name}${rest}`, combination?.word ?? name];
    read.report({ start: first.start, end: last.end }, 'repeated', choices);
  } else read.report(combination === last ? first : last, 'repeated', [`Super ${name}`]);
}

function isNameOf({ catalogue }: Placement, word: string, allele: string): boolean {
  const meanings = catalogue.names.get(squeeze(word)) ?? [];
  return meanings.some((meaning) => meaning.kind === 'allele' && meaning.allele === allele);
}

/** "BEL (Lesser Mojave)" says which one; "BEL" alone is asked about. */
function checkCollective(
  read: Placement,
  { meaning, start, end }: Collective,
  loci: ReadonlyMap<string, readonly WeightedGenotype[]>,
): void {
  const { catalogue } = read;
  const named = loci.get(meaning.locus) ?? [];
  const isWhole = named.length === 1 && named[0]!.genotype.every((allele) => allele !== WILD);
  if (isWhole) return;
  const seen = new Set(named.flatMap(({ genotype }) => genotype.filter((allele) => allele !== WILD)));
  const fitting = meaning.pairs.filter((pair) => seen.size === 0 || pair.some((allele) => seen.has(allele)));
  const choices = fitting.slice(0, MOST_CHOICES).map((pair) => catalogue.pairName(pair));
  const place = { start, end };
  read.report(place, 'ambiguous', choices);
}

function checkNormal(read: Placement): void {
  if (!read.normal) return;
  const shown = read.mentions.filter(({ shows, p }) => shows && p === 1);
  if (shown.length === 0) return;
  read.report(read.normal, 'contradictory', [], [...new Set(shown.map(({ word }) => word))]);
}
