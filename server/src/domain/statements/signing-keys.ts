import { createCipheriv, createDecipheriv, hkdfSync, randomBytes, randomUUID } from 'node:crypto';
import { newKeyPair, type KeyPair } from '@karyotome/lineage';
import type { Work } from '../../db/work.ts';
import { Refusal } from '../../refusal.ts';

/**
 * The collection's key: made at its first use, kept encrypted at rest by AES-256-GCM (NIST SP 800-38D) under a key that HKDF
 * (RFC 5869) derives from the server's secret.
 */

const CIPHER = 'aes-256-gcm';
const NONCE_BYTES = 12;
const TAG_BYTES = 16;

export async function signingKey(work: Work, serverSecret: string): Promise<KeyPair> {
  const { collectionId } = work.actor;
  const { signingKeys } = work.models;
  const kept = await signingKeys.findOne({ where: { collectionId }, transaction: work.transaction });
  if (kept) {
    const { did, sealedSecret } = kept.get();
    return { did, secretKey: opened(sealedSecret, keyFor(serverSecret, did)) };
  }
  const made = newKeyPair();
  const sealedSecret = sealed(made.secretKey, keyFor(serverSecret, made.did));
  // Writes of a collection come one by one: nobody else makes one meanwhile.
  await signingKeys.create(
    { collectionId, id: randomUUID(), did: made.did, sealedSecret },
    { transaction: work.transaction },
  );
  return made;
}

function keyFor(serverSecret: string, did: string): Buffer {
  return Buffer.from(hkdfSync('sha256', serverSecret, did, 'karyotome signing key', 32));
}

function sealed(secret: Uint8Array, key: Buffer): string {
  const nonce = randomBytes(NONCE_BYTES);
  const cipher = createCipheriv(CIPHER, key, nonce);
  const text = Buffer.concat([cipher.update(secret), cipher.final()]);
  return Buffer.concat([nonce, cipher.getAuthTag(), text]).toString('base64');
}

function opened(text: string, key: Buffer): Uint8Array {
  const bytes = Buffer.from(text, 'base64');
  const decipher = createDecipheriv(CIPHER, key, bytes.subarray(0, NONCE_BYTES));
  decipher.setAuthTag(bytes.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES));
  try {
    return Buffer.concat([decipher.update(bytes.subarray(NONCE_BYTES + TAG_BYTES)), decipher.final()]);
  } catch (cause) {
    throw new Refusal(
      'conflict',
      'The signing key cannot be opened: the secret in the data folder is another one than when it was made. Restore signing-secret from a backup.',
      { cause },
    );
  }
}
