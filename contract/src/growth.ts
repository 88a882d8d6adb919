import Joi from 'joi';
import { id } from './fields.ts';
import type { Sex } from './animal-status.ts';

/** So many animals at most are laid over one another. */
export const MOST_GROWTH_LINES = 60;

/** Whose growth is laid over one another: of a clutch, of all clutches of its season, or of some animals. */
export interface GrowthQuery {
  clutch?: string;
  /** A clutch, whose season is meant. */
  seasonOf?: string;
  /** Ids with commas between. */
  id?: string;
}
export const growthQuery = Joi.object<GrowthQuery, true>({
  clutch: id(),
  seasonOf: id(),
  id: Joi.string().max(MOST_GROWTH_LINES * 37),
});

/** The weights of one animal, the oldest first. */
export interface GrowthLine {
  id: string;
  number: string;
  sex: Sex;
  hatchedOn: string;
  weights: { on: string; massG: number }[];
}
