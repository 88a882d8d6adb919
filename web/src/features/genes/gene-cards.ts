import {
  agreementOn,
  COMBINATION_WORDS,
  WILD,
  wordsFor,
  type Agreement,
  type Catalogue,
  type CatalogueMarker,
  type Expression,
  type Locus,
} from '@karyotome/core';

export interface AlleleCard {
  readonly id: string;
  readonly name: string;
  readonly expression: Expression;
  readonly double: string;
  readonly words: readonly string[];
  readonly markers: readonly CatalogueMarker[];
  readonly isOwn: boolean;
}

export interface GeneCard {
  readonly locus: Locus;
  readonly alleles: readonly AlleleCard[];
  readonly isComplex: boolean;
  readonly isOwn: boolean;
  readonly agreement: Agreement;
  /** What showing animals hide of other genes, in words. */
  readonly hides: readonly string[];
  /** Which eggs do not live, or not all. */
  readonly lives: readonly string[];
  /** Everything a search looks at. */
  readonly text: string;
}

const HIDES: Readonly<Record<string, string>> = {
  everything: 'hides nearly every other gene',
  black: 'hides markers that are made of black',
  pattern: 'hides pattern where it is white',
};

/** All doubles and compounds, or the few that do. */
function doublesThatHide({ alleles, doublesThatHide: phenotype }: Locus): string {
  if (!phenotype || phenotype.length > 3) return 'A white double or compound';
  const names = phenotype.map((look) => {
    const allele = alleles.find(({ id }) => look === `${id}/${id}`);
    return allele?.double ?? `Super ${allele?.name ?? look}`;
  });
  return names.join(', ');
}

/** "Super Spider: no such egg hatches", as far as the trade agrees. */
function livingWords({ viability = [] }: Locus, catalogue: Catalogue): string[] {
  return viability.map(({ genotype: [a, b], p }) => {
    const name = a === WILD ? catalogue.alleleName(b) : catalogue.pairName([a, b]);
    return p === 0
      ? `${name}: no such egg is taken to hatch, and odds of hatchlings leave it out.`
      : `${name}: ${Math.round(p * 100)} of a hundred such eggs hatch.`;
  });
}

const isOwnId = (id: string): boolean => id.startsWith('own-');

/** The catalogue as cards, complexes first, in the order of a label. */
export function geneCards(catalogue: Catalogue): GeneCard[] {
  const cards = catalogue.loci.map((locus): GeneCard => {
    const alleles = locus.alleles.map((allele): AlleleCard => ({
      id: allele.id,
      name: allele.name,
      expression: allele.expression,
      double: catalogue.pairName([allele.id, allele.id]),
      words: wordsFor(allele.id).filter((word) => word !== allele.name.toLowerCase()),
      markers: catalogue.markers.filter(({ phenotypes }) =>
        phenotypes.some((text) => text.split('/').includes(allele.id)),
      ),
      isOwn: isOwnId(allele.id),
    }));
    const hides = [
      ...(locus.hides ? [`One that shows ${HIDES[locus.hides]}.`] : []),
      ...(locus.doublesHide ? [`${doublesThatHide(locus)} ${HIDES[locus.doublesHide]}.`] : []),
    ];
    return {
      locus,
      alleles,
      isComplex: locus.alleles.length > 1,
      isOwn: isOwnId(locus.id),
      agreement: agreementOn(locus.id),
      hides,
      lives: livingWords(locus, catalogue),
      text: [
        locus.name,
        ...alleles.flatMap(({ name, double, words, markers }) => [
          name,
          double,
          ...words,
          ...markers.map((marker) => `${marker.zone} ${marker.text}`),
        ]),
        ...locus.compounds.map(({ name }) => name),
        ...(locus.notes ?? []),
        ...(locus.welfare ?? []).map(({ text }) => text),
        ...hides,
      ]
        .join(' ')
        .toLowerCase(),
    };
  });
  return cards.toSorted((a, b) => Number(b.isComplex) - Number(a.isComplex));
}

export const EXPRESSION_WORDS: Readonly<Record<Expression, string>> = {
  recessive: 'recessive: two copies show, one is carried unseen',
  'incomplete-dominant': 'incomplete dominant: one copy shows, two show differently',
  dominant: 'dominant: one copy shows, two look the same',
};

export const AGREEMENT_WORDS: Readonly<Record<Agreement, string>> = {
  settled: 'the trade agrees',
  usual: 'the usual view',
  debated: 'debated',
};

/** Names of combinations and what they stand for, those of the collection after the built-in ones. */
export function combinations(own: readonly { word: string; genes: string }[]): [string, string][] {
  return [
    ...Object.entries(COMBINATION_WORDS).map(([word, genes]): [string, string] => [
      word,
      [genes].flat().join(', or '),
    ]),
    ...own.map(({ word, genes }): [string, string] => [word, genes]),
  ];
}
