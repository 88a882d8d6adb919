import Joi from 'joi';
import { id, noTwo, optional, pastDay, text, type Optional } from './fields.ts';

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

/** What a pairing and a clutch can be: more is a slip of the pen. */
export const MOST_SIRES = 8;
export const MOST_EGGS = 30;
export const LEAST_INCUBATION_C = 20;
export const MOST_INCUBATION_C = 40;

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
    .max(MOST_SIRES)
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
  eggs: Joi.number().integer().min(1).max(MOST_EGGS).required(),
  slugs: optional(Joi.number().integer().min(0).max(MOST_EGGS)),
  incubationC: optional(Joi.number().min(LEAST_INCUBATION_C).max(MOST_INCUBATION_C)),
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
