import Joi from 'joi';
import { optional, text, type Optional } from './fields.ts';

export interface Publishing {
  /** Words for buyers, where they are to change; private notes never show. */
  text?: Optional<string>;
}

export const publishing = Joi.object<Publishing, true>({ text: optional(text(2000).allow('')) });

/** A password that protects a backup of the signing key. */
export interface BackupInput {
  password: string;
}
export const backupInput = Joi.object<BackupInput, true>({
  password: Joi.string().min(12).max(200).required(),
});

/** Why what the records say now is not signed. */
export interface WithholdInput {
  reason: string;
}
export const withholdInput = Joi.object<WithholdInput, true>({ reason: text(500).min(1).required() });
