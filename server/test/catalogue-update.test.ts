import type { AnimalView, CatalogueView, OccurrenceView, TrialView } from '@karyotome/contract';
import { BUILT_IN_VERSION, FIRST_VERSION } from '@karyotome/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { geneticsActs } from './genetics-acts.ts';
import { fieldsOf, startTestApp, type TestApp, type TestClient } from './test-app.ts';

let app: TestApp;
let owner: TestClient;

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
});
afterAll(() => app.close());

const { created, founder, young, read } = geneticsActs(() => owner);
const labelsOf = async (id: string): Promise<string[]> =>
  (await read<AnimalView>(`/animals/${id}`)).claims.map(({ label }) => label);

describe('an update of the built-in catalogue', () => {
  test('is not there for a new collection', async () => {
    expect(await read<CatalogueView>('/catalogue')).toMatchObject({
      version: BUILT_IN_VERSION,
      update: null,
    });
  });

  test('is shown before it counts, and counts once it is taken', async () => {
    const dam = await founder('UD-1', 'female', 'pastel het leucistic');
    const sire = await founder('US-1', 'male', 'het leucistic');
    // As a collection is that was begun before the update.
    await app.database.sequelize.query('update collections set catalogue_version = :version', {
      replacements: { version: FIRST_VERSION },
    });
    const own = { kind: 'alias', word: 'ghost lily', genes: 'Leucistic' };
    await created('/catalogue/entries', own);
    const white = await young('UY-1', dam, sire, 'ghost lily');
    expect(await read<CatalogueView>('/catalogue')).toMatchObject({
      version: FIRST_VERSION,
      update: { version: BUILT_IN_VERSION, loci: ['leucistic'] },
    });
    // As it was: a white animal that was not called Pastel is none.
    expect(await labelsOf(white)).toEqual(['Leucistic']);
    const trial = await read<TrialView>('/catalogue/update');
    expect(trial).toMatchObject({ changed: 1, contradictions: [], animals: [{ id: white, number: 'UY-1' }] });
    expect(trial.animals[0]!.after.map(({ label }) => label)).toContain('possible Pastel');
    expect(await labelsOf(white)).toEqual(['Leucistic']);

    const refused = await owner.post('/catalogue/update', { version: FIRST_VERSION });
    expect(refused.status).toBe(422);
    expect(fieldsOf(refused)).toEqual([`version: is not ${BUILT_IN_VERSION}`]);
    for (let again = 0; again < 2; again++)
      expect((await owner.post('/catalogue/update', { version: BUILT_IN_VERSION })).status).toBe(204);
    expect((await labelsOf(white)).toSorted()).toEqual(['Leucistic', 'possible Pastel']);
    const view = await read<CatalogueView>('/catalogue');
    expect(view).toMatchObject({ version: BUILT_IN_VERSION, update: null, entries: [{ entry: own }] });
    expect(await read<TrialView>('/catalogue/update')).toMatchObject({ changed: 0 });
  });

  test('how often loci are named is told, the most first', async () => {
    const occurrence = await read<OccurrenceView[]>('/catalogue/occurrence');
    expect(occurrence).toEqual([
      { locus: 'leucistic', animals: 3 },
      { locus: 'pastel', animals: 1 },
    ]);
  });
});

describe('a trial of an entry that is edited', () => {
  test('leaves out what the entry said before, also under another key', async () => {
    const dam = await founder('ED-1', 'female', 'gobi');
    const sire = await founder('ES-1', 'male', 'gobi');
    await created('/animals', { number: 'EY-1', sex: 'unknown', damId: dam, sireId: sire });
    const gobi = { kind: 'viability', alleles: ['gobi', 'gobi'], p: 0 };
    const id = await created('/catalogue/entries', gobi);
    const other = { kind: 'viability', alleles: ['woma', 'woma'], p: 0.5 };
    const tried = async (query: string): Promise<number> =>
      ((await owner.post(`/catalogue/trial${query}`, other)).body as TrialView).changed;
    // In its place: doubles of gobi live again. Beside it: nothing changes.
    expect(await tried(`?replaces=${id}`)).toBe(1);
    expect(await tried('')).toBe(0);
    const refused = await owner.post('/catalogue/trial?replaces=nothing', other);
    expect(refused.status).toBe(422);
    expect(fieldsOf(refused)).toEqual(['replaces: is no id of an entry']);
  });
});
