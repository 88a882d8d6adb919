import Joi from 'joi';
import type { KeyBackup } from './publication-responses.ts';
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

/**
 * One of the settings that OWASP's cheat sheet on password storage holds equal for scrypt (RFC 7914): of those, one that takes
 * 32 MiB, about half a second.
 */
export const BACKUP_KDF = { name: 'scrypt', N: 2 ** 15, r: 8, p: 3 } as const;

/** A backup of the signing key, as it was saved, with the password that opens it. */
export interface RestoreInput {
  backup: KeyBackup;
  password: string;
}
const base64 = (max: number) => Joi.string().base64().max(max).required();
export const restoreInput = Joi.object<RestoreInput, true>({
  backup: Joi.object<KeyBackup, true>({
    format: Joi.string().valid('karyotome-key-backup/1').required(),
    did: text(200).required(),
    // Only what backups are written with: another cost would let a file choose how much memory it takes.
    kdf: Joi.object<KeyBackup['kdf'], true>({
      name: Joi.string().valid(BACKUP_KDF.name).required(),
      N: Joi.number().valid(BACKUP_KDF.N).required(),
      r: Joi.number().valid(BACKUP_KDF.r).required(),
      p: Joi.number().valid(BACKUP_KDF.p).required(),
      salt: base64(64),
    }).required(),
    cipher: Joi.string().valid('aes-256-gcm').required(),
    sealed: base64(200),
  }).required(),
  password: Joi.string().max(200).required(),
});

/** Why what the records say now is not signed. */
export interface WithholdInput {
  reason: string;
}
export const withholdInput = Joi.object<WithholdInput, true>({ reason: text(500).min(1).required() });
