import { existsSync, readdirSync, utimesSync, writeFileSync, mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { BinEntry, Page } from '@karyotome/contract';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { sweepFiles } from '../src/files/sweep.ts';
import { formatOf } from '../src/domain/pictures/picture-copies.ts';
import { fieldsOf, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* What is kept, and what goes: files and the rows that name them. */

let app: TestApp;
let owner: TestClient;
let id: string;
let png: Buffer;
beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
  const made = await owner.post('/animals', { number: 'P-1', sex: 'female', genes: 'Pastel' });
  id = (made.body as { id: string }).id;
  png = await sharp({ create: { width: 80, height: 60, channels: 3, background: '#a86' } })
    .png()
    .toBuffer();
});
afterAll(() => app.close());

const folder = (...names: string[]): string => join(app.dataDir, ...names);
const filesIn = (...names: string[]): string[] =>
  existsSync(folder(...names))
    ? readdirSync(folder(...names), { recursive: true, withFileTypes: true })
        .filter((entry) => entry.isFile())
        .map(({ name }) => name)
    : [];
const upload = (bytes: Buffer, type = 'image/png') => owner.upload(`/animals/${id}/pictures`, type, bytes);

describe('what is decoded', () => {
  test('a picture is told by its first bytes, whatever it says it is', async () => {
    const { data: jpeg } = await sharp(png).jpeg().toBuffer({ resolveWithObject: true });
    const webp = await sharp(png).webp().toBuffer();
    expect([png, jpeg, webp].map(formatOf)).toEqual(['png', 'jpeg', 'webp']);
    for (const other of [
      'GIF89a',
      '<svg xmlns="x"/>',
      '%PDF-1.4',
      'II*\0',
      'RIFF....AVI ',
      '\0\0\0 ftypheic',
      '',
    ])
      expect(formatOf(Buffer.from(other, 'latin1'))).toBeNull();
    // A JPEG under another name is what it is; an SVG under any name is refused before anything reads it.
    expect((await upload(jpeg, 'image/png')).status).toBe(201);
    const svg = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>');
    expect(fieldsOf(await upload(svg))[0]).toContain('picture: must be a JPEG, PNG or WebP picture');
  });

  test('a picture that would unpack too large is refused by its header, and one that ends early is broken', async () => {
    const huge = Buffer.from(png);
    huge.writeUInt32BE(30_000, 16);
    huge.writeUInt32BE(30_000, 20);
    expect(fieldsOf(await upload(huge))[0]).toMatch(/unpacks to 900 megapixels: at most 26|cannot be read/);
    expect(fieldsOf(await upload(png.subarray(0, png.length - 30)))[0]).toContain('is broken');
  });

  test('nothing lies on the disk of a picture that was refused, or whose animal is not there', async () => {
    const before = filesIn('pictures').toSorted();
    await upload(png.subarray(0, 60));
    const stranger = await owner.upload(
      '/animals/0b1d2c3e-1111-4111-8111-111111111111/pictures',
      'image/png',
      png,
    );
    expect(stranger.status).toBe(404);
    expect(filesIn('pictures').toSorted()).toEqual(before);
  });
});

describe('what goes', () => {
  test('a deleted picture’s copies, the stamped ones too, and the original with its place', async () => {
    const made = await upload(png);
    const picture = (made.body as { id: string }).id;
    const { slug } = (await owner.put(`/animals/${id}/publication`, { text: null })).body as { slug: string };
    expect((await app.anonymous.get(`/public/${slug}/pictures/${picture}`)).status).toBe(200);
    const own = (): string[] => filesIn('pictures').filter((name) => name.startsWith(picture));
    expect(own()).toHaveLength(4);
    // What is signed of it holds as long as it can be asked for.
    expect((await owner.delete(`/pictures/${picture}`)).status).toBe(409);
    await owner.delete(`/animals/${id}/publication`);
    expect((await owner.delete(`/pictures/${picture}`)).status).toBe(204);
    expect((await app.anonymous.get(`/public/${slug}/pictures/${picture}`)).status).toBe(404);
    const { items } = (await owner.get('/bin')).body as Page<BinEntry>;
    await owner.delete(`/bin/${items[0]!.id}`);
    await vi.waitFor(() => expect(own()).toEqual([]));
  });

  test('a sweep finds what a crash left, both ways', async () => {
    const picture = ((await upload(png)).body as { id: string }).id;
    const stray = folder('pictures', 'stray.webp');
    const half = folder('labels', 'half.pdf.part');
    mkdirSync(folder('labels'), { recursive: true });
    const old = new Date(Date.now() - 2 * 3_600_000);
    for (const file of [stray, half]) {
      writeFileSync(file, 'x');
      utimesSync(file, old, old);
    }
    // A write that is under way in another process has not named its file yet.
    writeFileSync(folder('pictures', 'young.webp'), 'x');
    const thumbFile = filesIn('pictures', 'thumbs').find((name) => name.startsWith(picture))!;
    rmSync(folder('pictures', 'thumbs', thumbFile));
    const { removed, missing } = await sweepFiles(app.database, app.files);
    expect(removed.map(({ name }) => name).toSorted()).toEqual(['half.pdf.part', 'stray.webp']);
    expect(missing).toEqual([{ folder: 'pictures', name: `thumbs/${thumbFile}` }]);
    expect(existsSync(stray) || existsSync(half)).toBe(false);
    expect(existsSync(folder('pictures', 'young.webp'))).toBe(true);
    // The page says what is missing; it is no fault of whoever asks.
    const thumb = await owner.get(`/pictures/${picture}?copy=thumb`);
    expect(thumb.status).toBe(404);
    expect(thumb.body).toMatchObject({ detail: 'The file is missing from where files are kept.' });
  });
});

describe('an animal', () => {
  const animal = async (more: object = {}): Promise<string> =>
    (
      (
        await owner.post('/animals', {
          number: `D-${Math.random()}`,
          sex: 'male',
          genes: 'Pastel',
          massG: 300,
          ...more,
        })
      ).body as { id: string }
    ).id;

  test('that is a parent cannot be deleted, and what to do instead is said', async () => {
    const parent = await animal();
    await animal({ sireId: parent });
    const refused = await owner.post(`/animals/${parent}/delete`, { reason: 'x' });
    expect(refused.status).toBe(409);
    const { detail } = refused.body as { detail: string };
    expect(detail).toContain('is a parent');
    expect(detail).toContain('mistaken');
    // Marked as mistaken it is in nobody's way, and its history stands.
    const { version } = (await owner.get(`/animals/${parent}`)).body as { version: number };
    const marked = await owner.patch(
      `/animals/${parent}`,
      { status: 'mistaken' },
      { 'If-Match': `"${version}"` },
    );
    expect(marked.status).toBe(200);
    const { lines } = (await owner.get('/today')).body as { lines: { animal: { id: string } | null }[] };
    expect(lines.filter((line) => line.animal?.id === parent)).toEqual([]);
  });
});
