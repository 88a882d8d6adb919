import {
  CARE_ACTS,
  type CareAct,
  type Completeness,
  type OwnWay,
  type ShedStage,
  type Observation,
  type Sureness,
} from '@karyotome/core';
import Joi from 'joi';
import { day, id, massG, optional, pastDay, text } from './fields.ts';
import { observations, START_PROTOCOLS, type StartProtocol } from './bench-requests.ts';
import type { Sex } from './animal-status.ts';
import { healthBodies, type HealthBodies } from './health-records.ts';
import { originBodies, type OriginBodies } from './origin-records.ts';
import { COMPLETENESSES, SURENESSES } from './sureness.ts';

/** The dated records of an animal: what each kind holds. One table here, in the database and in the interface. */
export interface RecordBodies extends HealthBodies, OriginBodies {
  weight: { massG: number };
  feeding: {
    species: 'rat' | 'mouse' | 'other';
    size: string;
    preyG?: number | null;
    state: 'live' | 'frozen-thawed' | 'fresh-killed';
    taken: boolean;
    /** The step of the feeding plan it was offered by. */
    step?: string | null;
    light?: 'light' | 'dim' | 'dark' | null;
  };
  shed: { stage: ShedStage; complete?: boolean | null; eyeCaps?: boolean | null };
  sex: {
    sex: Exclude<Sex, 'unknown'>;
    method: 'popped' | 'probed' | 'genes' | 'bred' | 'stated';
    sure: Sureness;
    by: string;
  };
  identification: {
    genes: string;
    sure: Sureness;
    by: string;
    /** Of an animal that came in: what the statement leaves open; left out, it holds as before. */
    completeness?: Completeness | null;
    /** Why it is called so against the odds. */
    override?: string | null;
    /** The markers it rests on. */
    markers?: Record<string, Observation>;
    /** Of what it was called, before it was looked at and with the markers. */
    odds?: { pBefore: number; p: number } | null;
    /** What was left open, the likeliest first. */
    alternatives?: { genes: string; p: number }[];
  };
  move: { toTubId: string | null; reason: string; substrate?: string | null };
  /** How a hatchling is started on food. */
  plan: { protocol: StartProtocol; firstMealOn: string };
  /** What is done, or seen, at a tub besides meals, sheds and weights. */
  care: { act: CareAct };
  /** What it has of its own instead of the collection's rules; the last one counts whole. */
  'own-way': { -readonly [K in keyof OwnWay]?: OwnWay[K] | null | undefined };
  note: { text: string };
}
export type RecordKind = keyof RecordBodies;

export const PREY_SIZE_NAMES = [
  'pinky',
  'fuzzy',
  'hopper',
  'pup',
  'weaned',
  'adult',
  'small',
  'medium',
  'large',
] as const;

const probability = (): Joi.NumberSchema => Joi.number().min(0).max(1);

const bodies: { [K in RecordKind]: Joi.ObjectSchema<RecordBodies[K]> } = {
  weight: Joi.object<RecordBodies['weight'], true>({ massG: massG().required() }),
  feeding: Joi.object<RecordBodies['feeding'], true>({
    species: Joi.string().valid('rat', 'mouse', 'other').required(),
    size: Joi.string()
      .valid(...PREY_SIZE_NAMES)
      .required(),
    preyG: optional(Joi.number().min(0.5).max(2000)),
    state: Joi.string().valid('live', 'frozen-thawed', 'fresh-killed').required(),
    taken: Joi.boolean().required(),
    step: optional(text(40).min(1)),
    light: optional(Joi.string().valid('light', 'dim', 'dark')),
  }),
  shed: Joi.object<RecordBodies['shed'], true>({
    stage: Joi.string().valid('dull', 'blue', 'clear', 'shed').required(),
    complete: optional(Joi.boolean()),
    eyeCaps: optional(Joi.boolean()),
  }),
  sex: Joi.object<RecordBodies['sex'], true>({
    sex: Joi.string().valid('female', 'male').required(),
    method: Joi.string().valid('popped', 'probed', 'genes', 'bred', 'stated').required(),
    sure: Joi.string()
      .valid(...SURENESSES)
      .required(),
    by: text(80).min(1).required(),
  }),
  identification: Joi.object<RecordBodies['identification'], true>({
    genes: text(300).min(1).required(),
    sure: Joi.string()
      .valid(...SURENESSES)
      .required(),
    by: text(80).min(1).required(),
    completeness: optional(Joi.string().valid(...COMPLETENESSES)),
    override: optional(text(500).allow('')),
    markers: observations(),
    odds: optional(
      Joi.object<{ pBefore: number; p: number }, true>({
        pBefore: probability().required(),
        p: probability().required(),
      }),
    ),
    alternatives: Joi.array<{ genes: string; p: number }[]>()
      .items(
        Joi.object<{ genes: string; p: number }, true>({
          genes: text(300).min(1).required(),
          p: probability().required(),
        }),
      )
      .max(24),
  }),
  move: Joi.object<RecordBodies['move'], true>({
    toTubId: id().allow(null).required(),
    reason: text(300).min(1).required(),
    substrate: optional(text(60).allow('')),
  }),
  plan: Joi.object<RecordBodies['plan'], true>({
    protocol: Joi.string()
      .valid(...START_PROTOCOLS)
      .required(),
    firstMealOn: day().required(),
  }),
  care: Joi.object<RecordBodies['care'], true>({
    act: Joi.string()
      .valid(...CARE_ACTS)
      .required(),
  }),
  'own-way': Joi.object<RecordBodies['own-way'], true>({
    planId: optional(text(40).min(1)),
    everyDays: optional(Joi.number().integer().min(1).max(120)),
    share: optional(Joi.number().min(0.005).max(0.5)),
    species: optional(Joi.string().valid('rat', 'mouse')),
    stayUntilG: optional(massG()),
  }),
  ...healthBodies,
  ...originBodies,
  note: Joi.object<RecordBodies['note'], true>({ text: text(2000).min(1).required() }),
};

export const RECORD_KINDS = Object.keys(bodies) as RecordKind[];

/** A record as it is sent: its kind, its day, its body, and a private note. */
export type NewRecord = {
  [K in RecordKind]: { kind: K; on: string; body: RecordBodies[K]; note?: string | null };
}[RecordKind];

const dated = {
  on: pastDay().required(),
  note: optional(text(2000).allow('')),
};

export const newRecord = Joi.object({
  kind: Joi.string()
    .valid(...RECORD_KINDS)
    .required(),
  ...dated,
  body: Joi.object()
    .required()
    .when('kind', {
      switch: RECORD_KINDS.map((kind) => ({ is: kind, then: bodies[kind] })),
    }),
}) as Joi.ObjectSchema<NewRecord>;

/** A correction voids a record and puts another of the same kind in its place, keeping what was there. */
export type Correction = NewRecord & { reason: string };
export const correction = newRecord.append({
  reason: text(300).min(1).required(),
}) as Joi.ObjectSchema<Correction>;

export interface Voiding {
  reason: string;
}
export const voiding = Joi.object<Voiding, true>({ reason: text(300).min(1).required() });
