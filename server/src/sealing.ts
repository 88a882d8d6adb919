import { createCipheriv, createDecipheriv, hkdfSync, randomBytes, scrypt } from 'node:crypto';
import { BACKUP_KDF } from '@karyotome/contract';
import { Turns } from './db/turns.ts';

/* Secrets under a key, by AES-256-GCM (NIST SP 800-38D), and keys from passwords, by scrypt (RFC 7914). */

export const CIPHER = 'aes-256-gcm';
const NONCE_BYTES = 12;
const TAG_BYTES = 16;
/** Of AES-256. */
const KEY_BYTES = 32;

const { N, r, p } = BACKUP_KDF;
const MAX_MEMORY_BYTES = 2 ** 26;
/** One at a time: each takes its memory, and a processor. */
const deriving = new Turns(1);
const SALT_BYTES = 16;

export const newSalt = (): Buffer => randomBytes(SALT_BYTES);

/**
 * A key from the server's own secret, by HKDF (RFC 5869).
 *
 * @param whose - the id of who or what it is for
 * @param purpose - what it is used for
 */
export const keyFromSecret = (secret: string, whose: string, purpose: string): Buffer =>
  Buffer.from(hkdfSync('sha256', secret, whose, purpose, KEY_BYTES));

/** A key from what somebody chose or wrote down. Takes its time. */
export function keyFromPassword(password: string, salt: Buffer): Promise<Buffer> {
  const cost = { N, r, p, maxmem: MAX_MEMORY_BYTES };
  return deriving.take(
    () =>
      new Promise((resolve, reject) => {
        scrypt(password.normalize('NFKC'), salt, KEY_BYTES, cost, (error, derived) =>
          error ? reject(error) : resolve(derived),
        );
      }),
  );
}

/** @returns nonce, tag and ciphertext, in base64 */
export function sealed(secret: Uint8Array, key: Buffer): string {
  const nonce = randomBytes(NONCE_BYTES);
  const cipher = createCipheriv(CIPHER, key, nonce);
  const text = Buffer.concat([cipher.update(secret), cipher.final()]);
  return Buffer.concat([nonce, cipher.getAuthTag(), text]).toString('base64');
}

/** @returns null where the key is another one, or the text was changed */
export function unsealed(text: string, key: Buffer): Uint8Array | null {
  const bytes = Buffer.from(text, 'base64');
  if (bytes.length < NONCE_BYTES + TAG_BYTES) return null;
  const decipher = createDecipheriv(CIPHER, key, bytes.subarray(0, NONCE_BYTES));
  decipher.setAuthTag(bytes.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES));
  try {
    return Buffer.concat([decipher.update(bytes.subarray(NONCE_BYTES + TAG_BYTES)), decipher.final()]);
  } catch {
    return null;
  }
}
