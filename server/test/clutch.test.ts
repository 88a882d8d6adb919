import type { AnimalView, BenchView, PublicAnimal, RecordWarning } from '@karyotome/contract';
import { addDays } from '@karyotome/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { machineToday } from '../src/db/work.ts';
import { fieldsOf, maker, startTestApp, type TestApp, type TestClient } from './test-app.ts';

let app: TestApp;
let owner: TestClient;
const TODAY = machineToday();
const ago = (days: number): string => addDays(TODAY, -days);

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
});
afterAll(() => app.close());

const { created, animal } = maker(() => owner, ago);
const view = async (id: string): Promise<AnimalView> =>
  (await owner.get(`/animals/${id}`)).body as AnimalView;

describe('one clutch, from its parents to a published page', () => {
  let dam: string;
  let sire: string;
  let second: string;
  let pairing: string;
  let clutch: string;
  let young: string[];

  test('parents are entered by typing their genes', async () => {
    dam = await animal('D-1', 'female', 'Cinnamon YB 66% het Clown');
    sire = await animal('S-1', 'male', 'pastel clown');
    second = await animal('S-2', 'male', 'vanilla');
    expect((await view(dam)).label).toBe(
      'Cinnamon Yellow Belly 66% het Clown'.replace('Cinnamon Yellow Belly', 'Yellow Belly Cinnamon'),
    );
  });

  test('a word that is no gene, or can mean two, is answered at its field', async () => {
    const response = await owner.post('/animals', { number: 'X', sex: 'male', genes: 'pastl axanthic' });
    expect(response.status).toBe(422);
    expect(fieldsOf(response)).toEqual([
      'genes: "pastl" is not a known gene. Did you mean Pastel?',
      'genes: "axanthic" can mean Axanthic A, Axanthic B, Axanthic C: write which',
    ]);
  });

  test('a pairing takes two possible sires, but no female among them', async () => {
    const input = {
      season: 2026,
      damId: dam,
      sires: [
        { animalId: sire, weight: 3 },
        { animalId: second, weight: 1 },
      ],
      startedOn: ago(200),
    };
    pairing = await created('/pairings', input);
    const wrong = await owner.post('/pairings', { ...input, damId: sire });
    expect(fieldsOf(wrong)[0]).toBe('damId: must be a female: S-1 is male');
    const female = await owner.post('/pairings', { ...input, sires: [{ animalId: dam, weight: 1 }] });
    expect(fieldsOf(female)[0]).toContain('sires.0.animalId: must be a male');
  });

  test('eggs are laid after the pairing and hatch after the laying', async () => {
    const early = await owner.post('/clutches', { pairingId: pairing, laidOn: ago(300), eggs: 6 });
    expect(fieldsOf(early)[0]).toContain('laidOn: lies before the pairing began');
    clutch = await created('/clutches', {
      pairingId: pairing,
      laidOn: ago(90),
      eggs: 6,
      slugs: 1,
      incubationC: 31.4,
    });
    const wrong = await owner.post(
      `/clutches/${clutch}/hatchlings`,
      { hatchedOn: ago(95), hatched: 4 },
      { 'If-Match': '"1"' },
    );
    expect(fieldsOf(wrong)).toEqual([`hatchedOn: lies before the lay date, ${ago(90)}`]);
    const many = await owner.post(
      `/clutches/${clutch}/hatchlings`,
      { hatchedOn: ago(30), hatched: 13 },
      { 'If-Match': '"1"' },
    );
    expect(fieldsOf(many)).toEqual(['hatched: must be at most two an egg, 12']);
  });

  test('eggs become numbered hatchlings in one act, once', async () => {
    const send = () =>
      owner.post(
        `/clutches/${clutch}/hatchlings`,
        { hatchedOn: ago(30), hatched: 4 },
        { 'If-Match': '"1"', 'Idempotency-Key': 'hatch-once-1' },
      );
    const first = await send();
    expect(first.status).toBe(201);
    expect(first.body).toMatchObject({ numbers: ['2601-01', '2601-02', '2601-03', '2601-04'] });
    expect((await send()).body).toEqual(first.body);
    const again = await owner.post(
      `/clutches/${clutch}/hatchlings`,
      { hatchedOn: ago(30), hatched: 4 },
      { 'If-Match': '"2"' },
    );
    expect(again.status).toBe(409);
    young = (first.body as { ids: string[] }).ids;
  });

  test('the bench lists what the pairing can produce, by the weights of its sires', async () => {
    const bench = (await owner.get(`/clutches/${clutch}/bench`)).body as BenchView;
    expect(bench.hatchlings).toHaveLength(4);
    expect(bench.outcomes.reduce((sum, outcome) => sum + outcome.p, 0)).toBeCloseTo(1, 10);
    // By hand: sire 1 (3/4) is visual clown, the dam carries with 2/3: 3/4 x 2/3 x 1/2.
    const clowns = bench.outcomes.filter((outcome) => outcome.label.includes('Clown'));
    expect(clowns.reduce((sum, outcome) => sum + outcome.p, 0)).toBeCloseTo(0.25, 10);
  });

  test('a visual clown settles its sire and proves its dam', async () => {
    const body = { genes: 'Pastel Clown', sure: 'certain', by: 'Ida' };
    const response = await owner.post(`/animals/${young[0]}/records`, {
      kind: 'identification',
      on: ago(20),
      body,
    });
    expect(response.body).toMatchObject({ warnings: [] });
    const page = await view(young[0]!);
    expect(page.parents.find((parent) => parent.number === 'S-1')!.p).toBeCloseTo(1, 9);
    expect((await view(dam)).claims.find((claim) => claim.allele === 'clown')).toMatchObject({
      label: '100% het Clown',
      certain: true,
    });
    const claim = page.claims.find((c) => c.label === 'Clown')!;
    expect(claim.support!.map((s) => s.animalNumber)).toContain('2601-01');
  });

  test('a morph the pairing cannot give is kept, flagged with the reason', async () => {
    const body = { genes: 'Pied', sure: 'certain', by: 'Ida', override: 'looks it' };
    const response = await owner.post(`/animals/${young[1]}/records`, {
      kind: 'identification',
      on: ago(20),
      body,
    });
    expect(response.status).toBe(201);
    expect((response.body as { warnings: RecordWarning[] }).warnings).toEqual([
      { code: 'pair-cannot-give', facts: { locus: 'Pied', seen: 'Pied', possible: ['Normal'] } },
    ]);
    const page = await view(young[1]!);
    expect(page.conflicts).toHaveLength(1);
    expect(page.conflicts[0]!.animals.map((a) => a.number)).toEqual(['2601-02']);
    const bench = (await owner.get(`/clutches/${clutch}/bench`)).body as BenchView;
    expect(bench.hatchlings[1]!.impossible).toHaveLength(1);
    // Correct it: the contradiction is gone, and what was there is kept.
    const wrong = page.records.find((r) => r.kind === 'identification')!;
    const fixed = await owner.post(`/records/${wrong.id}/correct`, {
      kind: 'identification',
      on: ago(19),
      body: { genes: 'Pastel', sure: 'probable', by: 'Ida' },
      reason: 'second look',
    });
    expect(fixed.status).toBe(201);
    const after = await view(young[1]!);
    expect(after.conflicts).toEqual([]);
    expect(after.records.find((r) => r.id === wrong.id)!.voided).toMatchObject({
      reason: 'second look',
      by: 'Tester',
    });
  });

  test('sheds, meals, sex and weights are dated records with bounds', async () => {
    const id = young[0]!;
    const send = (kind: string, on: string, body: object) =>
      owner.post(`/animals/${id}/records`, { kind, on, body });
    expect(
      (await send('sex', ago(28), { sex: 'female', method: 'popped', sure: 'probable', by: 'Ida' })).status,
    ).toBe(201);
    expect((await send('shed', ago(21), { stage: 'shed', complete: true, eyeCaps: true })).status).toBe(201);
    const meal = { species: 'rat', size: 'pinky', state: 'frozen-thawed' };
    for (const days of [14, 9, 4])
      expect((await send('feeding', ago(days), { ...meal, taken: true })).status).toBe(201);
    expect((await send('weight', ago(3), { massG: 320 })).status).toBe(201);
    expect(fieldsOf(await send('weight', ago(3), { massG: 'heavy' }))).toEqual([
      'body.massG: must be a number',
    ]);
    expect(fieldsOf(await send('weight', ago(40), { massG: 70 }))[0]).toContain(
      'on: lies before the hatch date',
    );
    expect((await view(id)).sex).toBe('female');
  });

  test('the rack advises a move, the move is recorded, and meals will judge it', async () => {
    const ladder = ((await owner.get('/ladders')).body as { id: string; name: string }[]).find(
      (l) => l.name === 'Four-step rack',
    )!;
    const rack = {
      room: 'Room 1',
      name: 'H1',
      levels: 2,
      tubsPerLevel: 3,
      ladderId: ladder.id,
      stepPosition: 0,
    };
    await created('/racks', rack);
    await created('/racks', { ...rack, name: 'Y1', stepPosition: 1 });
    const racks = (await owner.get('/racks')).body as { name: string; tubs: { id: string }[] }[];
    const tub = (name: string): string => racks.find((r) => r.name === name)!.tubs[0]!.id;
    const move = (to: string, on: string) =>
      owner.post(`/animals/${young[0]}/records`, {
        kind: 'move',
        on,
        body: { toTubId: to, reason: 'set up' },
      });
    await move(tub('H1'), ago(20));
    const page = await view(young[0]!);
    expect(page.advice).toMatchObject({ verdict: 'move-up', from: 'Hatchling tub', to: 'Yearling tub' });
    expect(page.advice.freeTubs[0]).toMatchObject({ rack: 'Y1' });
    const today = (await owner.get('/today')).body as {
      lines: { kind: string; animal: { number: string } | null }[];
    };
    expect(today.lines.some((line) => line.kind === 'move' && line.animal?.number === '2601-01')).toBe(true);
    await move(tub('Y1'), ago(2));
    const moved = await view(young[0]!);
    expect(moved.tub).toMatchObject({ rack: 'Y1' });
    expect(Object.values(moved.moveOutcomes)).toContain('settling');
  });

  test('publishing shows the claims with their reasons and no private note', async () => {
    const id = young[0]!;
    const { version } = await view(id);
    await owner.patch(`/animals/${id}`, { note: 'SECRET price 900' }, { 'If-Match': `"${version}"` });
    await owner.post(`/animals/${id}/records`, {
      kind: 'note',
      on: ago(1),
      body: { text: 'SECRET buyer' },
      note: 'SECRET',
    });
    const { slug } = (await owner.put(`/animals/${id}/publication`, { text: 'Calm.' })).body as {
      slug: string;
    };
    const page = await app.anonymous.get(`/public/${slug}`);
    expect(page.status).toBe(200);
    expect(page.text).not.toContain('SECRET');
    expect(page.text).not.toContain('Ida');
    const body = page.body as PublicAnimal;
    expect(body).toMatchObject({ number: '2601-01', sex: 'female', hatchedOn: ago(30) });
    expect(body.feedings).toHaveLength(3);
    expect(body.lineage.map((kin) => kin.number)).toContain('D-1');
    expect(body.claims.find((claim) => claim.label === 'Clown')!.support!.length).toBeGreaterThan(0);
    const download = await app.anonymous.get(`/public/${slug}?download=1`);
    expect(download.headers['content-disposition']).toContain('2601-01.json');
  });

  test('what a published claim rests on cannot be taken away, but can be corrected', async () => {
    const record = (await view(young[0]!)).records.find((r) => r.kind === 'identification')!;
    const refused = await owner.post(`/records/${record.id}/void`, { reason: 'typo' });
    expect(refused.status).toBe(409);
    expect((refused.body as { detail: string }).detail).toContain('A published claim rests on this record');
    expect((await owner.delete(`/animals/${dam}`)).status).toBe(409);
  });

  test('a withdrawn page is gone for everybody', async () => {
    const { slug } = (await view(young[0]!)).publication!;
    expect((await owner.delete(`/animals/${young[0]}/publication`)).status).toBe(204);
    expect((await app.anonymous.get(`/public/${slug}`)).status).toBe(404);
  });
});
