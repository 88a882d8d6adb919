import Joi from 'joi';
import { id, optional, text, type Optional } from './fields.ts';

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

/** So many racks are built at once. */
export const MOST_RACKS_AT_ONCE = 40;

export interface NewRacks {
  racks: NewRack[];
}
/** Several racks, of a room usually: all of them or none. */
export const newRacks = Joi.object<NewRacks, true>({
  racks: Joi.array<NewRack[]>().items(newRack).min(1).max(MOST_RACKS_AT_ONCE).required(),
});

/** So many racks at most are put into an order. */
const MOST_RACKS = 2000;

export interface RackOrder {
  /** All racks, as they are walked past. */
  ids: string[];
}
export const rackOrder = Joi.object<RackOrder, true>({
  ids: Joi.array<string[]>().items(id()).unique().min(1).max(MOST_RACKS).required(),
});
