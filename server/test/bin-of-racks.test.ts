import type { BinEntry, Page } from '@karyotome/contract';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { GOING } from '../src/domain/bin/bin.queries.ts';
import { binOf } from './bin-acts.ts';
import { ago } from './days.ts';
import { everyRow } from './every-row.ts';
import { refusedFields } from './room-of-racks.ts';
import { createdBy, maker, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* Racks, heat zones and pairings that were removed. */

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
const { entries, restore, remove } = binOf(() => owner);

test.each([
  ['racks', ['rack'], ['animals', 'tubs', 'heat_zones']],
  ['pairings', ['pairing'], ['clutches', 'pairing_events', 'pairing_sires', 'wishes']],
  ['heat_zones', ['rack', 'heat-zone'], ['surface_checks']],
] as const)('every table with rows of %s goes along, or is known', async (table, kinds, known) => {
  const [rows] = (await app.database.sequelize.query(
    `select distinct conrelid::regclass::text as name from pg_constraint
      where contype = 'f' and conparentid = 0 and conrelid <> confrelid
        and confrelid = any (array['${table}'::regclass ${table === 'racks' ? ", 'tubs'::regclass" : ''}])`,
  )) as [{ name: string }[], unknown];
  expect(rows.map(({ name }) => name).toSorted()).toEqual([...known].toSorted());
  // An animal in its tubs or a clutch of its eggs keeps it from being deleted; a wish stays, and is held to it again.
  const staying = new Set<string>(['animals', 'clutches', 'wishes']);
  for (const kind of kinds)
    for (const name of known) if (!staying.has(name)) expect(Object.keys(GOING[kind])).toContain(name);
});

describe('what was deleted and comes back whole', () => {
  const comesBack = async (path: string, entry: Partial<BinEntry>): Promise<void> => {
    const before = await everyRow(app);
    expect((await remove(path)).status).toBe(201);
    expect(await everyRow(app)).not.toEqual(before);
    expect((await entries())[0]).toMatchObject({ ...entry, reason: 'Entered twice' });
    expect((await restore()).body).toEqual({ animalId: null, isWithoutPlace: false });
    const after = await everyRow(app);
    for (const [table, rows] of before)
      if (table !== 'collections') expect(after.get(table), table).toEqual(rows);
  };
  const rack = async (name: string): Promise<string> => {
    const [ladder] = ((await owner.get('/ladders?limit=9')).body as Page<{ id: string }>).items;
    const place = { room: 'Snake room', name, levels: 2, tubsPerLevel: 2 };
    return (await created('/racks', { ...place, ladderId: ladder!.id, stepPosition: 0 })).id;
  };
  const zone = async (rackId: string): Promise<string> => {
    const input = { rackId, name: 'Mat', warmC: 32, coolC: 26, thermostat: true, everyDays: 30 };
    const { id } = await created('/heat-zones', input);
    await created(`/heat-zones/${id}/checks`, { on: ago(1), warmC: 31.5, coolC: 26, probeFixed: true });
    return id;
  };

  test('a rack with its tubs, heat zones and their checks', async () => {
    const id = await rack('Grow 1');
    await zone(id);
    await comesBack(`/racks/${id}`, { kind: 'rack', number: 'Grow 1', name: 'Snake room' });
  });

  test('only an owner deletes, and says why', async () => {
    const id = await rack('Grow 1');
    const paths = [`/racks/${id}`, `/heat-zones/${await zone(id)}`];
    for (const path of paths) {
      expect(refusedFields(await owner.post(`${path}/delete`, { reason: ' ' }))).toEqual(['reason']);
      const keeper = await app.newCollection('Kept', 'keeper');
      expect((await keeper.post(`${path}/delete`, { reason: 'x' })).status).toBe(403);
    }
    expect(await entries()).toEqual([]);
  });

  test('a rack does not take the name that another one has by now', async () => {
    const id = await rack('Grow 1');
    await remove(`/racks/${id}`);
    await rack('Grow 1');
    expect((await restore()).body).toMatchObject({ status: 409, errors: [{ field: 'name' }] });
    expect(await entries()).toHaveLength(1);
  });

  test('a heat zone with its checks, and not without its rack', async () => {
    const rackId = await rack('Grow 1');
    const id = await zone(rackId);
    await comesBack(`/heat-zones/${id}`, { kind: 'heat-zone', number: 'Grow 1', name: 'Mat' });
    await remove(`/heat-zones/${id}`);
    const [alone] = await entries();
    await remove(`/racks/${rackId}`);
    const refused = await owner.post(`/bin/${alone!.id}/restore`);
    expect(refused.body).toMatchObject({
      status: 409,
      detail: expect.stringContaining('restore that first') as string,
    });
    const [whole] = await entries();
    for (const { id: entry } of [whole!, alone!])
      expect((await owner.post(`/bin/${entry}/restore`)).status).toBe(201);
  });

  test('a pairing with its males and events, and whoever waits for its young', async () => {
    const damId = await make.animal('D-1', 'female', 'Pastel');
    const sireId = await make.animal('S-1', 'male', 'Clown');
    const introduced = await owner.post('/season/introductions', { damId, sireId, on: ago(3) });
    const { pairingId } = introduced.body as { pairingId: string };
    const { id: personId } = await created('/persons', { name: 'Ida Reed' });
    await created('/wishes', { personId, pairingId, must: 'Clown', joinedOn: ago(2) });
    await comesBack(`/pairings/${pairingId}`, { kind: 'pairing', number: 'D-1', name: 'S-1' });
    expect((await remove(`/pairings/${pairingId}`)).status).toBe(201);
    await owner.post(`/animals/${sireId}/delete`, { reason: 'Never was' });
    const pairing = (await entries()).find(({ kind }) => kind === 'pairing')!;
    expect((await owner.post(`/bin/${pairing.id}/restore`)).status).toBe(409);
  });
});
