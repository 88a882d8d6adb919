import type { CatalogueEntryInput } from '@karyotome/contract';
import {
  canonical,
  isGeneRule,
  MOST_ALLELES,
  squeeze,
  ownId,
  parseGenes,
  markerId,
  WILD,
  type Catalogue,
  type Expression,
  type GeneRuleEntry,
  type Locus,
} from '@karyotome/core';
import { unreadWords } from '@karyotome/words';
import { invalidField } from '../../refusal.ts';

export function keyOf(entry: CatalogueEntryInput): string {
  switch (entry.kind) {
    case 'alias':
      return squeeze(entry.word);
    case 'correction':
    case 'allelism':
    case 'frequency':
      return entry.allele;
    case 'marker':
      return `${entry.phenotype} ${markerId(entry)}`;
    case 'recombination':
      return entry.locus;
    case 'compound':
    case 'viability':
      return canonical(...entry.alleles).join('/');
    case 'label-order':
      return 'label-order';
    default:
      return ownId(entry.name);
  }
}

function checkMarker(entry: Extract<CatalogueEntryInput, { kind: 'marker' }>, catalogue: Catalogue): void {
  const [first, second] = entry.phenotype.split('/').map((id) => catalogue.alleleById(id));
  if (
    !first ||
    (second === undefined && entry.phenotype.includes('/')) ||
    (second && second.locus !== first.locus)
  )
    throw invalidField('phenotype', 'is not in the catalogue');
  if (entry.pWith <= entry.pWithout)
    throw invalidField('pWith', 'must be more than without the gene: else it is no marker of it');
}

/** What is said of genes that the catalogue has: each of them must be there. */
function checkGenes(entry: GeneRuleEntry, catalogue: Catalogue): void {
  switch (entry.kind) {
    case 'compound':
    case 'viability':
      checkPair(entry, catalogue);
      return;
    case 'frequency': {
      const known = catalogue.alleleById(entry.allele);
      if (!known) throw invalidField('allele', 'is not in the catalogue');
      if (known.allele.expression !== 'recessive')
        throw invalidField('allele', 'is not recessive: who has it shows it');
      return;
    }
    case 'allelism': {
      const known = catalogue.alleleById(entry.allele);
      const target = catalogue.locusById(entry.locus);
      if (!known) throw invalidField('allele', 'is not in the catalogue');
      if (!target) throw invalidField('locus', 'is not in the catalogue');
      if (target.id === known.locus.id) throw invalidField('locus', 'is where the allele is already');
      if (target.sexLinked || known.locus.sexLinked) throw invalidField('locus', 'is sex-linked, or was');
      if (target.alleles.length >= MOST_ALLELES)
        throw invalidField('locus', `has ${MOST_ALLELES} alleles, which is the most`);
      refuseMixed(target, null, known.allele.expression);
      return;
    }
    case 'label-order':
      if (entry.loci.some((id) => !catalogue.locusById(id)))
        throw invalidField('loci', 'names a locus that is not in the catalogue');
  }
}

function checkPair(
  entry: Extract<GeneRuleEntry, { kind: 'compound' | 'viability' }>,
  catalogue: Catalogue,
): void {
  const named = entry.alleles.filter((allele) => allele !== WILD);
  const loci = new Set(named.map((allele) => catalogue.alleleById(allele)?.locus.id));
  if (named.length === 0 || loci.has(undefined)) throw invalidField('alleles', 'is not in the catalogue');
  if (loci.size > 1) throw invalidField('alleles', 'must be two of one locus');
  if (entry.kind === 'compound' && (named.length < 2 || named[0] === named[1]))
    throw invalidField('alleles', 'must be two different alleles');
}

/** Whether an entry fits the catalogue that the others make. */
export function check(entry: CatalogueEntryInput, catalogue: Catalogue): void {
  const refuseKnown = (field: string, word: string): void => {
    // A word that the catalogue has with several meanings may be settled for the collection.
    const meanings = catalogue.names.get(squeeze(word))?.length ?? 0;
    if (meanings === 1 || (meanings > 1 && field !== 'word'))
      throw invalidField(field, 'is a word that the catalogue has already');
  };
  if (entry.kind === 'alias') {
    refuseKnown('word', entry.word);
    const [unknown] = parseGenes(entry.genes, catalogue).unknown;
    if (unknown) throw invalidField('genes', unreadWords(unknown));
    return;
  }
  if (entry.kind === 'recombination') {
    const locus = catalogue.locusById(entry.locus);
    if (!locus) throw invalidField('locus', 'is not in the catalogue');
    if (!locus.sexLinked) throw invalidField('locus', 'is not on the sex chromosomes');
    return;
  }
  if (entry.kind === 'correction') {
    const known = catalogue.alleleById(entry.allele);
    if (!known) throw invalidField('allele', 'is not in the catalogue');
    if (entry.double && entry.double !== known.allele.double) refuseKnown('double', entry.double);
    refuseMixed(known.locus, known.allele.id, entry.expression);
    return;
  }
  if (entry.kind === 'marker') {
    checkMarker(entry, catalogue);
    return;
  }
  if (isGeneRule(entry)) {
    checkGenes(entry, catalogue);
    if (entry.kind === 'compound') refuseKnown('name', entry.name);
    return;
  }
  if (ownId(entry.name) === 'own-') throw invalidField('name', 'needs letters or digits');
  refuseKnown('name', entry.name);
  if (entry.double) refuseKnown('double', entry.double);
  if (entry.kind === 'allele') {
    const locus = catalogue.locusById(entry.locus);
    if (!locus) throw invalidField('locus', 'is not in the catalogue');
    if (locus.alleles.length >= MOST_ALLELES)
      throw invalidField('locus', `has ${MOST_ALLELES} alleles, which is the most`);
    refuseMixed(locus, null, entry.expression);
  }
}

/** In a complex all alleles are recessive, or none: two that are not would make compounds that nobody can read. */
function refuseMixed(locus: Locus, except: string | null, expression: Expression): void {
  const others = locus.alleles.filter(({ id }) => id !== except);
  if (others.length === 0) return;
  const isRecessive = others.every((allele) => allele.expression === 'recessive');
  if (isRecessive !== (expression === 'recessive')) {
    throw invalidField(
      'expression',
      isRecessive ? 'must be recessive in this complex' : 'cannot be recessive here',
    );
  }
}
