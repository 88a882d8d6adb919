import {
  EGG_EVENTS,
  EGG_SIGNS,
  EGG_VERDICTS,
  type EggEventKind,
  type EggSign,
  type EggVerdict,
} from '@karyotome/core';
import Joi from 'joi';
import { noTwo, id, optional, pastDay, text, type Optional } from './fields.ts';

/** One egg as it lies in its box. */
export interface EggInput {
  id?: string;
  verdict: EggVerdict;
  massG: number | null;
  /** Eggs of one number stuck together. */
  stuck: number | null;
  /** Its top is marked. */
  marked: boolean;
  /** Where its middle lies in the box, in hundredths of the box's width and depth. */
  x: number;
  y: number;
}
export interface BoxChange {
  eggs: EggInput[];
}
export const boxChange = Joi.object<BoxChange, true>({
  eggs: Joi.array<EggInput[]>()
    .items(
      Joi.object<EggInput, true>({
        id: id(),
        verdict: Joi.string()
          .valid(...EGG_VERDICTS)
          .required(),
        massG: Joi.number().min(5).max(300).allow(null).required(),
        stuck: Joi.number().integer().min(1).max(15).allow(null).required(),
        marked: Joi.boolean().required(),
        x: Joi.number().min(0).max(100).required(),
        y: Joi.number().min(0).max(100).required(),
      }),
    )
    .min(1)
    .max(30)
    .custom(noTwo('id'))
    .required(),
});

export interface ClutchChange {
  laidOn?: string;
  incubationC?: Optional<number>;
  incubatorId?: Optional<string>;
  note?: Optional<string>;
}
export const clutchChange = Joi.object<ClutchChange, true>({
  laidOn: pastDay(),
  incubationC: optional(Joi.number().min(20).max(40)),
  incubatorId: optional(id()),
  note: optional(text(2000).allow('')),
}).min(1);

/** What was seen of some eggs, or of the whole clutch, on a day. */
export interface NewEggEvents {
  kind: EggEventKind;
  on: string;
  /** Null: the whole clutch. Only a check can be of the whole clutch. */
  eggIds: string[] | null;
  signs?: EggSign[];
  young?: number;
  note?: Optional<string>;
}
export const newEggEvents = Joi.object<NewEggEvents, true>({
  kind: Joi.string()
    .valid(...EGG_EVENTS)
    .required(),
  on: pastDay().required(),
  eggIds: Joi.array<string[]>()
    .items(id())
    .min(1)
    .max(30)
    .custom(noTwo())
    .required()
    .when('kind', { is: 'check', then: Joi.allow(null) }),
  signs: Joi.array<EggSign[]>()
    .items(Joi.string().valid(...EGG_SIGNS))
    .max(EGG_SIGNS.length)
    .custom(noTwo()),
  young: Joi.number().integer().min(1).max(2),
  note: optional(text(500).allow('')),
});

export interface EggEventsVoiding {
  ids: string[];
  reason: string;
}
export const eggEventsVoiding = Joi.object<EggEventsVoiding, true>({
  ids: Joi.array<string[]>().items(id()).min(1).max(60).custom(noTwo()).required(),
  reason: text(300).min(1).required(),
});

export interface NewFeed {
  name: string;
}
export const newFeed = Joi.object<NewFeed, true>({ name: text(60).min(1).required() });
