import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import type { Test } from 'supertest';
import { digestMultibase, verifyFile, type Statement, type Verification } from '@karyotome/lineage';
import type {
  AmendmentView,
  AnimalView,
  LetterView,
  OfferView,
  Page,
  PublicAnimal,
  ShowcaseLine,
} from '@karyotome/contract';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { breederOf } from './breeder.ts';
import { ago, TODAY } from './days.ts';
import { binary, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* Publishing makes signed statements, which anybody can derive again; evidence that comes later makes the next one. */

let app: TestApp;
let owner: TestClient;
const { created, animal } = breederOf(() => owner);
let damId: string;
let youngId: string;
let siblingId: string;
let slug: string;
const KEY = expect.stringMatching(/^did:key:z6Mk/) as string;

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
  // Two that may carry it: a young that does not show it is 66% het (Mendel).
  damId = await animal('D-1', 'female', 'het clown', 1800);
  const sireId = await animal('S-1', 'male', '50% het clown', 900);
  const parents = { damId, sireId, hatchedOn: ago(60) };
  youngId = (await created<{ id: string }>('/animals', { number: 'Y-1', sex: 'female', ...parents })).id;
  siblingId = (await created<{ id: string }>('/animals', { number: 'Y-2', sex: 'male', ...parents })).id;
  await identify(youngId, 'normal');
  await identify(siblingId, 'normal');
});
afterAll(() => app.close());

async function identify(id: string, genes: string): Promise<void> {
  const body = { genes, sure: 'certain', by: 'Ida Marker' };
  await created(`/animals/${id}/records`, { kind: 'identification', on: TODAY, body });
}

const page = async (): Promise<PublicAnimal> =>
  (await app.anonymous.get(`/public/${slug}`)).body as PublicAnimal;
const statement = async (number: number): Promise<{ text: string; read: Statement }> => {
  const { text } = await app.anonymous.get(`/public/${slug}/statements/${number}`);
  return { text, read: JSON.parse(text) as Statement };
};
const verified = async (text: string): Promise<Verification> =>
  (await verifyFile(new TextEncoder().encode(text))) as Verification;
const line = async (): Promise<ShowcaseLine> =>
  ((await owner.get('/showcase')).body as { items: ShowcaseLine[] }).items[0]!;

