import type { Page, IncubatorView, PlannerView, TodayView } from '@karyotome/contract';
import { SEASON_RULES } from '@karyotome/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { readSensors } from '../src/domain/climate/sensor.ts';
import { breederOf } from './breeder.ts';
import { ago, TODAY } from './days.ts';
import { fieldsOf, startTestApp, type TestApp, type TestClient } from './test-app.ts';

let app: TestApp;
let owner: TestClient;
const { created, animal, female, clutchOf } = breederOf(() => owner);

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
});
afterAll(() => app.close());

describe('a clutch, from its eggs to numbered hatchlings', () => {
  let dam: string;
  let sire: string;
  let second: string;
  let pairing: string;
  let clutch: string;
  let incubator: string;

  beforeAll(async () => {
    dam = await animal('D-1', 'female', 'het clown', 1800);
    sire = await animal('S-1', 'male', 'clown', 900);
    second = await animal('S-2', 'male', 'enchi', 850);
    await animal('H-1', 'female', 'normal', 90, 60);
    const put = (sireId: string, on: string) =>
      created<{ pairingId: string }>('/season/introductions', { damId: dam, sireId, on });
    pairing = (await put(sire, ago(90))).pairingId;
    await put(second, ago(86));
    await created(`/pairings/${pairing}/events`, { kind: 'pre-lay-shed', on: ago(58) });
  });

  test('the eggs are laid into an incubator; one that does not exist is refused', async () => {
    const input = { pairingId: pairing, laidOn: ago(35), eggs: 5, slugs: 1 };
    const wrong = await owner.post('/clutches', { ...input, incubatorId: pairing });
    expect(fieldsOf(wrong)).toEqual(['incubatorId: names no incubator of this collection']);
    const limits = { setC: 31.4, lowC: 30.5, highC: 32.2, lowHumidity: 80, silentAfterHours: 6 };
    const upsideDown = await owner.post('/incubators', { name: 'Box', ...limits, lowC: 33, sensor: 'none' });
    expect(fieldsOf(upsideDown)).toEqual(['lowC: must be less than the upper limit']);
    incubator = (await created('/incubators', { name: 'Box', ...limits, sensor: 'none' })).id;
    expect((await owner.post('/incubators', { name: 'Box', ...limits, sensor: 'none' })).status).toBe(409);
    clutch = (await created('/clutches', { ...input, incubatorId: incubator })).id;
    const view = await clutchOf(clutch);
    expect(view.incubationC).toBe(31.4);
    expect(view.eggs.map(({ verdict }) => verdict)).toEqual(['good', 'good', 'good', 'good', 'slug']);
    expect(view.clock).toMatchObject({ day: 35 });
    // An empty log is a silent one: an alarm on Today.
    const { lines } = (await owner.get('/today')).body as TodayView;
    expect(lines.find(({ kind }) => kind === 'climate')).toMatchObject({
      code: 'silent',
      facts: { hours: null },
      incubator: { name: 'Box' },
    });
  });

  test('the box is set egg by egg; a stale change changes nothing', async () => {
    const view = await clutchOf(clutch);
    const eggs = view.eggs.map(({ id, verdict, stuck, marked, x, y }, i) => ({
      id,
      verdict: i === 3 ? 'doubtful' : verdict,
      massG: 80 + i,
      stuck: i < 2 ? 1 : stuck,
      marked: i < 4 || marked,
      x,
      y,
    }));
    const put = (body: object, version = view.version) =>
      owner.put(`/clutches/${clutch}/eggs`, body, { 'If-Match': `"${version}"` });
    expect(fieldsOf(await put({ eggs: [{ ...eggs[0], massG: 2, verdict: 'fine' }] }))).toEqual([
      'eggs.0.verdict: must be one of good, doubtful, slug',
      'eggs.0.massG: must be at least 5',
    ]);
    expect(fieldsOf(await put({ eggs: [...eggs, { ...eggs[0], id: pairing }] }))).toEqual([
      'eggs.5.id: names no egg of this clutch',
    ]);
    const added = { verdict: 'good', massG: null, stuck: null, marked: true, x: 90, y: 90 };
    expect((await put({ eggs: [...eggs, added] })).status).toBe(200);
    expect((await put({ eggs })).status).toBe(412);
    const after = await clutchOf(clutch);
    expect(after.eggs.map(({ massG }) => massG)).toEqual([80, 81, 82, 83, 84, null]);
    expect(after.counts).toMatchObject({ good: 5, slugs: 1 });
  });

  test('eggs are candled, one is removed, and a slip is taken back', async () => {
    const { eggs, version } = await clutchOf(clutch);
    const send = (body: object) => owner.post(`/clutches/${clutch}/egg-events`, body);
    expect((await send({ kind: 'check', on: ago(20), eggIds: null })).status).toBe(201);
    expect(fieldsOf(await send({ kind: 'pip', on: ago(1), eggIds: null }))).toEqual([
      'eggIds: must be a list',
    ]);
    expect(fieldsOf(await send({ kind: 'check', on: ago(40), eggIds: null }))[0]).toContain(
      'on: lies before the lay date',
    );
    await send({ kind: 'check', on: ago(12), eggIds: [eggs[3]!.id], signs: ['mould', 'collapse'] });
    expect((await clutchOf(clutch)).eggs[3]!.state.worries).toEqual(['mould', 'collapse']);
    const { ids } = (await send({ kind: 'removed', on: ago(11), eggIds: [eggs[3]!.id] })).body as {
      ids: string[];
    };
    expect(fieldsOf(await send({ kind: 'pip', on: ago(1), eggIds: [eggs[3]!.id] }))[0]).toContain(
      'is egg 4, which is removed already',
    );
    expect((await owner.post('/egg-events/void', { ids, reason: 'Undone' })).status).toBe(204);
    expect((await clutchOf(clutch)).eggs[3]!.state.stage).toBe('in-egg');
    await send({ kind: 'removed', on: ago(11), eggIds: [eggs[3]!.id] });
    const without = eggs.filter((_, i) => i !== 3);
    const gone = await owner.put(
      `/clutches/${clutch}/eggs`,
      {
        eggs: without.map(({ id, verdict, massG, stuck, marked, x, y }) => ({
          id,
          verdict,
          massG,
          stuck,
          marked,
          x,
          y,
        })),
      },
      { 'If-Match': `"${version}"` },
    );
    expect(fieldsOf(gone)).toEqual(['eggs: must keep egg 4: something was recorded of it']);
  });

  test('a logger’s file is read, twice as once, and refused as a whole where a line cannot be', async () => {
    const path = `/incubators/${incubator}/readings/import`;
    const day = ago(10);
    const good = `Date,Time,Temp (°F),RH %\n${day},08:00,88.5,91\n${day},20:00,77.0,90\n`;
    const first = await owner.upload(path, 'text/csv', Buffer.from(good));
    expect(first.body).toMatchObject({ taken: 2, known: 0 });
    expect((await owner.upload(path, 'text/csv', Buffer.from(good))).body).toMatchObject({
      taken: 0,
      known: 2,
    });
    // What cannot be read is refused line by line (read-logger.test.ts), and nothing of the file is kept.
    const bad = await owner.upload(path, 'text/csv', Buffer.from(`time,temp\n${day} 21:00,31\nnever,31\n`));
    expect(fieldsOf(bad)[0]).toContain('line 3: has a time that cannot be read');
    // 88.5 and 77 °F are 31.39 and 25 °C: their mean is that day's, and sets the clock back.
    const { means } = await clutchOf(clutch);
    expect(means.find(({ day: at }) => at === 25)!.celsius).toBeCloseTo((31.389 + 25) / 2, 2);
  });

  test('a reading by hand that is out of range is an alarm; the simulated sensor is labelled as such', async () => {
    const at = new Date(Date.now() - 60_000).toISOString();
    await created(`/incubators/${incubator}/readings`, { at, celsius: 34, humidity: 60 });
    expect(
      fieldsOf(await owner.post(`/incubators/${incubator}/readings`, { at: 'now', celsius: 'warm' })),
    ).toEqual(['at: must be a moment, written like 2026-05-14T21:30:00+02:00', 'celsius: must be a number']);
    const incubators = async () => ((await owner.get('/incubators')).body as Page<IncubatorView>).items;
    expect((await incubators())[0]!.alarms.map(({ code }) => code)).toEqual(['too-warm', 'too-dry']);
    const { version } = (await incubators())[0]!;
    const changed = await owner.put(
      `/incubators/${incubator}`,
      {
        name: 'Box',
        setC: 31.4,
        lowC: 30.5,
        highC: 32.2,
        lowHumidity: 80,
        silentAfterHours: 6,
        sensor: 'simulated',
      },
      { 'If-Match': `"${version}"` },
    );
    expect(changed.status).toBe(200);
    await readSensors(app.database, new Date());
    expect((await incubators())[0]).toMatchObject({ alarms: [], last: { source: 'simulated' } });
  });

  test('pip, cut, out with twins, died; then all young are numbered in one act, each known by its egg', async () => {
    const view = await clutchOf(clutch);
    const changed = await owner.patch(
      `/clutches/${clutch}`,
      { laidOn: ago(13) },
      { 'If-Match': `"${view.version}"` },
    );
    expect(fieldsOf(changed)[0]).toContain('laidOn: lies after what was recorded of the eggs');
    const send = async (kind: string, on: string, places: number[], more: object = {}) => {
      const eggIds = places.map((place) => view.eggs[place]!.id);
      const response = await owner.post(`/clutches/${clutch}/egg-events`, { kind, on, eggIds, ...more });
      expect(response.status, JSON.stringify(response.body)).toBe(201);
    };
    await send('pip', ago(4), [0, 1]);
    await send('cut', ago(3), [2]);
    await send('out', ago(2), [0]);
    await send('out', ago(1), [1], { young: 2 });
    await send('died', ago(1), [2]);
    await send('out', ago(1), [5]);
    const slug = await owner.post(`/clutches/${clutch}/egg-events`, {
      kind: 'out',
      on: ago(1),
      eggIds: [view.eggs[4]!.id],
    });
    expect(fieldsOf(slug)[0]).toContain('is egg 5, a slug');
    const now = await clutchOf(clutch);
    expect(now.counts).toMatchObject({ out: 3, died: 1, young: 4, good: 5 });
    const hatched = await owner.post(
      `/clutches/${clutch}/hatchlings`,
      { hatchedOn: ago(1), hatched: 4 },
      { 'If-Match': `"${now.version}"` },
    );
    expect(hatched.status, JSON.stringify(hatched.body)).toBe(201);
    const after = await clutchOf(clutch);
    expect(after.eggs.map(({ hatchlings }) => hatchlings.length)).toEqual([1, 2, 0, 0, 0, 1]);
    const [young] = after.eggs[0]!.hatchlings;
    expect(((await owner.get(`/animals/${young!.id}`)).body as { hatchedOn: string }).hatchedOn).toBe(ago(2));
    const late = await owner.post(`/clutches/${clutch}/egg-events`, {
      kind: 'died',
      on: TODAY,
      eggIds: [view.eggs[3]!.id],
    });
    expect(late.status).toBe(409);
  });

  test('the card prints as a PDF and is kept', async () => {
    const { id } = await created(`/clutches/${clutch}/cards`, {});
    expect((await clutchOf(clutch)).cards).toMatchObject([{ id, by: 'Tester' }]);
    const card = await owner.get(`/clutch-cards/${id}`);
    expect(card.headers['content-type']).toBe('application/pdf');
    expect((card.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    expect((card.body as Buffer).length).toBeGreaterThan(5000);
    const stranger = await app.newCollection('Another');
    expect((await stranger.get(`/clutch-cards/${id}`)).status).toBe(404);
    expect((await stranger.get(`/clutches/${clutch}`)).status).toBe(404);
  });

  test('the look back counts eggs, twins once', async () => {
    type Rates = Page<{ eggs: number; hatched: number; sire: string }>;
    const { items: rates } = (await owner.get('/hatch-rates')).body as Rates;
    expect(rates).toMatchObject([{ eggs: 6, slugs: 1, hatched: 3, dam: 'D-1', sire: 'S-1 or S-2' }]);
  });

  test('next season the mates of this one are weak candidates, by the keeper’s own share', async () => {
    const { pairingId } = await created<{ pairingId: string }>('/season/introductions', {
      damId: dam,
      sireId: sire,
      on: TODAY,
    });
    const next = (await female('D-1')).pairing!;
    expect(next.id).toBe(pairingId);
    const total = next.sires.reduce((sum, { weight }) => sum + weight, 0);
    const stored = next.sires.filter((one) => one.stored);
    expect(stored.map(({ number }) => number)).toEqual(['S-2']);
    expect(stored[0]!.weight / total).toBeCloseTo(SEASON_RULES.storedSpermShare, 9);
    const put = (sires: object[]) =>
      owner.put(`/pairings/${pairingId}/sires`, { sires }, { 'If-Match': `"${next.version}"` });
    expect(fieldsOf(await put([{ animalId: second, weight: 1 }]))[0]).toContain(
      'sires: must keep every male',
    );
    expect((await put([{ animalId: sire, weight: 2 }])).status).toBe(200);
    expect((await female('D-1')).pairing!.sires).toHaveLength(1);
  });
});

test('the planner knows what each may be, who is ready, and who is related to whom', async () => {
  const plan = (await owner.get('/planner')).body as PlannerView;
  const at = (number: string): number => plan.animals.findIndex((one) => one.number === number);
  const kin = (a: number, b: number): number =>
    plan.kinship[(Math.max(a, b) * (Math.max(a, b) + 1)) / 2 + Math.min(a, b)]!;
  expect(plan.animals.find(({ number }) => number === 'S-1')!.loci).toEqual([
    ['clown', [['clown', 'clown', 1]]],
  ]);
  expect(kin(at('D-1'), at('S-1'))).toBe(0);
  expect(kin(at('D-1'), at('D-1'))).toBe(0.5);
  const hatchling = plan.animals.find(({ number }) => number === 'H-1')!;
  expect(hatchling.notReady).toEqual([{ code: 'not-grown', facts: {} }]);
  expect(hatchling.readyIn).toBeGreaterThan(1.5);
  const dam = plan.animals.find(({ number }) => number === 'D-1')!;
  expect(dam.size).toMatchObject({ observations: 1 });
});
