import type { CatalogueEntryInput } from '@karyotome/contract';
import { WILD, type Catalogue } from '@karyotome/core';

/** An entry of the collection's own in one line. */
export function entryWords(entry: CatalogueEntryInput, catalogue: Catalogue): string {
  const locusName = (id: string): string => catalogue.locusById(id)?.name ?? id;
  const both = (alleles: readonly string[]): string =>
    alleles.map((id) => (id === WILD ? 'wild type' : catalogue.alleleName(id))).join(' with ');
  switch (entry.kind) {
    case 'locus':
      if (entry.isUnproven) return `${entry.name}: looks different, not proven`;
      return `${entry.name}: a gene of its own, ${entry.expression.replace('-', ' ')}${entry.recombination == null ? '' : ', sex-linked'}`;
    case 'allele':
      return `${entry.name}: an allele of ${locusName(entry.locus)}`;
    case 'alias':
      return `“${entry.word}” stands for ${entry.genes}`;
    case 'correction':
      return `${catalogue.alleleName(entry.allele)} is ${entry.expression.replace('-', ' ')}`;
    case 'recombination':
      return `${locusName(entry.locus)} crosses over in ${entry.recombination * 100}%`;
    case 'marker':
      return `${entry.zone}: ${entry.text}, a marker of ${both(entry.phenotype.split('/'))}`;
    case 'compound':
      return `${both(entry.alleles)} is called ${entry.name}`;
    case 'viability':
      return `${both(entry.alleles)}: ${Math.round(entry.p * 100)} of a hundred eggs hatch`;
    case 'allelism':
      return `${catalogue.alleleName(entry.allele)} is an allele of ${locusName(entry.locus)}`;
    case 'frequency':
      return `${catalogue.alleleName(entry.allele)} is carried unsaid: ${entry.frequency * 100}% of alleles`;
    case 'label-order':
      return `Labels begin with ${entry.loci.map(locusName).join(', ') || 'nothing in particular'}`;
  }
}