describe('a published animal', () => {
  test('has a statement that is signed, and whose claims follow from what it holds', async () => {
    const published = await owner.put(`/animals/${youngId}/publication`, { text: null });
    expect(published.status).toBe(200);
    ({ slug } = published.body as { slug: string });
    expect((await page()).statements).toEqual([{ statement: 1, asOf: TODAY, key: KEY, changes: [] }]);
    const { text, read } = await statement(1);
    const { number, claims, named, evidence } = read.credentialSubject;
    expect(await verified(text)).toMatchObject({
      valid: true,
      subject: { id: `urn:uuid:${youngId}`, number: 'Y-1', statement: 1, asOf: TODAY },
      claims: [{ locus: 'clown', follows: true }],
    });
    expect(number).toBe('Y-1');
    expect(claims[0]!.words).toMatch(/het Clown$/);
    expect(Object.values(named).toSorted()).toEqual(['D-1', 'S-1', 'Y-1']);
    expect(evidence).toContainEqual({
      animal: `urn:uuid:${damId}`,
      locus: 'clown',
      kind: 'statement',
      on: expect.any(String) as string,
      sure: 'certain',
      words: 'Het Clown',
    });
    // Nobody has agreed to be named.
    expect(text).not.toContain('Ida Marker');
  });

  test('is not signed anew where nothing changed, nor by another text', async () => {
    expect((await owner.post(`/animals/${youngId}/statements`, {})).body).toEqual({ statement: 1 });
    await owner.put(`/animals/${youngId}/publication`, { text: 'Calm.' });
    expect((await page()).statements).toHaveLength(1);
    expect(await line()).toMatchObject({ statement: { statement: 1, asOf: TODAY }, changes: [] });
  });

  test('says something else once a sibling proves its sire: shown first, signed by one touch', async () => {
    const before = (await statement(1)).read.credentialSubject.claims[0]!.words;
    await identify(siblingId, 'clown');
    const { changes } = await line();
    expect(changes).toEqual([{ locus: 'clown', from: before, to: '66% het Clown' }]);
    expect((await page()).statements).toHaveLength(1);
    expect((await owner.post(`/animals/${youngId}/statements`, {})).body).toEqual({ statement: 2 });
    const { text, read } = await statement(2);
    expect(await verified(text)).toMatchObject({ valid: true, subject: { statement: 2 } });
    expect(read.credentialSubject.previous).toBe((await statement(1)).read.id);
    const told = { from: before, to: '66% het Clown', on: TODAY, because: 'a relative: Clown' };
    expect(read.credentialSubject.changes).toEqual([{ locus: 'clown', ...told }]);
    expect((await page()).statements[0]).toEqual({ statement: 2, asOf: TODAY, key: KEY, changes: [told] });
    expect((await line()).changes).toEqual([]);
  });

  test('two at once sign one statement, not two', async () => {
    await identify(siblingId, 'normal');
    const [a, b] = await Promise.all([
      owner.post(`/animals/${youngId}/statements`, {}),
      owner.post(`/animals/${youngId}/statements`, {}),
    ]);
    expect([a.body, b.body]).toEqual([{ statement: 3 }, { statement: 3 }]);
    expect((await page()).statements.map((one) => one.statement)).toEqual([3, 2, 1]);
    const { issuer } = (await statement(3)).read;
    expect(issuer.id).toBe((await statement(1)).read.issuer.id);
  });

  test('is packed with its statements, records and pictures, and nothing private', async () => {
    await created(`/animals/${youngId}/records`, {
      kind: 'weight',
      on: TODAY,
      note: 'MARKER',
      body: { massG: 66 },
    });
    await created(`/animals/${youngId}/records`, { kind: 'note', on: TODAY, body: { text: 'MARKER' } });
    const png = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#888' } })
      .png()
      .toBuffer();
    const picture = (await owner.upload(`/animals/${youngId}/pictures`, 'image/png', png)).body as {
      id: string;
    };
    const answer = await (owner.get(`/animals/${youngId}/package`) as Test).buffer(true).parse(binary);
    expect(answer.headers['content-type']).toBe('application/zip');
    const bytes = answer.body as Buffer;
    const found = (await verifyFile(bytes)) as Verification;
    expect(found).toMatchObject({ valid: true, subject: { statement: 3 } });
    expect(found.files.map(({ file }) => file).toSorted()).toEqual([
      'earlier/statement-1.json',
      'earlier/statement-2.json',
      `pictures/${picture.id}.webp`,
      'records.csv',
      'records.json',
    ]);
    const folder = mkdtempSync(join(tmpdir(), 'karyotome-package-'));
    try {
      writeFileSync(join(folder, 'package.zip'), bytes);
      execFileSync('unzip', ['-q', 'package.zip'], { cwd: folder });
      const read = (file: string): string => readFileSync(join(folder, 'Y-1/data', file), 'utf8');
      expect(read('records.csv')).toBe(
        `on,kind,massG,species,size,state,taken,complete\n${TODAY},weight,66,,,,,\n`,
      );
      expect(JSON.parse(read('records.json'))).toEqual({
        animal: `urn:uuid:${youngId}`,
        records: [{ kind: 'weight', on: TODAY, massG: 66 }],
      });
      expect(() => execFileSync('grep', ['-r', 'MARKER\\|Ida Marker', '.'], { cwd: folder })).toThrow();
    } finally {
      rmSync(folder, { recursive: true });
    }
    expect((await owner.get(`/animals/${siblingId}/package`)).status).toBe(409);
    expect((await app.anonymous.get(`/animals/${youngId}/package`)).status).toBe(401);
  });

  test('a picture is signed with its digest, and stays as long as a statement names it', async () => {
    expect((await line()).facts).toEqual(['pictures']);
    const { pictures } = (await owner.get(`/animals/${youngId}`)).body as AnimalView;
    const { id } = pictures[0]!;
    const signed = (await owner.post(`/animals/${youngId}/statements`, {})).body as { statement: number };
    expect(signed.statement).toBe(4);
    expect((await line()).facts).toEqual([]);
    const [stated] = (await statement(4)).read.credentialSubject.pictures!;
    const folder = join(app.dataDir, 'pictures');
    const file = readFileSync(
      join(
        folder,
        readdirSync(folder).find((name) => name.startsWith(id))!,
      ),
    );
    expect(stated).toEqual({
      file: `pictures/${id}.webp`,
      mediaType: 'image/webp',
      takenOn: TODAY,
      digestMultibase: digestMultibase(file),
    });
    expect((await owner.post(`/animals/${youngId}/statements`, {})).body).toEqual({ statement: 4 });
    const refused = await owner.delete(`/pictures/${id}`);
    expect(refused).toMatchObject({
      status: 409,
      body: { detail: expect.stringContaining('Statement 4 names this picture') as string },
    });
    const offer = (await owner.get(`/animals/${youngId}/offer`)).body as OfferView;
    await owner.put(`/animals/${youngId}/offer`, { pictureIds: [] }, { 'If-Match': `"${offer.version}"` });
    expect((await line()).facts).toEqual(['pictures']);
    expect((await owner.post(`/animals/${youngId}/statements`, {})).body).toEqual({ statement: 5 });
    expect((await owner.delete(`/pictures/${id}`)).status).toBe(204);
    const answer = await (owner.get(`/animals/${youngId}/package`) as Test).buffer(true).parse(binary);
    expect(await verifyFile(answer.body as Buffer)).toMatchObject({ valid: true });
  });

  test('statements cannot be had by strangers’ numbers, nor made without a page', async () => {
    expect((await app.anonymous.get(`/public/${slug}/statements/9`)).status).toBe(404);
    expect((await app.anonymous.get(`/public/${slug}/statements/x`)).status).toBe(404);
    expect((await owner.post(`/animals/${siblingId}/statements`, {})).status).toBe(409);
    expect((await app.anonymous.post(`/animals/${youngId}/statements`, {})).status).toBe(401);
  });
});

