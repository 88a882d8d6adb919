import { EVENTS_WITH_MALE, SEASON_EVENTS, type SeasonEventKind, type SeasonRules } from '@karyotome/core';
import Joi from 'joi';
import { id, optional, pastDay, text, type Optional } from './fields.ts';
import { candidateSires, type PairingSire } from './breeding-requests.ts';

export const seasonRules = Joi.object<SeasonRules, true>({
  femaleFloorG: Joi.number().min(300).max(5000).required(),
  olderFemaleFloorG: Joi.number().min(300).max(5000).required(),
  olderFromYears: Joi.number().min(1).max(20).required(),
  femaleFromYears: Joi.number().min(0.5).max(10).required(),
  femaleRestDays: Joi.number().integer().min(0).max(1000).required(),
  maleFloorG: Joi.number().min(200).max(5000).required(),
  maleFromYears: Joi.number().min(0.3).max(10).required(),
  maleLoad: Joi.number().integer().min(1).max(30).required(),
  maleRestDays: Joi.number().integer().min(0).max(60).required(),
  maleLossPercent: Joi.number().min(1).max(60).required(),
  inbreedingBound: Joi.number().min(0).max(1).required(),
  storedSpermShare: Joi.number().min(0).max(0.5).required(),
  storedSpermDays: Joi.number().integer().min(0).max(2000).required(),
  missedSeason: Joi.number().min(0).max(0.95).required(),
  seasonFromMonth: Joi.number().integer().min(1).max(12).required(),
  cutting: Joi.string().valid('after-first-pip', 'unpipped-at-day', 'never').required(),
  cutDay: Joi.number().integer().min(50).max(80).required(),
});

/** A male is put to a female; her pairing of the season begins with it, if it has not yet. */
export interface Introduction {
  damId: string;
  sireId: string;
  on: string;
}
export const introduction = Joi.object<Introduction, true>({
  damId: id().required(),
  sireId: id().required(),
  on: pastDay().required(),
});

export interface NewSeasonEvent {
  kind: SeasonEventKind;
  on: string;
  /** Which male: needed for an introduction, a lock and a separation. */
  sireId?: Optional<string>;
  note?: Optional<string>;
}
export const newSeasonEvent = Joi.object<NewSeasonEvent, true>({
  kind: Joi.string()
    .valid(...SEASON_EVENTS)
    .required(),
  on: pastDay().required(),
  sireId: id().when('kind', {
    is: Joi.valid(...EVENTS_WITH_MALE),
    then: Joi.required(),
    otherwise: Joi.optional().allow(null),
  }),
  note: optional(text(500).allow('')),
});

export type SeasonEventCorrection = NewSeasonEvent & { reason: string };
export const seasonEventCorrection = newSeasonEvent.append({
  reason: text(300).min(1).required(),
}) as Joi.ObjectSchema<SeasonEventCorrection>;

/** The candidate sires of a pairing with their weights. */
export interface SiresChange {
  sires: PairingSire[];
}
export const siresChange = Joi.object<SiresChange, true>({
  sires: candidateSires().required(),
});
