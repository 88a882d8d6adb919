import { ZONES, type CatalogueEntry, type NumberPattern, type Sureness } from '@karyotome/core';
import Joi from 'joi';
import { noTwo, id, massG, optional, pastDay, text, timeZone, type Optional } from './fields.ts';
import { SURENESSES } from './sureness.ts';

export const SEXES = ['female', 'male', 'unknown'] as const;
export type Sex = (typeof SEXES)[number];
export const STATUSES = [
  'undecided',
  'held-back',
  'for-sale',
  'reserved',
  'sold',
  'breeder',
  'died',
  /** Entered by mistake: it keeps its number and history, and is counted nowhere. */
  'mistaken',
] as const;
export type Status = (typeof STATUSES)[number];

/** Not here any more, or never was: no daily work, no place, no plans. */
export const GONE: readonly Status[] = ['sold', 'died', 'mistaken'];
export const isGone = ({ status }: { status: Status }): boolean => GONE.includes(status);

export interface SignIn {
  email: string;
  password: string;
}
export const signIn = Joi.object<SignIn, true>({
  email: Joi.string().email({ tlds: false }).max(200).required(),
  password: Joi.string().min(1).max(200).required(),
});

export interface CollectionSettings {
  name: string;
  numberPattern: NumberPattern;
  massUnit: 'g' | 'oz';
  temperatureUnit: 'C' | 'F';
  ladderId: Optional<string>;
  /** The farm's time zone, whose days all records have; null until it was said. */
  timeZone?: Optional<string>;
}
export const collectionSettings = Joi.object<CollectionSettings, true>({
  name: text(80).min(1).required(),
  numberPattern: Joi.string().valid('season-clutch-hatchling', 'running', 'free').required(),
  massUnit: Joi.string().valid('g', 'oz').required(),
  temperatureUnit: Joi.string().valid('C', 'F').required(),
  ladderId: optional(id()),
  timeZone: optional(timeZone()),
});

export interface NewAnimal {
  number: string;
  name?: Optional<string>;
  sex: Sex;
  hatchedOn?: Optional<string>;
  /** Trade shorthand. */
  genes?: Optional<string>;
  sure?: Optional<Sureness>;
  identifiedBy?: Optional<string>;
  damId?: Optional<string>;
  sireId?: Optional<string>;
  massG?: Optional<number>;
  status?: Optional<Status>;
  tubId?: Optional<string>;
  note?: Optional<string>;
}
const animalFields = {
  number: text(40).min(1),
  name: optional(text(80).allow('')),
  sex: Joi.string().valid(...SEXES),
  hatchedOn: optional(pastDay()),
  damId: optional(id()),
  sireId: optional(id()),
  status: Joi.string().valid(...STATUSES),
  note: optional(text(2000).allow('')),
};
export const newAnimal = Joi.object<NewAnimal, true>({
  ...animalFields,
  number: animalFields.number.required(),
  sex: animalFields.sex.required(),
  status: optional(animalFields.status),
  genes: optional(text(300).allow('')),
  sure: optional(Joi.string().valid(...SURENESSES)),
  identifiedBy: optional(text(80).allow('')),
  massG: optional(massG()),
  tubId: optional(id()),
});

export interface AnimalChange {
  name?: Optional<string>;
  hatchedOn?: Optional<string>;
  damId?: Optional<string>;
  sireId?: Optional<string>;
  status?: Status;
  note?: Optional<string>;
}
export const animalChange = Joi.object<AnimalChange, true>({
  name: animalFields.name,
  hatchedOn: animalFields.hatchedOn,
  damId: animalFields.damId,
  sireId: animalFields.sireId,
  status: animalFields.status,
  note: animalFields.note,
}).min(1);

export interface PairingSire {
  animalId: string;
  /** How likely he is beside the others, before any gene is looked at. */
  weight: number;
  /** A mate of an earlier season, whose stored sperm may have been used. */
  stored?: boolean;
}
export interface NewPairing {
  season: number;
  damId: string;
  sires: PairingSire[];
  startedOn: string;
  note?: Optional<string>;
}
/** The candidate sires of a pairing with their weights, each once. */
export const candidateSires = (): Joi.ArraySchema<PairingSire[]> =>
  Joi.array<PairingSire[]>()
    .items(
      Joi.object<PairingSire, true>({
        animalId: id().required(),
        weight: Joi.number().min(0.000_001).max(1000).required(),
        stored: Joi.boolean(),
      }),
    )
    .min(1)
    .max(8)
    .custom(noTwo('animalId'));
export const newPairing = Joi.object<NewPairing, true>({
  season: Joi.number().integer().min(1990).max(2100).required(),
  damId: id().required(),
  sires: candidateSires().required(),
  startedOn: pastDay().required(),
  note: optional(text(2000).allow('')),
});

export interface NewClutch {
  pairingId: string;
  laidOn: string;
  eggs: number;
  slugs?: Optional<number>;
  incubationC?: Optional<number>;
  incubatorId?: Optional<string>;
  note?: Optional<string>;
}
export const newClutch = Joi.object<NewClutch, true>({
  pairingId: id().required(),
  laidOn: pastDay().required(),
  eggs: Joi.number().integer().min(1).max(30).required(),
  slugs: optional(Joi.number().integer().min(0).max(30)),
  incubationC: optional(Joi.number().min(20).max(40)),
  incubatorId: optional(id()),
  note: optional(text(2000).allow('')),
});

export interface Hatching {
  hatchedOn: string;
  hatched: number;
  /** Needed where the collection numbers by free text. */
  numbers?: string[];
}
export const hatching = Joi.object<Hatching, true>({
  hatchedOn: pastDay().required(),
  hatched: Joi.number().integer().min(1).max(60).required(),
  numbers: Joi.array<string[]>().items(text(40).min(1)).max(60).custom(noTwo()),
});

export interface LadderStepInput {
  name: string;
  minG: number;
  maxG: number | null;
  inside: string;
  mealsBefore?: Optional<number>;
}
export interface NewLadder {
  name: string;
  steps: LadderStepInput[];
}
export const newLadder = Joi.object<NewLadder, true>({
  name: text(80).min(1).required(),
  steps: Joi.array<LadderStepInput[]>()
    .items(
      Joi.object<LadderStepInput, true>({
        name: text(80).min(1).required(),
        minG: Joi.number().min(0).max(20_000).required(),
        maxG: Joi.number().greater(Joi.ref('minG')).max(20_000).allow(null).required(),
        inside: text(80).allow('').required(),
        mealsBefore: optional(Joi.number().integer().min(0).max(50)),
      }),
    )
    .min(1)
    .max(12)
    .required(),
}).messages({ 'number.greater': 'must be more than the weight it starts from' });

export interface NewRack {
  room: string;
  name: string;
  levels: number;
  tubsPerLevel: number;
  ladderId: string;
  stepPosition: number;
}
export const newRack = Joi.object<NewRack, true>({
  room: text(60).min(1).required(),
  name: text(60).min(1).required(),
  levels: Joi.number().integer().min(1).max(20).required(),
  tubsPerLevel: Joi.number().integer().min(1).max(20).required(),
  ladderId: id().required(),
  stepPosition: Joi.number().integer().min(0).max(11).required(),
});

export interface Publishing {
  /** Words for buyers; private notes never show. */
  text?: Optional<string>;
}
export const publishing = Joi.object<Publishing, true>({ text: optional(text(2000).allow('')) });

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
