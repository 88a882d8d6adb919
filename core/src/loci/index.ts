export {
  allGenotypes,
  appearance,
  canonical,
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
} from './locus.ts';
