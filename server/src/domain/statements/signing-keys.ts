import { randomUUID } from 'node:crypto';
import {
  CONTEXT,
  fingerprintWords,
  keyPairOf,
  newKeyPair,
  sign,
  SUCCESSION_FORMAT,
  type KeyPair,
} from '@karyotome/lineage';
import { BACKUP_KDF, type KeyBackup, type SigningKeyView } from '@karyotome/contract';
import { nowRfc3339 } from '../../clock.ts';
import { NOW } from '../../db/change-rows.ts';
import { Op } from 'sequelize';
import type { Work } from '../../db/work.ts';
import { invalidField, Refusal } from '../../refusal.ts';
import { CIPHER, keyFromPassword, keyFromSecret, newSalt, sealed, unsealed } from '../../sealing.ts';
import { collectionOf } from '../collection/collection-of.ts';

/**
 * The collection's key: made at its first use, kept encrypted at rest under a key that HKDF (RFC 5869) derives from the
 * server's secret.
 */

/** Of an Ed25519 secret key (RFC 8032). */
const SECRET_BYTES = 32;

export async function signingKey(work: Work, serverSecret: string): Promise<KeyPair> {
  const { collectionId } = work.actor;
  const { signingKeys } = work.models;
  const kept = await signingKeys.findOne({
    where: { collectionId, replacedAt: null },
    transaction: work.transaction,
  });
  if (kept) {
    const { did, sealedSecret } = kept.get();
    const secretKey = unsealed(sealedSecret, keyFor(serverSecret, did));
    if (secretKey === null)
      throw new Refusal(
        'conflict',
        'The signing key cannot be opened: the secret in the data folder is another one than when it was made. Restore the key from its backup in Showcase, or the file signing-secret in the data folder.',
      );
    return { did, secretKey };
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
export async function signingKeyViews(work: Work, serverSecret: string): Promise<SigningKeyView[]> {
  const rows = await work.models.signingKeys.findAll({
    where: { collectionId: work.actor.collectionId },
    order: [['createdAt', 'DESC']],
    transaction: work.transaction,
  });
  return rows.map((row) => {
    const { id, did, sealedSecret, createdAt, replacedAt } = row.get();
    return {
      id,
      did,
      isUsable: unsealed(sealedSecret, keyFor(serverSecret, did)) !== null,
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
  const now = nowRfc3339();
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

/** A key under a password. Takes its time. */
export async function backUpKey({ did, secretKey }: KeyPair, password: string): Promise<KeyBackup> {
  const salt = newSalt();
  return {
    format: 'karyotome-key-backup/1',
    did,
    kdf: { ...BACKUP_KDF, salt: salt.toString('base64') },
    cipher: CIPHER,
    sealed: sealed(secretKey, await keyFromPassword(password, salt)),
  };
}

/**
 * Opens a backup. Takes its time.
 *
 * @throws Refusal where the password does not open it, or another key is in it than it says
 */
export async function openBackup({ did, kdf, sealed }: KeyBackup, password: string): Promise<KeyPair> {
  const bytes = unsealed(sealed, await keyFromPassword(password, Buffer.from(kdf.salt, 'base64')));
  if (bytes === null) throw invalidField('password', 'does not open this backup');
  if (bytes.length !== SECRET_BYTES || keyPairOf(bytes).did !== did)
    throw invalidField('backup', 'holds another key than it says: it was changed');
  return { did, secretKey: bytes };
}

/**
 * Takes a key from its backup into use again: one of the collection's that this server cannot open, or the first of a
 * collection that has none yet.
 *
 * @throws Refusal where another key signs for the collection
 */
export async function restoreKey(work: Work, serverSecret: string, pair: KeyPair): Promise<void> {
  const { collectionId } = work.actor;
  const { signingKeys } = work.models;
  const { transaction } = work;
  const { did, secretKey } = pair;
  const sealedSecret = sealed(secretKey, keyFor(serverSecret, did));
  const [restored] = await signingKeys.update(
    { sealedSecret },
    { where: { collectionId, did }, transaction },
  );
  if (restored > 0) return;
  const others = { [Op.or]: [{ collectionId }, { did }] };
  if ((await signingKeys.count({ where: others, transaction })) > 0)
    throw new Refusal(
      'conflict',
      'Another key signs for this collection. A key comes back only to the collection that it signed for, or to one that has not signed anything.',
    );
  await signingKeys.create(
    { collectionId, id: randomUUID(), did, sealedSecret, replacedAt: null, succession: null },
    { transaction },
  );
}

function keyFor(serverSecret: string, did: string): Buffer {
  return keyFromSecret(serverSecret, did, 'karyotome signing key');
}
