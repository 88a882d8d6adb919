import Joi from 'joi';

/** How far another breeder's word counts: as sure as their records say, less sure, or not at all. */
export const TRUSTS = ['certain', 'probable', 'possible', 'ignored'] as const;
export type Trust = (typeof TRUSTS)[number];

export interface BreederInput {
  trust: Trust;
}
export const breederInput = Joi.object<BreederInput, true>({
  trust: Joi.string()
    .valid(...TRUSTS)
    .required(),
});
