import type {
  Page,
  AnimalSummary,
  AnimalView,
  PairingView,
  RackView,
  ShowcaseLine,
  TodayView,
} from '@karyotome/contract';
import { addDays } from '@karyotome/core';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { machineToday } from '../src/db/work.ts';
import { fieldsOf, startTestApp, type TestApp, type TestClient } from './test-app.ts';
import { racksOf } from './wholes.ts';

let app: TestApp;
let owner: TestClient;
const ago = (days: number): string => addDays(machineToday(), -days);
beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
});
afterAll(() => app.close());

const created = async (path: string, body: object): Promise<string> => {
  const response = await owner.post(path, body);
  expect(response.status, JSON.stringify(response.body)).toBe(201);
  return (response.body as { id: string }).id;
};
const read = async <T>(path: string): Promise<T> => (await owner.get(path)).body as T;
const record = (id: string, kind: string, on: string, body: object): Promise<string> =>
  created(`/animals/${id}/records`, { kind, on, body });
const meal = { species: 'rat', size: 'pup', state: 'frozen-thawed', taken: true };

describe('a rack and who lives in it', () => {
  let rack: RackView;
  let id: string;
  beforeAll(async () => {
    const [ladder] = (await read<Page<{ id: string }>>('/ladders?limit=200')).items;
    await created('/racks', {
      room: 'R',
      name: 'One',
      levels: 1,
      tubsPerLevel: 2,
      ladderId: ladder!.id,
      stepPosition: 0,
    });
    [rack] = (await racksOf((path) => owner.get(path))) as [RackView];
    id = await created('/animals', {
      number: 'T-1',
      sex: 'male',
      genes: 'pastel',
      hatchedOn: ago(200),
      tubId: rack.tubs[0]!.id,
    });
  });

  test('an animal can move in as it is entered, and the room shows it', async () => {
    const [now] = await racksOf((path) => owner.get(path));
    expect(now!.tubs.map((tub) => tub.animals.map((animal) => animal.number))).toEqual([['T-1'], []]);
    expect((await read<AnimalView>(`/animals/${id}`)).tub).toMatchObject({ rack: 'One', level: 1, slot: 1 });
  });

  test('a move to where it lives is no move, and to nowhere known neither', async () => {
    const move = (toTubId: string) =>
      owner.post(`/animals/${id}/records`, {
        kind: 'move',
        on: machineToday(),
        body: { toTubId, reason: 'x' },
      });
    expect(fieldsOf(await move(rack.tubs[0]!.id))).toEqual(['body.toTubId: is the tub it lives in']);
    expect(fieldsOf(await move(rack.id))).toEqual(['body.toTubId: names no tub of this collection']);
  });

  test('an undone move puts it back', async () => {
    const moved = await record(id, 'move', machineToday(), { toTubId: rack.tubs[1]!.id, reason: 'cleaning' });
    expect((await read<AnimalView>(`/animals/${id}`)).tub).toMatchObject({ slot: 2 });
    await owner.post(`/records/${moved}/void`, { reason: 'Undone' });
    const page = await read<AnimalView>(`/animals/${id}`);
    expect(page.tub).toMatchObject({ slot: 1 });
    expect(page.records.find((r) => r.id === moved)).toMatchObject({
      body: { from: 'One 1-1', to: 'One 1-2' },
      voided: { reason: 'Undone' },
    });
  });

  test('a rack with somebody in it stays', async () => {
    const refused = await owner.post(`/racks/${rack.id}/delete`, { reason: 'x' });
    expect(refused.status).toBe(409);
    expect((refused.body as { detail: string }).detail).toContain('1 animals live in this rack');
  });

  test('two racks of one room do not share a name', async () => {
    const { room, name, levels, tubsPerLevel, ladderId, stepPosition } = rack;
    const again = await owner.post('/racks', { room, name, levels, tubsPerLevel, ladderId, stepPosition });
    expect(again.status).toBe(409);
    expect(fieldsOf(again)).toEqual(['name: is the name of another rack in this room']);
  });
});

