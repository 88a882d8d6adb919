import Joi from 'joi';
import { optional, text, type Optional } from './fields.ts';

export interface Publishing {
  /** Words for buyers; private notes never show. */
  text?: Optional<string>;
}

export const publishing = Joi.object<Publishing, true>({ text: optional(text(2000).allow('')) });
