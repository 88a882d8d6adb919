import type { Completeness, Sureness } from '@karyotome/core';
import Joi from 'joi';
import { id, massG, optional, pastDay, text, type Optional } from './fields.ts';
import { originBodies, type OriginBodies } from './origin-records.ts';
import { ENTERED_STATUSES, SEXES, type Sex, type Status } from './animal-status.ts';
import { COMPLETENESSES, SURENESSES } from './sureness.ts';

export interface NewAnimal {
  number: string;
  name?: Optional<string>;
  sex: Sex;
  hatchedOn?: Optional<string>;
  /** Trade shorthand. */
  genes?: Optional<string>;
  sure?: Optional<Sureness>;
  /** What the statement of its genes leaves open; left out: nothing, what it does not name is not there. */
  completeness?: Optional<Completeness>;
  identifiedBy?: Optional<string>;
  damId?: Optional<string>;
  sireId?: Optional<string>;
  massG?: Optional<number>;
  status?: Optional<Status>;
  tubId?: Optional<string>;
  note?: Optional<string>;
  /** Where it comes from, and on which day it came. */
  origin?: Optional<Origin>;
  /** Newcomers are kept apart for so many days from the day they came. */
  quarantineDays?: Optional<number>;
}

export type Origin = OriginBodies['acquisition'] & { on: string };

const animalFields = {
  number: text(40).min(1),
  name: optional(text(80).allow('')),
  sex: Joi.string().valid(...SEXES),
  hatchedOn: optional(pastDay()),
  damId: optional(id()),
  sireId: optional(id()),
  status: Joi.string().valid(...ENTERED_STATUSES),
  note: optional(text(2000).allow('')),
};

export const newAnimal = Joi.object<NewAnimal, true>({
  ...animalFields,
  number: animalFields.number.required(),
  sex: animalFields.sex.required(),
  status: optional(animalFields.status),
  genes: optional(text(300).allow('')),
  sure: optional(Joi.string().valid(...SURENESSES)),
  completeness: optional(Joi.string().valid(...COMPLETENESSES)),
  identifiedBy: optional(text(80).allow('')),
  massG: optional(massG()),
  tubId: optional(id()),
  origin: optional(originBodies.acquisition.append<Origin>({ on: pastDay().required() })),
  quarantineDays: optional(Joi.number().integer().min(1).max(365)),
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