describe('today', () => {
  test('asks for a meal when it is due, counts what to thaw, and is quiet once it was given', async () => {
    const id = await created('/animals', {
      number: 'E-1',
      sex: 'male',
      genes: 'clown',
      hatchedOn: ago(300),
      massG: 220,
    });
    await record(id, 'feeding', ago(8), meal);
    const due = (view: TodayView) =>
      view.lines.filter((line) => line.animal?.id === id && line.kind === 'meal');
    const before = await read<TodayView>('/today');
    // 12.5% of 220 g is 27.5 g: a rat pup (20 to 35 g).
    expect(due(before)).toMatchObject([{ preset: { species: 'rat', size: 'pup' } }]);
    expect(before.thaw).toContainEqual({ prey: 'rat pup', count: expect.any(Number), left: null });
    await record(id, 'feeding', machineToday(), meal);
    expect(due(await read<TodayView>('/today'))).toEqual([]);
  });

  test('does not ask after animals that are gone', async () => {
    const id = await created('/animals', { number: 'G-1', sex: 'male', status: 'sold' });
    const { lines } = await read<TodayView>('/today');
    expect(lines.some((line) => line.animal?.id === id)).toBe(false);
  });

  test('says what is due of eggs, and gathers the work of a clutch into one line', async () => {
    const damId = await created('/animals', { number: 'D', sex: 'female', genes: 'pastel' });
    const animalId = await created('/animals', { number: 'S', sex: 'male', genes: 'normal' });
    const pairing = (startedOn: string) =>
      created('/pairings', { season: 2026, damId, sires: [{ animalId, weight: 1 }], startedOn });
    await created('/clutches', { pairingId: await pairing(ago(120)), laidOn: ago(57), eggs: 5 });
    const hatched = await created('/clutches', {
      pairingId: await pairing(ago(220)),
      laidOn: ago(100),
      eggs: 3,
    });
    const response = await owner.post(
      `/clutches/${hatched}/hatchlings`,
      { hatchedOn: ago(40), hatched: 3 },
      { 'If-Match': '"1"' },
    );
    for (const id of (response.body as { ids: string[] }).ids)
      await record(id, 'shed', ago(31), { stage: 'shed', complete: true, eyeCaps: true });
    const { lines } = await read<TodayView>('/today');
    expect(lines.find((line) => line.kind === 'eggs')).toMatchObject({
      code: 'first-pip-due',
      facts: { what: 'first-pip', day: 57 },
    });
    expect(lines.find((line) => line.clutch?.id === hatched)).toMatchObject({
      code: 'bench-work-due',
      facts: { identify: 3, sex: 3 },
    });
    expect(lines.filter((line) => line.kind === 'identify' && line.animal !== null)).toEqual([]);
  });
});

describe('pairings', () => {
  test('show cautions for what they can produce, and go only while they have no clutch', async () => {
    const damId = await created('/animals', { number: 'CD', sex: 'female', genes: 'spider' });
    const animalId = await created('/animals', { number: 'CS', sex: 'male', genes: 'spider' });
    const id = await created('/pairings', {
      season: 2026,
      damId,
      sires: [{ animalId, weight: 1 }],
      startedOn: ago(90),
    });
    const view = (await read<Page<PairingView>>('/pairings?limit=200')).items.find(
      (pairing) => pairing.id === id,
    )!;
    expect(view.cautions).toEqual([
      'Spider comes with a neurological wobble.',
      'Two copies of spider are thought not to live.',
    ]);
    await created('/clutches', { pairingId: id, laidOn: ago(20), eggs: 4 });
    expect((await owner.post(`/pairings/${id}/delete`, { reason: 'x' })).status).toBe(409);
    expect((await owner.post(`/animals/${damId}/delete`, { reason: 'x' })).status).toBe(409);
    const other = await created('/pairings', {
      season: 2026,
      damId,
      sires: [{ animalId, weight: 1 }],
      startedOn: ago(5),
    });
    expect((await owner.post(`/pairings/${other}/delete`, { reason: 'x' })).status).toBe(201);
  });

  test('slugs are no more than eggs', async () => {
    const pairing = (await read<Page<PairingView>>('/pairings?limit=200')).items[0]!;
    const response = await owner.post('/clutches', {
      pairingId: pairing.id,
      laidOn: machineToday(),
      eggs: 3,
      slugs: 4,
    });
    expect(fieldsOf(response)).toEqual(['slugs: must be at most the number of eggs, 3']);
  });
});

