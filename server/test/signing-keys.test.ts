import { createDecipheriv, scryptSync } from 'node:crypto';
import { ed25519 } from '@noble/curves/ed25519.js';
import type { KeyBackup, Page, SigningKeyView } from '@karyotome/contract';
import { didOfKey, newKeyPair, verifyFile, type Statement } from '@karyotome/lineage';
import type { Test } from 'supertest';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { breederOf } from './breeder.ts';
import { TODAY } from './days.ts';
import { binary, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* The key that signs: kept encrypted, backed up, brought back, replaced. */

let app: TestApp;
let owner: TestClient;
const { created, animal } = breederOf(() => owner);
let id: string;
let slug: string;

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
  id = await animal('A-1', 'female', 'het clown', 1800);
  slug = ((await owner.put(`/animals/${id}/publication`, {})).body as { slug: string }).slug;
});
afterAll(() => app.close());

async function identify(genes: string): Promise<void> {
  await created(`/animals/${id}/records`, {
    kind: 'identification',
    on: TODAY,
    body: { genes, sure: 'certain', by: 'Ida' },
  });
}
const statement = async (number: number): Promise<{ read: Statement }> => {
  const { text } = await app.anonymous.get(`/public/${slug}/statements/${number}`);
  return { read: JSON.parse(text) as Statement };
};
const keys = async (): Promise<SigningKeyView[]> =>
  ((await owner.get('/signing-keys')).body as Page<SigningKeyView>).items;

test('the key lies encrypted, and is told where its secret is gone', async () => {
  const [row] = await app.database.models.signingKeys.findAll();
  const { did, sealedSecret } = row!.get();
  expect((await statement(1)).read.issuer.id).toBe(did);
  // A nonce of 12 bytes, a tag of 16, and the 32 of the key.
  expect(Buffer.from(sealedSecret, 'base64')).toHaveLength(60);
  const spoilt = Buffer.from(sealedSecret, 'base64');
  spoilt[59]! ^= 1;
  await row!.update({ sealedSecret: spoilt.toString('base64') });
  await identify('pastel');
  const refused = await owner.post(`/animals/${id}/statements`, {});
  expect(refused).toMatchObject({
    status: 409,
    body: { detail: expect.stringContaining('signing-secret') as string },
  });
  expect((await app.anonymous.get(`/public/${slug}`)).body).toMatchObject({ statements: [{ statement: 1 }] });
  await row!.update({ sealedSecret });
});

test('is backed up under a password, which alone opens it', async () => {
  const [current] = await keys();
  const password = 'a long password';
  expect((await owner.post('/signing-keys/backup', { password: 'short' })).body).toMatchObject({
    errors: [{ field: 'password' }],
  });
  const { kdf, sealed, did } = (await owner.post('/signing-keys/backup', { password })).body as KeyBackup;
  expect(did).toBe(current!.did);
  const open = (word: string): Buffer => {
    const { N, r, p, salt } = kdf;
    const key = scryptSync(word, Buffer.from(salt, 'base64'), 32, { N, r, p, maxmem: 2 ** 28 });
    const bytes = Buffer.from(sealed, 'base64');
    const decipher = createDecipheriv('aes-256-gcm', key, bytes.subarray(0, 12));
    decipher.setAuthTag(bytes.subarray(12, 28));
    return Buffer.concat([decipher.update(bytes.subarray(28)), decipher.final()]);
  };
  expect(() => open('another password')).toThrow();
  // RFC 8032: the public key follows from the secret one.
  expect(didOfKey(ed25519.getPublicKey(open(password)))).toBe(did);
  const [kept] = await app.database.sequelize.query(
    `select count(*)::int as n from idempotent_writes where body::text like '%scrypt%'`,
  );
  expect(kept).toEqual([{ n: 0 }]);
});

test('comes back from its backup where the server’s secret is gone, and to no other collection', async () => {
  const password = 'a long password';
  const backup = (await owner.post('/signing-keys/backup', { password })).body as KeyBackup;
  const [row] = await app.database.models.signingKeys.findAll({ where: { did: backup.did } });
  const { sealedSecret } = row!.get();
  const spoilt = Buffer.from(sealedSecret, 'base64');
  spoilt[20]! ^= 1;
  await row!.update({ sealedSecret: spoilt.toString('base64') });
  expect((await keys())[0]!.isUsable).toBe(false);
  const restore = (client: TestClient, more: object = {}) =>
    client.post('/signing-keys/restore', { backup, password, ...more });
  expect((await restore(owner, { password: 'another password' })).body).toMatchObject({
    errors: [{ field: 'password' }],
  });
  const kdf = { ...backup.kdf, N: 2 ** 20 };
  expect((await restore(owner, { backup: { ...backup, kdf } })).body).toMatchObject({
    errors: [{ field: 'backup.kdf.N' }],
  });
  const other = newKeyPair();
  expect((await restore(owner, { backup: { ...backup, did: other.did } })).body).toMatchObject({
    errors: [{ field: 'backup' }],
  });
  expect((await keys())[0]!.isUsable).toBe(false);
  expect((await restore(owner)).status).toBe(204);
  expect((await restore(owner)).status).toBe(204);
  expect((await keys()).map(({ did, isUsable }) => [did, isUsable])).toEqual([[backup.did, true]]);
  expect((await owner.post('/signing-keys/backup', { password })).status).toBe(200);
  expect((await restore(await app.newCollection('Beside', 'owner'))).status).toBe(409);
  // A collection on another server that signed nothing yet goes on with it; one that has its own key does not.
  const elsewhere = await startTestApp();
  expect((await restore(elsewhere.owner)).status).toBe(204);
  const moved = (await elsewhere.owner.get('/signing-keys')).body as Page<SigningKeyView>;
  expect(moved.items).toMatchObject([{ did: backup.did, isUsable: true, replacedAt: null }]);
  await elsewhere.database.models.signingKeys.destroy({ where: {} });
  expect((await elsewhere.owner.post('/signing-keys', {})).status).toBe(201);
  expect((await restore(elsewhere.owner)).status).toBe(409);
  await elsewhere.close();
  const keeper = await app.newCollection('Kept', 'keeper');
  expect((await restore(keeper)).status).toBe(403);
});

test('is replaced by one that it introduces: what it signed before stays valid, in one chain', async () => {
  const [before] = await keys();
  expect((await owner.post('/signing-keys', {})).status).toBe(201);
  const [now, old] = await keys();
  expect(old).toMatchObject({ did: before!.did });
  expect(old!.replacedAt).not.toBeNull();
  expect(now!.words).toHaveLength(6);
  expect(now!.words.join()).not.toBe(old!.words.join());
  await identify('pastel');
  const { statement: number } = (await owner.post(`/animals/${id}/statements`, {})).body as {
    statement: number;
  };
  const { read } = await statement(number);
  expect(read.issuer.id).toBe(now!.did);
  const answer = await (owner.get(`/animals/${id}/package`) as Test).buffer(true).parse(binary);
  expect(await verifyFile(answer.body as Buffer)).toMatchObject({ valid: true, problems: [] });
});

test('is replaced and backed up by its owner alone', async () => {
  const keeper = await app.newCollection('Keeping', 'keeper');
  expect((await keeper.post('/signing-keys', {})).status).toBe(403);
  expect((await keeper.post('/signing-keys/backup', { password: 'a long password' })).status).toBe(403);
});
