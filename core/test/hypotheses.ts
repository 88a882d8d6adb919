import type { Hypothesis } from '../src/identify/phenotype-space.ts';

/** A locus at which an animal has one copy of an allele, or none, as likely as not. */
export const half = (locus: string, allele = locus): Hypothesis['loci'][number] => ({
  locus,
  genotypes: [
    { genotype: ['+', '+'], p: 0.5 },
    { genotype: ['+', allele], p: 0.5 },
  ],
});
/** A daughter of the one sire there is. */
export const only = (...loci: Hypothesis['loci'][number][]): Hypothesis[] => [
  { sire: 'sire', sex: 'female', weight: 1, loci },
];