describe('publishing', () => {
  test('waits for an identification, can be said again, and shows its pictures only while it lasts', async () => {
    const id = await created('/animals', { number: 'P-1', sex: 'female' });
    expect((await owner.put(`/animals/${id}/publication`, {})).status).toBe(409);
    await record(id, 'identification', machineToday(), { genes: 'spider', sure: 'probable', by: 'Ida' });
    const { slug } = (await owner.put(`/animals/${id}/publication`, {})).body as { slug: string };
    const again = (await owner.put(`/animals/${id}/publication`, { text: 'Gentle.' })).body as {
      slug: string;
    };
    expect(again.slug).toBe(slug);
    const png = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#876' } })
      .png()
      .toBuffer();
    const picture = ((await owner.upload(`/animals/${id}/pictures`, 'image/png', png)).body as { id: string })
      .id;
    expect((await app.anonymous.get(`/public/${slug}/pictures/${picture}`)).status).toBe(200);
    const page = (await app.anonymous.get(`/public/${slug}`)).body as {
      text: string;
      cautions: string[];
      claims: { p: number; certain: boolean }[];
    };
    expect(page).toMatchObject({ text: 'Gentle.', cautions: ['Spider comes with a neurological wobble.'] });
    expect(page.claims[0]).toMatchObject({ p: 0.9, certain: false });
    expect((await read<Page<ShowcaseLine>>('/showcase?limit=200')).items.map((line) => line.slug)).toContain(
      slug,
    );
    await owner.delete(`/animals/${id}/publication`);
    expect((await app.anonymous.get(`/public/${slug}/pictures/${picture}`)).status).toBe(404);
    expect((await owner.delete(`/animals/${id}/publication`)).status).toBe(404);
    // Another page gets another address: who had the old one does not get the new.
    const next = (await owner.put(`/animals/${id}/publication`, {})).body as { slug: string };
    expect(next.slug).not.toBe(slug);
  });
});

describe('what is inferred', () => {
  test('changes when the records do, also for relatives', async () => {
    const sire = await created('/animals', { number: 'I-S', sex: 'male', genes: '50% het pied' });
    const dam = await created('/animals', { number: 'I-D', sex: 'female', genes: 'pied' });
    const young = await created('/animals', {
      number: 'I-Y',
      sex: 'unknown',
      genes: 'normal',
      damId: dam,
      sireId: sire,
    });
    const claims = async (id: string) =>
      (await read<AnimalView>(`/animals/${id}`)).claims.map((claim) => claim.label);
    // Bayes by hand: 1/2 prior, one non-visual young of a visual mate: (1/2 x 1/2) / (1/2 x 1/2 + 1/2) = 1/3.
    expect(await claims(sire)).toEqual(['33% het Pied']);
    expect(await claims(young)).toEqual(['100% het Pied']);
    const seen = await record(young, 'identification', machineToday(), {
      genes: 'pied',
      sure: 'certain',
      by: 'Ida',
    });
    expect(await claims(sire)).toEqual(['100% het Pied']);
    await owner.post(`/records/${seen}/void`, { reason: 'It was another one' });
    expect(await claims(sire)).toEqual(['33% het Pied']);
    const list = (await read<Page<AnimalSummary>>('/animals?limit=200')).items;
    expect(list.find((animal) => animal.id === sire)!.label).toBe('33% het Pied');
  });
});
