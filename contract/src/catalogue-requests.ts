import { ZONES, type CatalogueEntry } from '@karyotome/core';
import Joi from 'joi';
import { optional, text } from './fields.ts';

const EXPRESSIONS = ['recessive', 'incomplete-dominant', 'dominant'] as const;

const geneName = (): Joi.StringSchema => text(40).min(2);

const recombination = (): Joi.NumberSchema => Joi.number().min(0).max(0.5);

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
    ],
    otherwise: Joi.object({
      kind: Joi.string()
        .valid('locus', 'allele', 'alias', 'correction', 'recombination', 'marker')
        .required(),
    }).unknown(),
  })
  .required() as Joi.Schema as Joi.ObjectSchema<CatalogueEntryInput>;
