export {
  allGenotypes,
  appearance,
  canonical,
  welfareNotes,
  type Genotype,
  type WeightedGenotype,
} from './genotype.ts';
export { WILD, type Allele, type Compound, type Expression, type Hides, type Locus } from './locus.ts';
