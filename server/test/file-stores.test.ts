import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { BinEntry, Page } from '@karyotome/contract';
import S3rver from 's3rver';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { diskStore } from '../src/files/disk-store.ts';
import { checked, digestIn, namedByContent, withoutDigest, type FileStore } from '../src/files/file-store.ts';
import { s3Store, type S3Place } from '../src/files/s3-store.ts';
import { sweepFiles } from '../src/files/sweep.ts';
import { startTestApp, type TestApp } from './test-app.ts';

/* Files are kept alike in a folder and in a bucket. The bucket is one of s3rver, a server of the S3 protocol that others wrote. */

const folder = mkdtempSync(join(tmpdir(), 'karyotome-files-'));
const bucketFolder = mkdtempSync(join(tmpdir(), 'karyotome-bucket-'));
const server = new S3rver({
  port: 0,
  address: '127.0.0.1',
  silent: true,
  directory: bucketFolder,
  configureBuckets: [{ name: 'kept', configs: [] }],
});
let place: S3Place;
const stores: Record<string, FileStore> = {};

beforeAll(async () => {
  vi.stubEnv('AWS_ACCESS_KEY_ID', 'S3RVER');
  vi.stubEnv('AWS_SECRET_ACCESS_KEY', 'S3RVER');
  const { port } = (await server.run()) as AddressInfo;
  place = { bucket: 'kept', region: 'us-east-1', endpoint: `http://127.0.0.1:${port}` };
  stores['a folder'] = diskStore(folder);
  stores['a bucket'] = s3Store(place);
});
afterAll(async () => {
  await server.close();
  vi.unstubAllEnvs();
  for (const one of [folder, bucketFolder]) rmSync(one, { recursive: true });
});

describe.each(['a folder', 'a bucket'])('files in %s', (where) => {
  const store = (): FileStore => stores[where]!;

  test('are there once they are written, are listed by how their names begin, and go', async () => {
    const data = Buffer.from('a picture, let us say');
    const file = { folder: 'pictures', name: 'thumbs/one.webp' } as const;
    expect(await store().has(file)).toBe(false);
    await expect(store().read(file)).rejects.toMatchObject({ code: 'not-found' });
    expect(await store().list('pictures')).toEqual([]);
    await store().write(file, data);
    await store().write({ folder: 'pictures', name: 'two.webp' }, Buffer.alloc(0));
    expect(await store().has(file)).toBe(true);
    expect((await store().read(file)).equals(data)).toBe(true);
    const names = async (prefix?: string) =>
      (await store().list('pictures', prefix)).map(({ name }) => name).toSorted();
    expect(await names()).toEqual(['thumbs/one.webp', 'two.webp']);
    expect(await names('thumbs/o')).toEqual(['thumbs/one.webp']);
    expect(await names('thumbs/x')).toEqual([]);
    for (const { ageMs } of await store().list('pictures')) expect(ageMs).toBeLessThan(3_600_000);
    await store().remove([file, file]);
    expect(await names()).toEqual(['two.webp']);
    await store().remove([{ folder: 'pictures', name: 'two.webp' }]);
  });

  test('are held against the digest in their name', async () => {
    const told: unknown[] = [];
    const careful = checked(store(), (fault) => told.push(fault));
    const name = namedByContent('a.pdf', Buffer.from('as it was written'));
    await careful.write({ folder: 'labels', name }, Buffer.from('as it was written'));
    expect((await careful.read({ folder: 'labels', name })).toString()).toBe('as it was written');
    await store().write({ folder: 'labels', name }, Buffer.from('as it was wriften'));
    await expect(careful.read({ folder: 'labels', name })).rejects.toMatchObject({ code: 'not-found' });
    expect(told).toHaveLength(1);
    await store().remove([{ folder: 'labels', name }]);
  });
});

