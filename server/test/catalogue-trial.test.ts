import type { AnimalView, ContradictionView, Page, SurpriseView, TrialView } from '@karyotome/contract';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { machineToday } from '../src/db/work.ts';
import { geneticsActs } from './genetics-acts.ts';
import { fieldsOf, startTestApp, type TestApp, type TestClient } from './test-app.ts';

let app: TestApp;
let owner: TestClient;
const TODAY = machineToday();

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
});
afterAll(() => app.close());

const { ago, created, founder, young, read } = geneticsActs(() => owner);
const labelsOf = async (id: string): Promise<string[]> =>
  (await read<AnimalView>(`/animals/${id}`)).claims.map(({ label }) => label);
async function tried(entry: object): Promise<TrialView> {
  const response = await owner.post('/catalogue/trial', entry);
  expect(response.status, JSON.stringify(response.body)).toBe(200);
  return response.body as TrialView;
}

describe('a statement that leaves recessive genes open', () => {
  test('makes a visual young a surprise with its odds, not a contradiction', async () => {
    const dam = await created('/animals', {
      number: 'OD-1',
      sex: 'female',
      status: 'breeder',
      genes: 'spotnose',
      completeness: 'recessives-unknown',
    });
    const sire = await founder('OS-1', 'male', 'puzzle');
    await young('OY-1', dam, sire, 'puzzle');
    const loci = (await read<Page<ContradictionView>>('/contradictions?limit=200')).items;
    expect(loci.map(({ locus }) => locus)).not.toContain('puzzle');
    const { items } = await read<Page<SurpriseView>>('/surprises');
    expect(items).toMatchObject([
      {
        animal: { id: dam, number: 'OD-1' },
        stated: 'Spotnose',
        alleles: ['Puzzle'],
        // By hand: 2 x 0.01 x 0.99 of the 1 - 0.01^2 that do not show it.
        pBefore: expect.closeTo((2 * 0.01 * 0.99) / (1 - 0.01 ** 2), 10),
        p: expect.closeTo(1, 10),
        genes: 'Spotnose Het Puzzle',
      },
    ]);
    const view = await read<AnimalView>(`/animals/${dam}`);
    expect(view.claims.map(({ label }) => label)).toContain('100% het Puzzle');
    await owner.post(`/animals/${dam}/records`, {
      kind: 'identification',
      on: TODAY,
      body: { genes: 'Spotnose Het Puzzle', sure: 'certain', by: 'Tester' },
    });
    expect((await read<Page<SurpriseView>>('/surprises')).items).toEqual([]);
  });

  test('anything else than its three words is refused at its field', async () => {
    const response = await owner.post('/animals', {
      number: 'OD-9',
      sex: 'female',
      genes: 'pastel',
      completeness: 'some',
    });
    expect(response.status).toBe(422);
    expect(JSON.stringify(response.body)).toContain('completeness');
  });
});

describe('what the collection sees otherwise than the catalogue', () => {
  test('a viability is shown before it counts, and then changes what living young are', async () => {
    const dam = await founder('VD-1', 'female', 'gobi');
    const sire = await founder('VS-1', 'male', 'gobi');
    const child = await young('VY-1', dam, sire, 'gobi');
    expect(await labelsOf(child)).toEqual(['Gobi']);
    const unseen = await created('/animals', {
      number: 'VY-2',
      sex: 'unknown',
      damId: dam,
      sireId: sire,
      hatchedOn: ago(300),
    });
    const entry = { kind: 'viability', alleles: ['gobi', 'gobi'], p: 0 };
    const trial = await tried(entry);
    expect(trial.contradictions).toEqual([]);
    expect(trial.animals.map(({ number }) => number)).toEqual(['VY-2']);
    expect(trial.animals[0]!.before).toMatchObject([{ p: expect.closeTo(3 / 4, 10) }]);
    expect(trial.animals[0]!.after).toMatchObject([{ p: expect.closeTo(2 / 3, 10) }]);
    await created('/catalogue/entries', entry);
    // Mendel's 1 : 2 : 1 without the doubles: two of three.
    const { claims } = await read<AnimalView>(`/animals/${unseen}`);
    expect(claims[0]!.p).toBeCloseTo(2 / 3, 10);
  });

  test('an allele moved to another locus names the contradictions that it makes', async () => {
    const dam = await founder('MD-1', 'female', 'het red axanthic cinnamon');
    const sire = await founder('MS-1', 'male', 'normal');
    await young('MY-1', dam, sire, 'het red axanthic cinnamon');
    const entry = { kind: 'allelism', allele: 'het-red-axanthic', locus: 'dark-complex' };
    expect((await tried(entry)).contradictions).toEqual(['Dark complex']);
    // Three alleles of one locus on one animal cannot be read any more.
    await founder('MD-2', 'female', 'het red axanthic cinnamon black pastel');
    const refused = await owner.post('/catalogue/entries', entry);
    expect(refused.status).toBe(422);
    expect(fieldsOf(refused)[0]).toContain('MD-2');
  });

  test('compounds are named, frequencies set and labels put in order', async () => {
    await created('/catalogue/entries', {
      kind: 'compound',
      alleles: ['lesser', 'bamboo'],
      name: 'Paper Lantern',
    });
    await created('/catalogue/entries', { kind: 'label-order', loci: ['enchi-complex', 'mahogany'] });
    const animal = await founder('CO-1', 'female', 'pastel paper lantern mahogany enchi');
    expect((await read<AnimalView>(`/animals/${animal}`)).label).toBe('Enchi Mahogany Pastel Paper Lantern');
    await created('/catalogue/entries', { kind: 'frequency', allele: 'puzzle', frequency: 0.05 });
  });

  test('a word with several meanings is settled for the collection', async () => {
    const genes = { number: 'AX-1', sex: 'female', genes: 'axanthic' };
    expect((await owner.post('/animals', genes)).status).toBe(422);
    await created('/catalogue/entries', { kind: 'alias', word: 'axanthic', genes: 'Axanthic B' });
    const animal = await created('/animals', genes);
    expect((await read<AnimalView>(`/animals/${animal}`)).label).toBe('Axanthic B');
  });

  test.each([
    [{ kind: 'viability', alleles: ['pastel', 'enchi'], p: 0 }, 'alleles: must be two of one locus'],
    [{ kind: 'viability', alleles: ['pastel'], p: 0 }, 'alleles: must'],
    [{ kind: 'viability', alleles: ['pastel', 'pastel'], p: 2 }, 'p: must be at most 1'],
    [{ kind: 'compound', alleles: ['fire', 'fire'], name: 'Ember' }, 'alleles: must be two different'],
    [{ kind: 'compound', alleles: ['fire', 'disco'], name: 'Pastel' }, 'name: is a word that the catalogue'],
    [{ kind: 'allelism', allele: 'clown', locus: 'dark-complex' }, 'expression: cannot be recessive here'],
    [{ kind: 'allelism', allele: 'banana', locus: 'dark-complex' }, 'locus: is sex-linked'],
    [{ kind: 'allelism', allele: 'enchi', locus: 'enchi-complex' }, 'locus: is where the allele is already'],
    [{ kind: 'frequency', allele: 'pastel', frequency: 0.1 }, 'allele: is not recessive'],
    [{ kind: 'label-order', loci: ['nowhere'] }, 'loci: names a locus that is not in the catalogue'],
  ])('%j is refused at its field, tried or added', async (entry, message) => {
    for (const path of ['/catalogue/entries', '/catalogue/trial']) {
      const response = await owner.post(path, entry);
      expect(response.status).toBe(422);
      expect(fieldsOf(response).join('; ')).toContain(message);
    }
  });
});
