import { execFileSync } from 'node:child_process';
import type { BenchView } from '@karyotome/contract';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { version as ifVersion } from './bench-acts.ts';
import { fieldsOf, startTestApp, type TestApp, type TestClient } from './test-app.ts';

let app: TestApp;
let owner: TestClient;
beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
});
afterAll(() => app.close());

describe('pictures', () => {
  let id: string;
  beforeAll(async () => {
    id = ((await owner.post('/animals', { number: 'P', sex: 'male' })).body as { id: string }).id;
  });

  test('are turned upright, made smaller, and lose place and camera', async () => {
    const jpeg = await sharp({ create: { width: 3000, height: 1000, channels: 3, background: '#a08050' } })
      .withExif({
        IFD0: { Make: 'Camera', Copyright: 'Somebody' },
        IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 30/1 0/1' },
      })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    const { id: picture } = (await owner.upload(`/animals/${id}/pictures?caption=side`, 'image/jpeg', jpeg))
      .body as { id: string };
    const stored = await owner.get(`/pictures/${picture}`);
    expect(stored.headers['content-type']).toBe('image/webp');
    const metadata = await sharp(stored.body as Buffer).metadata();
    // Orientation 6 is a quarter turn (EXIF 2.32, 4.6.4): wide becomes tall.
    expect([metadata.width, metadata.height]).toEqual([667, 2000]);
    expect(metadata.exif).toBeUndefined();
    // exiftool, Debian's package, finds nothing but what the pixels themselves need.
    for (const copy of ['', '?copy=thumb']) {
      const shown = (await owner.get(`/pictures/${picture}${copy}`)).body as Buffer;
      const words = execFileSync('exiftool', ['-a', '-G1', '-s', '-'], { input: shown, encoding: 'utf8' });
      expect(words).toContain('ImageWidth');
      expect(words).not.toMatch(/GPS|Make|Copyright|Somebody|\[(IFD\d|ExifIFD|XMP)/);
    }
    // The original is kept as it came, for the members.
    const original = await owner.get(`/pictures/${picture}?copy=original`);
    expect((original.body as Buffer).equals(jpeg)).toBe(true);
    expect(original.headers['content-disposition']).toContain('picture.jpg');
    expect((await app.anonymous.get(`/pictures/${picture}`)).status).toBe(401);
    expect((await owner.delete(`/pictures/${picture}`)).status).toBe(204);
    expect((await owner.get(`/pictures/${picture}`)).status).toBe(404);
  });

  test('carry the number and the collection’s name where others see them', async () => {
    await owner.post(`/animals/${id}/records`, {
      kind: 'identification',
      on: '2026-01-05',
      body: { genes: 'Pastel', sure: 'certain', by: 'Ida' },
    });
    const plain = await sharp({ create: { width: 800, height: 600, channels: 3, background: '#40a060' } })
      .jpeg()
      .toBuffer();
    const { id: picture } = (await owner.upload(`/animals/${id}/pictures`, 'image/jpeg', plain)).body as {
      id: string;
    };
    const { slug } = (await owner.put(`/animals/${id}/publication`, { text: null })).body as { slug: string };
    const published = (await app.anonymous.get(`/public/${slug}/pictures/${picture}`)).body as Buffer;
    const own = (await owner.get(`/pictures/${picture}`)).body as Buffer;
    // The lower left corner differs from the keeper's copy, the rest does not.
    const contrast = async (bytes: Buffer, top: number): Promise<number> => {
      const part = await sharp(bytes).extract({ left: 20, top, width: 120, height: 24 }).png().toBuffer();
      return (await sharp(part).stats()).channels[1]!.stdev;
    };
    for (const bytes of [published, own]) expect(await contrast(bytes, 100)).toBeLessThan(5);
    expect(await contrast(own, 562)).toBeLessThan(5);
    expect(await contrast(published, 562)).toBeGreaterThan(40);
    // What the offer leaves out is not to be had at the address either.
    const offer = await owner.get(`/animals/${id}/offer`);
    const { version } = offer.body as { version: number };
    expect((await owner.put(`/animals/${id}/offer`, { pictureIds: [] }, ifVersion(version))).status).toBe(
      200,
    );
    expect((await app.anonymous.get(`/public/${slug}/pictures/${picture}`)).status).toBe(404);
  });

  test('of a clutch’s card are kept with the clutch', async () => {
    const dam = (await owner.post('/animals', { number: 'PD', sex: 'female', genes: 'Normal' })).body as {
      id: string;
    };
    const pairing = (
      await owner.post('/pairings', {
        season: 2026,
        damId: dam.id,
        sires: [{ animalId: id, weight: 1 }],
        startedOn: '2026-01-05',
      })
    ).body as { id: string };
    const clutch = (await owner.post('/clutches', { pairingId: pairing.id, laidOn: '2026-02-05', eggs: 4 }))
      .body as { id: string };
    const card = await sharp({ create: { width: 600, height: 400, channels: 3, background: '#fff' } })
      .png()
      .toBuffer();
    const { id: picture } = (await owner.upload(`/clutches/${clutch.id}/pictures`, 'image/png', card))
      .body as {
      id: string;
    };
    const bench = (await owner.get(`/clutches/${clutch.id}/bench`)).body as BenchView;
    expect(bench.cardPictureIds).toEqual([picture]);
    expect((await owner.upload(`/clutches/${id}/pictures`, 'image/png', card)).status).toBe(404);
  });

  test('that are no pictures, broken, or unpack to hundreds of megapixels are refused', async () => {
    const path = `/animals/${id}/pictures`;
    expect(fieldsOf(await owner.upload(path, 'image/png', Buffer.from('<svg/>')))[0]).toContain('picture: ');
    expect(fieldsOf(await owner.upload(path, 'image/gif', Buffer.from('GIF89a')))[0]).toContain(
      'must be a JPEG, PNG or WebP',
    );
    const vast = await sharp({ create: { width: 16_000, height: 16_000, channels: 3, background: '#000' } })
      .png()
      .toBuffer();
    const response = await owner.upload(path, 'image/png', vast);
    expect(response.status).toBe(422);
    expect(fieldsOf(response)[0]).toContain('picture: unpacks to 256 megapixels');
  });
});
