import type { AnimalView, RecordWarning } from '@karyotome/contract';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { benchActsOf, oddsOf, version } from './bench-acts.ts';
import { ago } from './days.ts';
import { fieldsOf, startTestApp, type TestApp, type TestClient } from './test-app.ts';

let app: TestApp;
let owner: TestClient;
const { created, animal, clutchOf, benchOf, identify } = benchActsOf(() => owner);

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
});
afterAll(() => app.close());

describe('a clutch on the table', () => {
  let clutch: string;
  let young: string[];
  beforeAll(async () => {
    const dam = await animal('D-1', 'female', 'Pastel 66% het Clown');
    const sire = await animal('S-1', 'male', 'Clown Enchi');
    ({ clutch, young } = await clutchOf(dam, [sire], 4));
  });

  test('each one starts from what its parents allow, and a clown among them changes the others at once', async () => {
    const before = await benchOf(clutch);
    expect(before.hatchlings.map((one) => oddsOf(one, 'clown/clown'))).toEqual(
      young.map(() => expect.closeTo(1 / 3, 4) as number),
    );
    expect((await identify(young[0]!, 'Clown Pastel')).status).toBe(201);
    const after = await benchOf(clutch);
    expect(oddsOf(after.hatchlings[1]!, 'clown/clown')).toBeCloseTo(0.5, 9);
    // For itself it does not testify.
    expect(oddsOf(after.hatchlings[0]!, 'clown/clown')).toBeCloseTo(1 / 3, 4);
    expect(after.dam.news[0]).toMatchObject({ locus: 'clown', allele: 'clown', copies: 1, p: 1, showing: 1 });
    expect(after.fit!.genes.map(({ label, seen }) => [label, seen])).toEqual([
      ['Pastel', 1],
      ['Enchi', 0],
      ['Clown', 1],
    ]);
    expect(after.fit!.p).toBe(1);
  });

  test('what was seen is kept, by its version, and only markers of the catalogue are taken', async () => {
    const path = `/animals/${young[1]}/observations`;
    const look = { observations: { 'lips: pale': 'seen', 'back: dark stripe': 'not-seen' } };
    expect((await owner.put(path, look, version(0))).body).toEqual({ version: 1 });
    expect((await owner.put(path, look, version(0))).status).toBe(412);
    expect((await owner.put(path, { observations: { 'lips: pale': 'seen' } }, version(1))).status).toBe(200);
    const wrong = await owner.put(path, { observations: { 'lips: blue': 'seen' } }, version(2));
    expect(fieldsOf(wrong)).toEqual(['observations.lips: blue: is no marker of the catalogue']);
    expect(
      fieldsOf(await owner.put(path, { observations: { 'lips: pale': 'maybe' } }, version(2)))[0],
    ).toContain('observations.lips: pale');
    const seen = (await benchOf(clutch)).hatchlings[1]!;
    expect([seen.observations, seen.observationsVersion]).toEqual([{ 'lips: pale': 'seen' }, 2]);
    expect(oddsOf(seen, 'pastel')).toBeGreaterThan(0.9);
  });

  test('a user’s own marker counts with its own chances, and one that distinguishes nothing is refused', async () => {
    const marker = {
      kind: 'marker',
      phenotype: 'enchi',
      zone: 'tail',
      text: 'ringed',
      pWith: 0.95,
      pWithout: 0.02,
    };
    expect((await owner.post('/catalogue/entries', marker)).status).toBe(201);
    expect((await owner.post('/catalogue/entries', marker)).status).toBe(409);
    const nothing = await owner.post('/catalogue/entries', {
      ...marker,
      text: 'long',
      pWith: 0.3,
      pWithout: 0.3,
    });
    expect(fieldsOf(nothing)[0]).toContain('pWith: must be more than without the gene');
    const unknown = await owner.post('/catalogue/entries', { ...marker, phenotype: 'enchy' });
    expect(fieldsOf(unknown)).toEqual(['phenotype: is not in the catalogue']);
    const look = await owner.put(
      `/animals/${young[2]}/observations`,
      { observations: { 'tail: ringed': 'seen' } },
      version(0),
    );
    expect(look.status).toBe(200);
  });

  test('like is put with like, each in one group, and the order of two hands is kept', async () => {
    const path = `/clutches/${clutch}/sorting`;
    const groups = [{ name: 'Brightest', animalIds: [young[1]!, young[0]!] }];
    expect((await owner.put(path, { groups }, version(0))).body).toEqual({ version: 1 });
    expect((await owner.put(path, { groups: [] }, version(0))).status).toBe(412);
    const twice = [...groups, { name: 'Dull', animalIds: [young[1]!] }];
    expect(fieldsOf(await owner.put(path, { groups: twice }, version(1)))).toEqual([
      'groups.1.animalIds.0: lies in two groups',
    ]);
    expect(await benchOf(clutch)).toMatchObject({ groups, sortingVersion: 1 });
  });

  test('an identification keeps its markers, its odds and what was left open', async () => {
    const body = {
      markers: { 'lips: pale': 'seen' },
      odds: { pBefore: 0.25, p: 0.9 },
      alternatives: [{ genes: 'Enchi', p: 0.1 }],
      override: 'The lips decide it for me',
    };
    expect((await identify(young[1]!, 'Pastel (Enchi)', body)).status).toBe(201);
    const page = (await owner.get(`/animals/${young[1]}`)).body as AnimalView;
    expect(page.records.find(({ kind }) => kind === 'identification')!.body).toMatchObject(body);
    expect(page.label).toContain('(Enchi)');
    expect(fieldsOf(await identify(young[1]!, 'Pastel', { odds: { pBefore: 2, p: 0 } }))).toEqual([
      'body.odds.pBefore: must be at most 1',
    ]);
  });
});

