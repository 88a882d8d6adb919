import { createCipheriv, createDecipheriv, hkdfSync, randomBytes, randomUUID, scrypt } from 'node:crypto';
import {
  CONTEXT,
  fingerprintWords,
  newKeyPair,
  sign,
  SUCCESSION_FORMAT,
  type KeyPair,
} from '@karyotome/lineage';
import type { KeyBackup, SigningKeyView } from '@karyotome/contract';
import { NOW } from '../../db/change-rows.ts';
import type { Work } from '../../db/work.ts';
import { Refusal } from '../../refusal.ts';
import { collectionOf } from '../collection/collection-of.ts';

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
  const kept = await signingKeys.findOne({
    where: { collectionId, replacedAt: null },
    transaction: work.transaction,
  });
  if (kept) {
    const { did, sealedSecret } = kept.get();
    return { did, secretKey: opened(sealedSecret, keyFor(serverSecret, did)) };
  }
  const made = newKeyPair();
  const sealedSecret = sealed(made.secretKey, keyFor(serverSecret, made.did));
  // Writes of a collection come one by one: nobody else makes one meanwhile.
  await signingKeys.create(
    { collectionId, id: randomUUID(), did: made.did, sealedSecret, replacedAt: null, succession: null },
    { transaction: work.transaction },
  );
  return made;
}

/** The collection's keys, the one in use first; none before anything was signed. */
export async function signingKeyViews(work: Work): Promise<SigningKeyView[]> {
  const rows = await work.models.signingKeys.findAll({
    where: { collectionId: work.actor.collectionId },
    order: [['createdAt', 'DESC']],
    transaction: work.transaction,
  });
  return rows.map((row) => {
    const { id, did, createdAt, replacedAt } = row.get();
    return {
      id,
      did,
      words: fingerprintWords(did) ?? [],
      createdAt: createdAt.toISOString(),
      replacedAt: replacedAt?.toISOString() ?? null,
    };
  });
}

/** Statements by which each key introduced the next, the oldest first: they travel with what was signed before. */
export async function successionsOf(work: Work): Promise<string[]> {
  const rows = await work.models.signingKeys.findAll({
    where: { collectionId: work.actor.collectionId },
    order: [['createdAt', 'ASC']],
    transaction: work.transaction,
  });
  return rows.flatMap((row) => row.get().succession ?? []);
}

/** Makes a new key that the one in use introduces; from then on it signs. */
export async function succeedKey(work: Work, serverSecret: string): Promise<{ id: string }> {
  const { collectionId } = work.actor;
  const { signingKeys } = work.models;
  const { transaction } = work;
  const old = await signingKey(work, serverSecret);
  const made = newKeyPair();
  const collection = await collectionOf(work);
  const now = `${new Date().toISOString().slice(0, 19)}Z`;
  const succession = sign(
    {
      '@context': CONTEXT,
      id: `urn:uuid:${randomUUID()}`,
      type: ['VerifiableCredential', 'KeySuccession'],
      issuer: { id: old.did, name: collection.name },
      validFrom: now,
      credentialSubject: { id: made.did, format: SUCCESSION_FORMAT, replaces: old.did, on: work.today },
    },
    old.secretKey,
    now,
  );
  await signingKeys.update({ replacedAt: NOW }, { where: { collectionId, did: old.did }, transaction });
  const id = randomUUID();
  await signingKeys.create(
    {
      collectionId,
      id,
      did: made.did,
      sealedSecret: sealed(made.secretKey, keyFor(serverSecret, made.did)),
      replacedAt: null,
      succession: JSON.stringify(succession),
    },
    { transaction },
  );
  return { id };
}

/** As RFC 7914 and OWASP's cheat sheet on password storage have it for what is opened seldom: 128 MiB, about half a second. */
const SCRYPT = { N: 2 ** 17, r: 8, p: 1, maxmem: 2 ** 28 } as const;
const SALT_BYTES = 16;

/** A key under a password. Takes its time. */
export async function backUpKey({ did, secretKey }: KeyPair, password: string): Promise<KeyBackup> {
  const salt = randomBytes(SALT_BYTES);
  const { N, r, p } = SCRYPT;
  const key = await new Promise<Buffer>((resolve, reject) => {
    scrypt(password.normalize('NFKC'), salt, 32, SCRYPT, (error, derived) =>
      error ? reject(error) : resolve(derived),
    );
  });
  return {
    format: 'karyotome-key-backup/1',
    did,
    kdf: { name: 'scrypt', N, r, p, salt: salt.toString('base64') },
    cipher: CIPHER,
    sealed: sealed(secretKey, key),
  };
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
