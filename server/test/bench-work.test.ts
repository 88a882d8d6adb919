import type { Page, AnimalView, CallsView, OutsideView, SetUpProposal, TodayView } from '@karyotome/contract';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { benchActsOf, oddsOf } from './bench-acts.ts';
import { ago, TODAY } from './days.ts';
import { fieldsOf, startTestApp, type TestApp, type TestClient } from './test-app.ts';

let app: TestApp;
let owner: TestClient;
const { created, animal, clutchOf, benchOf } = benchActsOf(() => owner);

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
});
afterAll(() => app.close());

describe('second opinions', () => {
  let clutch: string;
  let young: string[];
  beforeAll(async () => {
    const dam = await animal('D-5', 'female', 'Pastel');
    const sire = await animal('S-5', 'male', 'Fire');
    ({ clutch, young } = await clutchOf(dam, [sire], 2));
    const picture = await sharp({ create: { width: 400, height: 300, channels: 3, background: '#a80' } })
      .png()
      .toBuffer();
    expect((await owner.upload(`/animals/${young[0]}/pictures`, 'image/png', picture)).status).toBe(201);
  });

  test('are kept with a name and a day, and move no odds', async () => {
    const before = oddsOf((await benchOf(clutch)).hatchlings[0]!, 'pastel');
    const opinion = { by: 'Wren Halloway', genes: 'pastel', sure: 'probable', note: 'The lips' };
    const id = await created(`/animals/${young[0]}/opinions`, opinion);
    const [first] = (await benchOf(clutch)).hatchlings;
    expect(first!.opinions).toEqual([{ ...opinion, id, on: TODAY, isOutside: false }]);
    expect(oddsOf(first!, 'pastel')).toBe(before);
    const wrong = await owner.post(`/animals/${young[0]}/opinions`, { ...opinion, genes: 'pastl' });
    expect(fieldsOf(wrong)[0]).toContain('genes: “pastl” is not a known gene');
    expect((await owner.delete(`/opinions/${id}`)).status).toBe(204);
    expect((await owner.delete(`/opinions/${id}`)).status).toBe(404);
  });

  test('come from outside through an address that is good for one answer', async () => {
    const path = `/clutches/${clutch}/opinion-links`;
    const blind = await owner.post(path, { animalIds: young });
    expect(fieldsOf(blind)).toEqual(['animalIds.1: has no picture yet to judge by']);
    const link = (await owner.post(path, { animalIds: [young[0]], note: 'What do you see?' })).body as {
      id: string;
      path: string;
    };
    const address = link.path.replace('/opinion/', '/opinion-links/');
    const seen = (await app.anonymous.get(address)).body as OutsideView;
    expect(seen).toMatchObject({ collection: 'Test collection', dam: 'Pastel', sires: ['Fire'] });
    expect(seen.outcomes).toContain('Pastel Fire');
    expect(Object.keys(seen.animals[0]!).toSorted()).toEqual([
      'hatchedOn',
      'id',
      'number',
      'pictureIds',
      'sex',
    ]);
    const picture = await app.anonymous.get(`${address}/pictures/${seen.animals[0]!.pictureIds[0]}`);
    expect([picture.status, picture.headers['content-type']]).toEqual([200, 'image/webp']);
    const answer = {
      by: 'Wren Halloway',
      opinions: [{ animalId: young[0], genes: 'Firefly', sure: 'certain' }],
    };
    const stranger = { ...answer, opinions: [{ animalId: young[1], genes: 'Fire', sure: 'certain' }] };
    expect(fieldsOf(await app.anonymous.post(address, stranger))).toEqual([
      'opinions.0.animalId: is not asked about here',
    ]);
    const key = { 'Idempotency-Key': 'answer-once-1' };
    expect((await app.anonymous.post(address, answer, key)).status).toBe(204);
    // The same request again, after its answer was lost, has been answered; another one is too late.
    expect((await app.anonymous.post(address, answer, key)).status).toBe(204);
    expect((await app.anonymous.post(address, answer)).status).toBe(404);
    expect((await app.anonymous.get(address)).status).toBe(404);
    const bench = await benchOf(clutch);
    expect(bench.hatchlings[0]!.opinions).toMatchObject([{ by: 'Wren Halloway', isOutside: true }]);
    expect(bench.links).toEqual([]);
  });

  test('an address can be withdrawn before it is answered, and is nobody else’s business', async () => {
    const { id, path } = (await owner.post(`/clutches/${clutch}/opinion-links`, { animalIds: [young[0]] }))
      .body as { id: string; path: string };
    const other = await app.newCollection('Other');
    expect((await other.delete(`/opinion-links/${id}`)).status).toBe(404);
    expect((await benchOf(clutch)).links).toMatchObject([{ id }]);
    expect((await owner.delete(`/opinion-links/${id}`)).status).toBe(204);
    expect((await app.anonymous.get(path.replace('/opinion/', '/opinion-links/'))).status).toBe(404);
  });
});