test('a name carries the SHA-256 of what it names, and reads without it', () => {
  // FIPS 180-2, appendix B.1: the digest of "abc".
  const digest = 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad';
  const name = namedByContent('thumbs/x-1.webp', Buffer.from('abc'));
  expect(name).toBe(`thumbs/x-1-${digest}.webp`);
  expect([digestIn(name), withoutDigest(name)]).toEqual([digest, 'thumbs/x-1.webp']);
  expect([digestIn('thumbs/x-1.webp'), withoutDigest('thumbs/x-1.webp')]).toEqual([null, 'thumbs/x-1.webp']);
});

describe('the application with a bucket', () => {
  let app: TestApp;
  let id: string;
  beforeAll(async () => {
    app = await startTestApp({ s3: place });
    const animal = await app.owner.post('/animals', { number: 'B-1', sex: 'female', genes: 'Pastel' });
    id = (animal.body as { id: string }).id;
    await app.owner.post(`/animals/${id}/records`, {
      kind: 'identification',
      on: '2026-01-05',
      body: { genes: 'Pastel', sure: 'certain', by: 'Ida' },
    });
  });
  afterAll(() => app.close());

  test('keeps pictures and labels there, sends them, and takes them away', async () => {
    const png = await sharp({ create: { width: 80, height: 60, channels: 3, background: '#a86' } })
      .png()
      .toBuffer();
    const uploaded = await app.owner.upload(`/animals/${id}/pictures`, 'image/png', png);
    const picture = (uploaded.body as { id: string }).id;
    const shown = await app.owner.get(`/pictures/${picture}`);
    expect((await sharp(shown.body as Buffer).metadata()).format).toBe('webp');
    // What a browser has it is not sent again, and nothing is read for it.
    const again = await app.owner.get(`/pictures/${picture}`, { 'If-None-Match': shown.headers['etag']! });
    expect(again.status).toBe(304);
    const { slug } = (await app.owner.put(`/animals/${id}/publication`, {})).body as { slug: string };
    for (let time = 0; time < 2; time++)
      expect((await app.anonymous.get(`/public/${slug}/pictures/${picture}`)).status).toBe(200);
    const sheet = await app.owner.post('/labels', { animalIds: [id], kind: 'full', size: 'roll-50x25' });
    const pdf = await app.owner.get(`/labels/${(sheet.body as { id: string }).id}`);
    expect((pdf.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    expect(await sweepFiles(app.database, app.files)).toEqual({ removed: [], missing: [] });
    const names = async (): Promise<number> => (await app.files.list('pictures')).length;
    // The picture, its thumbnail, the original and the stamped copy.
    expect(await names()).toBe(4);
    await app.owner.delete(`/animals/${id}/publication`);
    expect((await app.owner.delete(`/pictures/${picture}`)).status).toBe(204);
    // It can still be restored.
    expect(await names()).toBe(4);
    const [entry] = ((await app.owner.get('/bin')).body as Page<BinEntry>).items;
    await app.owner.delete(`/bin/${entry!.id}`);
    await vi.waitFor(async () => expect(await names()).toBe(0));
  });

  test('a picture that was damaged there is not shown', async () => {
    const png = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#123' } })
      .png()
      .toBuffer();
    const uploaded = await app.owner.upload(`/animals/${id}/pictures`, 'image/png', png);
    const picture = (uploaded.body as { id: string }).id;
    const [file] = await app.files.list('pictures', picture);
    await app.files.write(file!, Buffer.from('something else'));
    const answer = await app.owner.get(`/pictures/${picture}`);
    expect(answer.status).toBe(404);
    expect(answer.body).toMatchObject({ detail: expect.stringContaining('damaged') as string });
    expect(app.faults.splice(0)).toHaveLength(1);
  });
});

test('a file that cannot be written leaves nothing behind', async () => {
  const root = mkdtempSync(join(tmpdir(), 'karyotome-cut-'));
  writeFileSync(join(root, 'blocker'), '');
  // A file stands where a folder would have to be made.
  await expect(
    diskStore(join(root, 'blocker')).write({ folder: 'cards', name: 'a.pdf' }, Buffer.from('x')),
  ).rejects.toThrow();
  expect(readdirSync(root)).toEqual(['blocker']);
  expect(readFileSync(join(root, 'blocker'), 'utf8')).toBe('');
  rmSync(root, { recursive: true });
});
