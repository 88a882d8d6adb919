import type { Route, RouteParent, RouteStep } from '@karyotome/core';
import Joi from 'joi';
import { id, optional, pastDay, text, type Optional } from './fields.ts';

/** A project has no more targets, and a route no more pairings, than these. */
const MOST_TARGETS = 6;
const MOST_STEPS = 12;
/** Animals that a new project begins with at most. */
const MOST_ANIMALS = 60;

const genes = (): Joi.StringSchema => text(200).min(1);
const season = (): Joi.NumberSchema => Joi.number().integer().min(1950).max(2200);

/** A parent that has to be held back from a step comes from one before. */
const routeParent = Joi.object<RouteParent>({
  kind: Joi.string().valid('owned', 'bought', 'held-back').required(),
  animalId: id().when('kind', { is: 'owned', then: Joi.required(), otherwise: Joi.forbidden() }),
  step: Joi.number()
    .integer()
    .min(0)
    .max(MOST_STEPS)
    .when('kind', { is: 'held-back', then: Joi.required(), otherwise: Joi.forbidden() }),
});

const routeStep = Joi.object<RouteStep>({
  dam: routeParent.required(),
  sire: routeParent.required(),
  keep: Joi.object({
    sex: Joi.string().valid('female', 'male').required(),
    phenotype: Joi.object().pattern(text(60), text(60).allow('')).max(40).required(),
    label: text(200).required(),
  })
    .allow(null)
    .required(),
  perEgg: Joi.number().min(0).max(1).required(),
  inbreeding: Joi.number().min(0).max(1).required(),
});

/** Each pairing comes after those whose young it needs, and only the last keeps nothing for a later one. */
const stepsInOrder: Joi.CustomValidator<RouteStep[]> = (steps, helpers) => {
  const isInOrder = steps.every(
    ({ dam, sire, keep }, at) =>
      (keep === null) === (at === steps.length - 1) &&
      [dam, sire].every((parent) => parent.kind !== 'held-back' || parent.step < at),
  );
  return isInOrder
    ? steps
    : helpers.message({ custom: 'must have each pairing after those that its parents come from' });
};

/** The way to a target that was chosen. */
export interface RoutePlanInput {
  target: string;
  route: Route;
  /** An animal that is to be bought for it. */
  bought: { sex: 'female' | 'male'; genes: string } | null;
  /** Young to hold back from each step. */
  holdBack: number;
}
export const routePlanInput = Joi.object<RoutePlanInput, true>({
  target: genes().required(),
  route: Joi.object<Route>({
    steps: Joi.array<RouteStep[]>().items(routeStep).min(1).max(MOST_STEPS).custom(stepsInOrder).required(),
    roughYears: Joi.number().min(0).max(1000).required(),
  }).required(),
  bought: Joi.object({ sex: Joi.string().valid('female', 'male').required(), genes: genes().required() })
    .allow(null)
    .required(),
  holdBack: Joi.number().integer().min(1).max(6).required(),
});

interface ProjectFields {
  name: string;
  /** What it is to give, as genes are typed. */
  targets: string[];
  note?: Optional<string>;
}
const projectFields = {
  name: text(80).min(1).required(),
  targets: Joi.array<string[]>().items(genes()).min(1).max(MOST_TARGETS).unique().required(),
  note: optional(text(2000).allow('')),
};

export interface NewProject extends ProjectFields {
  /** Of its targets. */
  plan?: Optional<RoutePlanInput>;
  animalIds?: string[];
}
export const newProject = Joi.object<NewProject, true>({
  ...projectFields,
  plan: optional(routePlanInput),
  animalIds: Joi.array<string[]>().items(id()).max(MOST_ANIMALS).unique().optional(),
});

export interface ProjectChange extends ProjectFields {
  /** The day on which it was ended; null while it goes on. */
  endedOn: string | null;
  /** Null for none. Not given: it stays as it is. */
  plan?: Optional<RoutePlanInput>;
}
export const projectChange = Joi.object<ProjectChange, true>({
  ...projectFields,
  endedOn: pastDay().allow(null).required(),
  plan: optional(routePlanInput),
});

/** An animal that belongs to a project, and why: also what was held back for it. */
export interface ProjectAnimalInput {
  animalId: string;
  reason?: Optional<string>;
  /** The step of the plan, counted from 0, that it was held back from. */
  step?: Optional<number>;
}
export const projectAnimalInput = Joi.object<ProjectAnimalInput, true>({
  animalId: id().required(),
  reason: optional(text(300).allow('')),
  step: optional(
    Joi.number()
      .integer()
      .min(0)
      .max(MOST_STEPS - 1),
  ),
});

export interface PlannedPairingInput {
  season: number;
  damId: string;
  sireId: string;
}
export const plannedPairingInput = Joi.object<PlannedPairingInput, true>({
  season: season().required(),
  damId: id().required(),
  sireId: id().required(),
});