describe('setting up', () => {
  let clutch: string;
  let young: string[];
  beforeAll(async () => {
    const dam = await animal('D-6', 'female', 'Pastel');
    const sire = await animal('S-6', 'male', 'Normal');
    ({ clutch, young } = await clutchOf(dam, [sire], 3));
    const [ladder] = ((await owner.get('/ladders?limit=200')).body as Page<{ id: string }>).items;
    for (const [name, stepPosition] of [
      ['Small', 0],
      ['Large', 1],
    ] as const) {
      const rack = { room: 'Room', name, levels: 1, tubsPerLevel: 3, ladderId: ladder!.id, stepPosition };
      expect((await owner.post('/racks', rack)).status).toBe(201);
    }
    for (const id of young) {
      const record = (kind: string, on: string, body: object) =>
        owner.post(`/animals/${id}/records`, { kind, on, body });
      await record('weight', ago(19), { massG: 66 });
      await record('shed', ago(11), { stage: 'shed', complete: true });
    }
  });

  test('the smallest free tubs are proposed, and a whole clutch goes into them in one act', async () => {
    const proposal = (await owner.get(`/clutches/${clutch}/set-up`)).body as SetUpProposal;
    expect(proposal.places.map(({ animalId }) => animalId)).toEqual(young);
    expect(proposal.tubs.slice(0, 3)).toMatchObject(
      [1, 2, 3].map((slot) => ({ rack: 'Small', level: 1, slot })),
    );
    const places = proposal.places.map(({ animalId, tubId }) => ({ animalId, tubId: tubId! }));
    const order = {
      on: TODAY,
      substrate: 'Plain paper',
      places,
      plan: { protocol: 'small-mice', firstMealOn: TODAY },
    };
    const doubled = { ...order, places: [places[0]!, { ...places[1]!, tubId: places[0]!.tubId }] };
    expect((await owner.post(`/clutches/${clutch}/set-up`, doubled)).status).toBe(422);
    expect((await owner.post(`/clutches/${clutch}/set-up`, order)).status).toBe(201);
    const taken = await owner.post(`/clutches/${clutch}/set-up`, order);
    expect(taken.status).toBe(409);
    expect(fieldsOf(taken)).toEqual(['places.0.animalId: lives in Small 1-1 already']);
    const page = (await owner.get(`/animals/${young[0]}`)).body as AnimalView;
    expect(page.tub).toMatchObject({ rack: 'Small', level: 1, slot: 1 });
    expect(page.records.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['move', 'plan']));
    // The plan begins with mice: the first meal is due by it.
    const { lines } = (await owner.get('/today')).body as TodayView;
    expect(lines.find((line) => line.animal?.id === young[0] && line.kind === 'meal')).toMatchObject({
      code: 'meal-due',
      facts: { species: 'mouse' },
    });
    expect(((await owner.get(`/clutches/${clutch}/set-up`)).body as SetUpProposal).places).toEqual([]);
  });
});

describe('how calls proved', () => {
  test('by a later look that was certain, by gene, by person and by how sure it was', async () => {
    const dam = await animal('D-7', 'female', 'Pastel');
    const sire = await animal('S-7', 'male', 'Enchi');
    const { young } = await clutchOf(dam, [sire], 1, ago(60));
    const call = (on: string, genes: string, sure: string) =>
      owner.post(`/animals/${young[0]}/records`, {
        kind: 'identification',
        on,
        body: { genes, sure, by: 'Odo' },
      });
    await call(ago(50), 'Pastel Enchi', 'probable');
    await call(ago(10), 'Pastel', 'certain');
    const calls = (await owner.get('/calls')).body as CallsView;
    expect(calls.byGene.filter(({ by }) => by === 'Odo')).toEqual([
      { by: 'Odo', phenotype: 'enchi', label: 'Enchi', right: 0, settled: 1 },
      { by: 'Odo', phenotype: 'pastel', label: 'Pastel', right: 1, settled: 1 },
    ]);
    expect(calls.bySure.find(({ sure }) => sure === 'probable')).toMatchObject({ settled: 2, right: 1 });
  });

  test('by its own young, where its parents had left it open', async () => {
    const [dam, sire] = [await animal('D-8', 'female', 'Pinstripe'), await animal('S-8', 'male', 'Normal')];
    const { young } = await clutchOf(dam, [sire], 1, ago(79));
    await owner.post(`/animals/${young[0]}/records`, {
      kind: 'sex',
      on: ago(70),
      body: { sex: 'female', method: 'popped', sure: 'certain', by: 'Ida' },
    });
    await owner.post(`/animals/${young[0]}/records`, {
      kind: 'identification',
      on: ago(70),
      body: { genes: 'Pinstripe', sure: 'probable', by: 'Una' },
    });
    const child = await created('/animals', {
      number: 'Y-8',
      sex: 'male',
      genes: 'Pinstripe',
      damId: young[0],
      sireId: sire,
    });
    expect(child).toBeTruthy();
    const calls = (await owner.get('/calls')).body as CallsView;
    expect(calls.byGene.filter(({ by }) => by === 'Una')).toMatchObject([
      { phenotype: 'pinstripe', right: 1, settled: 1 },
    ]);
  });
});
