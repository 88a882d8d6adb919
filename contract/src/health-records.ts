import { HEALTH_SIGNS, QUARANTINE_REASONS, type HealthSign, type QuarantineReason } from '@karyotome/core';
import Joi from 'joi';
import { day, id, optional, text } from './fields.ts';

/** What the dated records of an animal's health hold. */
export interface HealthBodies {
  /** A look at it. Without a sign and without words: nothing was found. */
  'health-check': { signs: HealthSign[]; words?: string | null };
  /** What a veterinarian found and said, in their words. */
  'vet-visit': { veterinarian: string; words: string; nextOn?: string | null };
  /** A course as it was ordered. Nothing of it is proposed by the application. */
  treatment: {
    what: string;
    dose: string;
    orderedBy: string;
    from: string;
    everyDays: number;
    timesADay: number;
    /** Doses in all; null: until it is ended. */
    doses: number | null;
    weighEveryDays?: number | null;
  };
  /** One dose of a course, by its number. */
  dose: { courseId: string; ordinal: number; isGiven: boolean };
  'treatment-end': { courseId: string; reason: string };
  /** Kept apart until a day; null: not any longer. */
  quarantine: { until: string | null; reason: QuarantineReason };
  'post-mortem': { by: string; words: string };
}

/** Longer and denser than any course there is: keeps out slips of typing. */
const MOST_DOSES = 1000;

export const healthBodies: { [K in keyof HealthBodies]: Joi.ObjectSchema<HealthBodies[K]> } = {
  'health-check': Joi.object<HealthBodies['health-check'], true>({
    signs: Joi.array<HealthSign[]>()
      .items(Joi.string().valid(...HEALTH_SIGNS))
      .unique()
      .required(),
    words: optional(text(1000).allow('')),
  }),
  'vet-visit': Joi.object<HealthBodies['vet-visit'], true>({
    veterinarian: text(80).min(1).required(),
    words: text(4000).min(1).required(),
    nextOn: optional(day()),
  }),
  treatment: Joi.object<HealthBodies['treatment'], true>({
    what: text(120).min(1).required(),
    dose: text(120).min(1).required(),
    orderedBy: text(80).min(1).required(),
    from: day().required(),
    everyDays: Joi.number().integer().min(1).max(60).required(),
    timesADay: Joi.number().integer().min(1).max(6).required(),
    doses: Joi.number().integer().min(1).max(MOST_DOSES).allow(null).required(),
    weighEveryDays: optional(Joi.number().integer().min(1).max(60)),
  }),
  dose: Joi.object<HealthBodies['dose'], true>({
    courseId: id().required(),
    ordinal: Joi.number().integer().min(1).max(MOST_DOSES).required(),
    isGiven: Joi.boolean().required(),
  }),
  'treatment-end': Joi.object<HealthBodies['treatment-end'], true>({
    courseId: id().required(),
    reason: text(300).min(1).required(),
  }),
  quarantine: Joi.object<HealthBodies['quarantine'], true>({
    until: day().allow(null).required(),
    reason: Joi.string()
      .valid(...QUARANTINE_REASONS)
      .required(),
  }),
  'post-mortem': Joi.object<HealthBodies['post-mortem'], true>({
    by: text(80).min(1).required(),
    words: text(4000).min(1).required(),
  }),
};
