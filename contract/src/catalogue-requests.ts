import { ZONES, type CatalogueEntry } from '@karyotome/core';
import Joi from 'joi';
import { optional, text } from './fields.ts';

const EXPRESSIONS = ['recessive', 'incomplete-dominant', 'dominant'] as const;

const geneName = (): Joi.StringSchema => text(40).min(2);

const recombination = (): Joi.NumberSchema => Joi.number().min(0).max(0.5);

/** Two alleles of one locus, of which one may be the wild type. */
const pair = (): Joi.ArraySchema => Joi.array().items(text(60).min(1)).length(2);

const ENTRY_KINDS = [
  'locus',
  'allele',
  'alias',
  'correction',
  'recombination',
  'compound',
  'viability',
  'allelism',
  'frequency',
  'label-order',
  'marker',
] as const satisfies readonly CatalogueEntry['kind'][];

/** Never quite never, never quite always: one look must not settle what others contradict. */
const chance = (): Joi.NumberSchema => Joi.number().min(0.01).max(0.99);

/** A gene, allele, alias or correction that a collection adds to the catalogue. */
export type CatalogueEntryInput = CatalogueEntry;

export const catalogueEntry = Joi.alternatives()
  .conditional('.kind', {
    switch: [
      {
        is: 'locus',
        then: Joi.object<Extract<CatalogueEntryInput, { kind: 'locus' }>, true>({
          kind: Joi.string().valid('locus').required(),
          name: geneName().required(),
          expression: Joi.string()
            .valid(...EXPRESSIONS)
            .required(),
          double: optional(geneName()),
          recombination: optional(recombination()),
          isUnproven: Joi.boolean().optional(),
        }),
      },
      {
        is: 'allele',
        then: Joi.object<Extract<CatalogueEntryInput, { kind: 'allele' }>, true>({
          kind: Joi.string().valid('allele').required(),
          locus: text(60).min(1).required(),
          name: geneName().required(),
          expression: Joi.string()
            .valid(...EXPRESSIONS)
            .required(),
          double: optional(geneName()),
        }),
      },
      {
        is: 'alias',
        then: Joi.object<Extract<CatalogueEntryInput, { kind: 'alias' }>, true>({
          kind: Joi.string().valid('alias').required(),
          word: geneName().required(),
          genes: text(120).min(2).required(),
        }),
      },
      {
        is: 'correction',
        then: Joi.object<Extract<CatalogueEntryInput, { kind: 'correction' }>, true>({
          kind: Joi.string().valid('correction').required(),
          allele: text(60).min(1).required(),
          expression: Joi.string()
            .valid(...EXPRESSIONS)
            .required(),
          double: optional(geneName()),
        }),
      },
      {
        is: 'recombination',
        then: Joi.object<Extract<CatalogueEntryInput, { kind: 'recombination' }>, true>({
          kind: Joi.string().valid('recombination').required(),
          locus: text(60).min(1).required(),
          recombination: recombination().required(),
        }),
      },
      {
        is: 'marker',
        then: Joi.object<Extract<CatalogueEntryInput, { kind: 'marker' }>, true>({
          kind: Joi.string().valid('marker').required(),
          phenotype: text(80).min(1).required(),
          zone: Joi.string()
            .valid(...ZONES)
            .required(),
          text: text(120).min(2).required(),
          pWith: chance().required(),
          pWithout: chance().required(),
        }),
      },
      {
        is: 'compound',
        then: Joi.object<Extract<CatalogueEntryInput, { kind: 'compound' }>>({
          kind: Joi.string().valid('compound').required(),
          alleles: pair().required(),
          name: geneName().required(),
        }),
      },
      {
        is: 'viability',
        then: Joi.object<Extract<CatalogueEntryInput, { kind: 'viability' }>>({
          kind: Joi.string().valid('viability').required(),
          alleles: pair().required(),
          p: Joi.number().min(0).max(1).required(),
        }),
      },
      {
        is: 'allelism',
        then: Joi.object<Extract<CatalogueEntryInput, { kind: 'allelism' }>, true>({
          kind: Joi.string().valid('allelism').required(),
          allele: text(60).min(1).required(),
          locus: text(60).min(1).required(),
        }),
      },
      {
        is: 'frequency',
        then: Joi.object<Extract<CatalogueEntryInput, { kind: 'frequency' }>, true>({
          kind: Joi.string().valid('frequency').required(),
          allele: text(60).min(1).required(),
          frequency: Joi.number().min(0).max(0.5).required(),
        }),
      },
      {
        is: 'label-order',
        then: Joi.object<Extract<CatalogueEntryInput, { kind: 'label-order' }>>({
          kind: Joi.string().valid('label-order').required(),
          loci: Joi.array().items(text(60).min(1)).unique().max(400).required(),
        }),
      },
    ],
    otherwise: Joi.object({
      kind: Joi.string()
        .valid(...ENTRY_KINDS)
        .required(),
    }).unknown(),
  })
  .required() as Joi.Schema as Joi.ObjectSchema<CatalogueEntryInput>;

/** The version whose changes were seen. */
export const catalogueUpdate = Joi.object<{ version: string }, true>({
  version: text(20).required(),
});
