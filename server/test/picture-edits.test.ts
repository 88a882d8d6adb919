import type { AnimalView, PictureEdit } from '@karyotome/contract';
import sharp from 'sharp';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { ago } from './days.ts';
import { fieldsOf, maker, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* Pictures are turned, cropped and evened as they are shown; what came in stays as it is. */

let app: TestApp;
let owner: TestClient;
let animalId: string;
beforeAll(async () => {
  app = await startTestApp();
});
afterAll(() => app.close());
beforeEach(async () => {
  owner = await app.newCollection('Reedwater');
  animalId = await make.animal('P-1', 'female', 'Pastel');
});
const make = maker(() => owner, ago);
const WHOLE = { left: 0, top: 0, width: 1, height: 1 };
const edit = (id: string, body: Partial<PictureEdit>) =>
  owner.post(`/pictures/${id}/edit`, { turn: 0, crop: WHOLE, isEvened: false, ...body });
const added = async (png: Buffer): Promise<string> =>
  ((await owner.upload(`/animals/${animalId}/pictures`, 'image/png', png)).body as { id: string }).id;
const shown = async (id: string): Promise<Buffer> => {
  const answer = await owner.get(`/pictures/${id}`);
  return answer.body as Buffer;
};
const viewOf = async (id: string) =>
  ((await owner.get(`/animals/${animalId}`)).body as AnimalView).pictures.find((one) => one.id === id)!;
/** 80 by 40: red on the left, blue on the right. */
const halves = () =>
  sharp({ create: { width: 80, height: 40, channels: 3, background: '#0000ff' } })
    .composite([
      { input: { create: { width: 40, height: 40, channels: 3, background: '#ff0000' } }, left: 0, top: 0 },
    ])
    .png()
    .toBuffer();
const colourAt = async (picture: Buffer, x: number, y: number): Promise<'red' | 'blue' | 'other'> => {
  const [r, , b] = await sharp(picture)
    .extract({ left: x, top: y, width: 1, height: 1 })
    .removeAlpha()
    .raw()
    .toBuffer();
  return r! > 180 && b! < 80 ? 'red' : b! > 180 && r! < 80 ? 'blue' : 'other';
};

describe('a picture', () => {
  test('is turned by a quarter: what was left is on top; and shown as it came again', async () => {
    const id = await added(await halves());
    expect((await edit(id, { turn: 90 })).status).toBe(201);
    expect(await viewOf(id)).toMatchObject({ width: 40, height: 80, edit: { turn: 90 } });
    const turned = await shown(id);
    expect([await colourAt(turned, 20, 10), await colourAt(turned, 20, 70)]).toEqual(['red', 'blue']);
    await edit(id, {});
    expect(await viewOf(id)).toMatchObject({ width: 80, height: 40 });
  });

  test('is cropped after it was turned', async () => {
    const id = await added(await halves());
    await edit(id, { turn: -90, crop: { left: 0, top: 0, width: 1, height: 0.25 } });
    expect(await viewOf(id)).toMatchObject({ width: 40, height: 20 });
    const cut = await shown(id);
    expect([await colourAt(cut, 2, 2), await colourAt(cut, 37, 17)]).toEqual(['blue', 'blue']);
  });

  test('turned a little it keeps its corners, on white', async () => {
    const id = await added(await halves());
    await edit(id, { turn: 10 });
    const { width, height } = await viewOf(id);
    const [sin, cos] = [Math.sin(Math.PI / 18), Math.cos(Math.PI / 18)];
    expect(Math.abs(width - (80 * cos + 40 * sin))).toBeLessThanOrEqual(2);
    expect(Math.abs(height - (80 * sin + 40 * cos))).toBeLessThanOrEqual(2);
    expect(await colourAt(await shown(id), 0, 0)).toBe('other');
  });

  test('light from one side is taken out of the ground, and the animal stays darker than it', async () => {
    // A ground that grows from 120 to 200, with a dark disc.
    const [width, height] = [120, 90];
    const pixels = Buffer.alloc(width * height * 3);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        // It reaches over the lower edge, where the ground is judged.
        const isAnimal = (x - 60) ** 2 + (y - 60) ** 2 < 34 ** 2;
        const ground = 120 + (80 * x) / (width - 1);
        pixels.fill(
          Math.round(isAnimal ? ground * 0.3 : ground),
          (y * width + x) * 3,
          (y * width + x) * 3 + 3,
        );
      }
    const png = await sharp(pixels, { raw: { width, height, channels: 3 } })
      .png()
      .toBuffer();
    const id = await added(png);
    await edit(id, { isEvened: true });
    const even = await sharp(await shown(id))
      .removeAlpha()
      .raw()
      .toBuffer();
    const at = (x: number, y: number): number => even[(y * width + x) * 3]!;
    const ground = [at(5, 45), at(60, 5), at(115, 45), at(5, 5), at(115, 85)];
    expect(Math.max(...ground) - Math.min(...ground)).toBeLessThan(12);
    expect(at(60, 60)).toBeLessThan(0.5 * Math.min(...ground));
  });

  test('its original stays as it came', async () => {
    const png = await halves();
    const id = await added(png);
    await edit(id, { turn: 90, crop: { left: 0, top: 0, width: 0.5, height: 0.5 } });
    const original = await owner.get(`/pictures/${id}?copy=original`);
    expect((original.body as Buffer).equals(png)).toBe(true);
  });
});

test('what lies outside, or belongs to nobody here, is refused', async () => {
  const id = await added(await halves());
  const outside = await edit(id, { crop: { left: 0.6, top: 0, width: 0.5, height: 1 } });
  expect(fieldsOf(outside)).toEqual(['crop: must lie within the picture']);
  expect(fieldsOf(await edit(id, { turn: 1000 }))[0]).toContain('turn');
  const other = await app.newCollection('Other');
  const body = { turn: 90, crop: WHOLE, isEvened: false };
  expect((await other.post(`/pictures/${id}/edit`, body)).status).toBe(404);
  const viewer = await app.newCollection('Seen', 'viewer');
  expect((await viewer.post(`/pictures/${id}/edit`, body)).status).toBe(403);
});