describe('a parent that was never identified', () => {
  test('makes no odds, and the young can be identified all the same', async () => {
    const dam = await created('/animals', { number: 'D-9', sex: 'female' });
    const sire = await animal('S-9', 'male', 'Pastel');
    const { clutch, young } = await clutchOf(dam, [sire], 1);
    expect((await benchOf(clutch)).hatchlings[0]!.hypotheses).toEqual([]);
    expect((await identify(young[0]!, 'Pastel')).body).toMatchObject({ warnings: [] });
  });
});

describe('two sires', () => {
  test('a gene that one alone carries identifies it', async () => {
    const dam = await animal('D-2', 'female', 'Normal');
    const [one, two] = [await animal('S-2', 'male', 'Pinstripe'), await animal('S-3', 'male', 'Leopard')];
    const { clutch, young } = await clutchOf(dam, [one, two], 3);
    await identify(young[0]!, 'Leopard');
    const { hatchlings } = await benchOf(clutch);
    expect(hatchlings[0]!.sires.find(({ id }) => id === two)!.p).toBe(1);
    expect(hatchlings[1]!.sires.map(({ p }) => p)).toEqual([0.5, 0.5]);
  });
});

describe('sex against sex-linked genes', () => {
  test('a male-maker’s daughter that shows it is doubted at once, whichever was recorded first', async () => {
    const dam = await animal('D-4', 'female', 'Normal');
    const sire = await animal('S-4', 'male', 'Male-Maker Banana');
    const { clutch, young } = await clutchOf(dam, [sire], 2);
    const sexed = (sex: string) =>
      owner.post(`/animals/${young[0]}/records`, {
        kind: 'sex',
        on: ago(3),
        body: { sex, method: 'popped', sure: 'certain', by: 'Ida' },
      });
    expect((await identify(young[0]!, 'Banana')).body).toMatchObject({ warnings: [] });
    const { warnings } = (await sexed('female')).body as { warnings: RecordWarning[] };
    // The gene lies on the male's sex chromosome but for a crossover in 7 of 100 gametes (common practice, no source).
    const facts = { label: 'Banana', sex: 'female', p: 0.07, pOther: 0.93 };
    expect(warnings).toMatchObject([
      {
        code: 'sex-does-not-fit',
        facts: { ...facts, p: expect.closeTo(0.07, 6), pOther: expect.closeTo(0.93, 6) },
      },
    ]);
    expect((await benchOf(clutch)).hatchlings[0]!.sexDoubts).toEqual(warnings.map((one) => one.facts));
    expect((await sexed('male')).body).toMatchObject({ warnings: [] });
    expect((await benchOf(clutch)).hatchlings[0]!.sexDoubts).toEqual([]);
  });
});
