export {
  allGenotypes,
  appearance,
  canonical,
  viabilityOf,
  welfareNotes,
  type Genotype,
  type WeightedGenotype,
} from './genotype.ts';
export {
  MOST_ALLELES,
  WILD,
  type Allele,
  type Compound,
  type Expression,
  type Hides,
  type Locus,
  type Viability,
} from './locus.ts';