test('a change that is not signed has a reason, until the records change again', async () => {
  await identify(siblingId, 'normal');
  await identify(youngId, 'clown');
  const { changes } = await line();
  expect(changes.length).toBeGreaterThan(0);
  const { changes: told } = (await owner.get(`/animals/${youngId}/amendment`)).body as AmendmentView;
  expect(told.map(({ locus }) => locus).toSorted()).toEqual(changes.map(({ locus }) => locus).toSorted());
  expect(told.every(({ because }) => because.length > 0)).toBe(true);
  expect((await owner.put(`/animals/${youngId}/amendment`, { reason: 'A slip of the pen' })).status).toBe(
    204,
  );
  expect((await line()).withheld).toBe('A slip of the pen');
  await identify(youngId, 'normal');
  expect((await line()).withheld).toBeNull();
});

test('who holds an animal is told when its claims change: drafted once, with both versions', async () => {
  const personId = (
    await created<{ id: string }>('/persons', { name: 'Ada', email: 'ada@example.test', consentOn: TODAY })
  ).id;
  const silent = (await created<{ id: string }>('/persons', { name: 'Bo', email: 'bo@example.test' })).id;
  for (const id of [silent, personId])
    await owner.post('/status-events', {
      animalIds: [youngId],
      kind: 'reserved',
      on: TODAY,
      details: { personId: id },
    });
  await identify(youngId, 'clown');
  await owner.post(`/animals/${youngId}/statements`, {});
  await owner.post(`/animals/${youngId}/statements`, {});
  const letters = ((await owner.get('/letters')).body as Page<LetterView>).items;
  expect(letters).toMatchObject([{ kind: 'claims-changed', state: 'draft', to: 'ada@example.test' }]);
  expect(letters[0]!.paragraphs.join(' ')).toContain('Clown');
});
