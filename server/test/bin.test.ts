import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { BIN_DAYS, type Page } from '@karyotome/contract';
import sharp from 'sharp';
import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { emptyBin } from '../src/domain/bin/bin.service.ts';
import { GOING } from '../src/domain/bin/bin.queries.ts';
import { loadDemo } from '../src/demo/demo.ts';
import { sweepFiles } from '../src/files/sweep.ts';
import { binOf } from './bin-acts.ts';
import { ago } from './days.ts';
import { everyRow } from './every-row.ts';
import { createdBy, maker, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* What was deleted comes back whole, or goes for good. */

let app: TestApp;
let owner: TestClient;
beforeAll(async () => {
  app = await startTestApp();
});
afterAll(() => app.close());
beforeEach(async () => {
  owner = await app.newCollection('Reedwater');
});

const make = maker(() => owner, ago);
const created = createdBy(() => owner);
const remove = (id: string, reason = 'Entered twice') => owner.post(`/animals/${id}/delete`, { reason });
const { entries, restore } = binOf(() => owner);
const png = () =>
  sharp({ create: { width: 9, height: 9, channels: 3, background: '#486' } })
    .png()
    .toBuffer();
const pictureOf = async (id: string): Promise<string> =>
  ((await owner.upload(`/animals/${id}/pictures`, 'image/png', await png())).body as { id: string }).id;
const fileCount = async (): Promise<number> => (await app.files.list('pictures')).length;

describe('every animal of the demo that nothing rests on', () => {
  let demo: TestApp;
  let folder: string;
  let client: TestClient;
  beforeAll(async () => {
    folder = mkdtempSync(join(tmpdir(), 'karyotome-bin-'));
    demo = await startTestApp({ isEmpty: true });
    await loadDemo(demo.database, demo.files, { dataDir: folder, signingSecret: 'only-for-tests' });
    const [email, password] = readFileSync(join(folder, 'owner-sign-in.txt'), 'utf8').split('\n');
    client = await demo.signedIn(email!, password);
  });
  afterAll(async () => {
    await demo.close();
    rmSync(folder, { recursive: true, force: true });
  });

  test('comes back with every row as it was, and nothing of it is found meanwhile', async () => {
    const before = await everyRow(demo);
    const [animals] = (await demo.database.sequelize.query('select id from animals order by number')) as [
      { id: string }[],
      unknown,
    ];
    const deleted: string[] = [];
    for (const { id } of animals) {
      const answer = await client.post(`/animals/${id}/delete`, { reason: 'Tried' });
      expect([201, 409]).toContain(answer.status);
      if (answer.status === 201) deleted.push((answer.body as { id: string }).id);
    }
    expect(deleted.length).toBeGreaterThan(5);
    expect(deleted.length).toBeLessThan(animals.length);
    const meanwhile = await everyRow(demo);
    expect(meanwhile.get('animals')).toHaveLength(animals.length - deleted.length);
    expect(meanwhile.get('records')!.length).toBeLessThan(before.get('records')!.length);
    // Files that can come back are no strays.
    expect(await sweepFiles(demo.database, demo.files, 0)).toEqual({ removed: [], missing: [] });
    for (const id of deleted.toReversed()) expect((await client.post(`/bin/${id}/restore`)).status).toBe(201);
    const after = await everyRow(demo);
    for (const [table, rows] of before) expect(after.get(table), table).toEqual(rows);
  });
});

test('every table with rows of an animal goes along, or keeps it, or is computed', async () => {
  const [rows] = (await app.database.sequelize.query(
    `select distinct conrelid::regclass::text as name from pg_constraint
      where contype = 'f' and conparentid = 0 and confrelid = 'animals'::regclass order by 1`,
  )) as [{ name: string }[], unknown];
  expect(rows.map(({ name }) => name)).toEqual(
    [
      ...Object.keys(GOING.animal).filter((name) => name !== 'animals'),
      // An animal that these name as a parent, or state something of, cannot be deleted.
      ...['animals', 'pairings', 'pairing_sires', 'pairing_events', 'statements'],
      // These stay, and lose it.
      ...['letters', 'inquiries'],
      // These end with it.
      ...['animal_claims', 'animal_states', 'hand_overs'],
    ].toSorted(),
  );
});

describe('an animal that was deleted', () => {
  test('is the owner’s to delete and to restore, for a reason', async () => {
    const id = await make.animal('D-1', 'female', 'Pastel');
    const keeper = await app.newCollection('Kept', 'keeper');
    for (const answer of [
      await keeper.post(`/animals/${id}/delete`, { reason: 'x' }),
      await keeper.get('/bin'),
    ])
      expect(answer.body).toMatchObject({ type: 'urn:karyotome:problem:owner-only' });
    expect((await owner.post(`/animals/${id}/delete`, {})).body).toMatchObject({
      errors: [{ field: 'reason' }],
    });
    expect((await remove(id)).status).toBe(201);
    expect((await owner.get(`/animals/${id}`)).status).toBe(404);
    const [entry] = await entries();
    expect(entry).toMatchObject({ kind: 'animal', number: 'D-1', reason: 'Entered twice', by: 'Tester' });
    expect(entry!.records).toBeGreaterThan(0);
    expect(entry!.erasedOn).toBe(ago(-BIN_DAYS));
    // Its number is not given to another.
    expect((await owner.post('/animals', { number: 'D-1', sex: 'male' })).status).toBe(409);
    expect((await restore()).body).toEqual({ animalId: id, isWithoutPlace: false });
    expect(await entries()).toEqual([]);
    expect((await owner.get(`/animals/${id}`)).body).toMatchObject({ number: 'D-1', label: 'Pastel' });
  });

  test('of another collection is found by nobody', async () => {
    const id = await make.animal('D-1', 'female', 'Pastel');
    await remove(id);
    const [entry] = await entries();
    const stranger = await app.newCollection('Elsewhere');
    expect((await stranger.post(`/bin/${entry!.id}/restore`)).status).toBe(404);
    expect((await stranger.delete(`/bin/${entry!.id}`)).status).toBe(404);
    expect((await stranger.get('/bin')).body).toMatchObject({ items: [] });
  });

  test('comes back without its tub where another lives there now', async () => {
    const [ladder] = ((await owner.get('/ladders?limit=9')).body as Page<{ id: string }>).items;
    const { id: rackId } = await created('/racks', {
      room: 'R',
      name: 'One',
      levels: 1,
      tubsPerLevel: 1,
      ladderId: ladder!.id,
      stepPosition: 0,
    });
    const { tubs } = (await owner.get(`/racks/${rackId}`)).body as { tubs: { id: string }[] };
    const tubId = tubs[0]!.id;
    const { id } = await created('/animals', { number: 'D-1', sex: 'male', tubId });
    await remove(id);
    await created('/animals', { number: 'D-2', sex: 'male', tubId });
    expect((await restore()).body).toEqual({ animalId: id, isWithoutPlace: true });
    expect((await owner.get(`/animals/${id}`)).body).toMatchObject({ tub: null });
  });

  test('comes back after its parent, and its parent cannot be erased before it', async () => {
    const { id: damId } = await created('/animals', { number: 'D-1', sex: 'female', hatchedOn: ago(900) });
    const { id } = await created('/animals', { number: 'D-2', sex: 'male', hatchedOn: ago(90), damId });
    expect((await remove(damId)).body).toMatchObject({
      detail: expect.stringContaining('is a parent') as string,
    });
    await remove(id);
    expect((await remove(damId)).body).toMatchObject({
      detail: expect.stringContaining('is a parent of D-2 in the bin') as string,
    });
    expect((await restore()).status).toBe(201);
    expect((await owner.get(`/animals/${id}`)).body).toMatchObject({ damId });
  });

  test('that a signed statement rests on stays, and it is said which', async () => {
    const damId = await make.animal('D-1', 'female', 'Pastel');
    const { id } = await created('/animals', {
      number: 'D-2',
      sex: 'male',
      genes: 'Pastel',
      hatchedOn: ago(90),
      damId,
    });
    await owner.put(`/animals/${id}/publication`, {});
    const signed = await owner.post(`/animals/${id}/statements`);
    expect(signed.status, JSON.stringify(signed.body)).toBeLessThan(300);
    expect((await remove(id)).body).toMatchObject({
      detail: expect.stringContaining('published page of D-2') as string,
    });
    await owner.delete(`/animals/${id}/publication`);
    for (const one of [id, damId])
      expect((await remove(one)).body).toMatchObject({
        detail: expect.stringContaining('A signed statement of D-2 rests on this animal') as string,
      });
  });

  test('is erased by its owner at once, files and all', async () => {
    const files = await fileCount();
    const id = await make.animal('D-1', 'female', 'Pastel');
    const first = await pictureOf(id);
    await pictureOf(id);
    await owner.delete(`/pictures/${first}`);
    await remove(id);
    expect(await fileCount()).toBe(files + 6);
    const animal = (await entries()).find(({ kind }) => kind === 'animal')!;
    expect(animal.pictures).toBe(1);
    expect((await owner.delete(`/bin/${animal.id}`)).status).toBe(204);
    await vi.waitFor(async () => expect(await fileCount()).toBe(files));
    // The picture that was deleted before it went with it.
    expect(await entries()).toEqual([]);
    expect((await owner.post(`/bin/${animal.id}/restore`)).status).toBe(404);
    const [rows] = await app.database.sequelize.query(
      `select 1 from bin where animal_id = '${id}' and content is not null`,
    );
    expect(rows).toEqual([]);
  });

  test('is erased by itself when its time is over, and not before', async () => {
    const files = await fileCount();
    const id = await make.animal('D-1', 'female', 'Pastel');
    await pictureOf(id);
    await remove(id);
    const age = (days: number) =>
      app.database.sequelize.query(
        `update bin set deleted_at = now() - interval '${days} days' where state = 'kept'`,
      );
    await age(BIN_DAYS - 1);
    await emptyBin(app.database, app.files);
    expect(await entries()).toHaveLength(1);
    await age(BIN_DAYS + 1);
    await emptyBin(app.database, app.files);
    expect(await entries()).toEqual([]);
    expect(await fileCount()).toBe(files);
  });

  test('is restored once by two at once', async () => {
    const id = await make.animal('D-1', 'female', 'Pastel');
    await remove(id);
    const [entry] = await entries();
    const answers = await Promise.all([1, 2].map(() => owner.post(`/bin/${entry!.id}/restore`)));
    expect(answers.map(({ status }) => status).toSorted()).toEqual([201, 404]);
  });
});

describe('a picture that was deleted', () => {
  test('comes back with its files', async () => {
    const id = await make.animal('D-1', 'female', 'Pastel');
    const picture = await pictureOf(id);
    expect((await owner.delete(`/pictures/${picture}`)).status).toBe(204);
    expect((await owner.get(`/pictures/${picture}`)).status).toBe(404);
    const [entry] = await entries();
    expect(entry).toMatchObject({ kind: 'picture', number: 'D-1', reason: null, pictures: 1, records: 0 });
    expect((await restore()).body).toEqual({ animalId: id, isWithoutPlace: false });
    expect((await owner.get(`/pictures/${picture}`)).status).toBe(200);
  });

  test('comes back after its animal', async () => {
    const id = await make.animal('D-1', 'female', 'Pastel');
    const picture = await pictureOf(id);
    await owner.delete(`/pictures/${picture}`);
    await remove(id);
    const deleted = await entries();
    const idOf = (kind: string) => deleted.find((entry) => entry.kind === kind)!.id;
    const refused = await owner.post(`/bin/${idOf('picture')}/restore`);
    expect(refused.status).toBe(409);
    expect((await owner.post(`/bin/${idOf('animal')}/restore`)).status).toBe(201);
    expect((await owner.post(`/bin/${idOf('picture')}/restore`)).status).toBe(201);
    expect((await owner.get(`/pictures/${picture}`)).status).toBe(200);
  });
});
