import type { Observation, Observations, Sureness } from '@karyotome/core';
import Joi from 'joi';
import { day, noTwo, id, optional, pastDay, text, type Optional } from './fields.ts';
import { SURENESSES } from './sureness.ts';

/** What was seen of one animal, marker by marker; one left out is one of which nothing can be said. */
export interface ObservationsChange {
  observations: Record<string, Observation>;
}
export const observations = (): Joi.ObjectSchema<Record<string, Observation>> =>
  Joi.object<Observations>()
    .pattern(text(160).min(3), Joi.string().valid('seen', 'not-seen'))
    .max(120) as Joi.ObjectSchema<Record<string, Observation>>;
export const observationsChange = Joi.object<ObservationsChange, true>({
  observations: observations().required(),
});

/** The table's groups: like with like. An animal in none of them lies where it came from. */
export interface SortingChange {
  groups: { name: string; animalIds: string[] }[];
}
export const sortingChange = Joi.object<SortingChange, true>({
  groups: Joi.array<SortingChange['groups']>()
    .items(
      Joi.object<SortingChange['groups'][number], true>({
        name: text(40).min(1).required(),
        animalIds: Joi.array<string[]>().items(id()).max(60).custom(noTwo()).required(),
      }),
    )
    .max(12)
    .required(),
});

/** What somebody else says an animal is. It is kept beside the identification and moves no odds. */
export interface NewOpinion {
  by: string;
  genes: string;
  sure: Sureness;
  note?: Optional<string>;
}
const opinion = {
  genes: text(300).min(1).required(),
  sure: Joi.string()
    .valid(...SURENESSES)
    .required(),
  note: optional(text(1000).allow('')),
};
export const newOpinion = Joi.object<NewOpinion, true>({ by: text(80).min(1).required(), ...opinion });

/** An address for somebody without an account, good for one answer. */
export interface NewOpinionLink {
  animalIds: string[];
  note?: Optional<string>;
}
export const newOpinionLink = Joi.object<NewOpinionLink, true>({
  animalIds: Joi.array<string[]>().items(id()).min(1).max(60).custom(noTwo()).required(),
  note: optional(text(500).allow('')),
});

/** The one answer to such an address. */
export interface OutsideOpinions {
  by: string;
  opinions: { animalId: string; genes: string; sure: Sureness; note?: Optional<string> }[];
}
export const outsideOpinions = Joi.object<OutsideOpinions, true>({
  by: text(80).min(1).required(),
  opinions: Joi.array<OutsideOpinions['opinions']>()
    .items(Joi.object<OutsideOpinions['opinions'][number], true>({ animalId: id().required(), ...opinion }))
    .min(1)
    .max(60)
    .custom(noTwo('animalId'))
    .required(),
});

/** Sizes of labels and sheets, by what they measure. */
export const LABEL_SIZES = [
  'roll-50x25',
  'roll-57x32',
  'roll-62x29',
  'roll-76x51',
  'a4-3x7',
  'a4-3x8',
  'letter-3x10',
  'letter-2x5',
] as const;
export type LabelSize = (typeof LABEL_SIZES)[number];
export const LABEL_KINDS = ['numbers', 'full'] as const;
export type LabelKind = (typeof LABEL_KINDS)[number];

export interface LabelOrder {
  animalIds: string[];
  kind: LabelKind;
  size: LabelSize;
  /** Places already used on the first sheet. */
  skip?: number;
}
export const labelOrder = Joi.object<LabelOrder, true>({
  animalIds: Joi.array<string[]>().items(id()).min(1).max(120).custom(noTwo()).required(),
  kind: Joi.string()
    .valid(...LABEL_KINDS)
    .required(),
  size: Joi.string()
    .valid(...LABEL_SIZES)
    .required(),
  skip: Joi.number().integer().min(0).max(29),
});

export const START_PROTOCOLS = ['live-pinkies', 'frozen-first', 'small-mice'] as const;
export type StartProtocol = (typeof START_PROTOCOLS)[number];

/** A clutch goes into its tubs. */
export interface SettingUp {
  on: string;
  substrate: string;
  places: { animalId: string; tubId: string }[];
  /** How they are started on food, and the day of the first offer. */
  plan: { protocol: StartProtocol; firstMealOn: string } | null;
}
export const settingUp = Joi.object<SettingUp, true>({
  on: pastDay().required(),
  substrate: text(60).min(1).required(),
  places: Joi.array<SettingUp['places']>()
    .items(
      Joi.object<SettingUp['places'][number], true>({ animalId: id().required(), tubId: id().required() }),
    )
    .min(1)
    .max(60)
    .custom(noTwo('animalId'))
    .custom(noTwo('tubId'))
    .required(),
  plan: Joi.object<NonNullable<SettingUp['plan']>, true>({
    protocol: Joi.string()
      .valid(...START_PROTOCOLS)
      .required(),
    firstMealOn: day().required(),
  })
    .allow(null)
    .required(),
});
