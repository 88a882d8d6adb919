import type {
  Page,
  AnimalView,
  CatalogueView,
  ClaimDetailView,
  ContradictionView,
  KinNodeView,
} from '@karyotome/contract';
import { CATALOGUE, MOST_ALLELES } from '@karyotome/core';
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
const claimsOf = async (id: string): Promise<string[]> =>
  (await read<AnimalView>(`/animals/${id}`)).claims.map((claim) => claim.label);

describe('what is behind a claim', () => {
  let dam: string;
  let sire: string;
  let proband: string;

  test('a possible carrier names what it rests on, what it hangs on, and which mate would prove it', async () => {
    dam = await founder('CD-1', 'female', 'clown');
    sire = await founder('CS-1', 'male', '50% het clown');
    proband = await young('CY-1', dam, sire, 'normal');
    const [claim] = (await read<AnimalView>(`/animals/${sire}`)).claims;
    // One non-visual young of a visual mate halves odds of one to one: one in three.
    expect(claim).toMatchObject({ label: '33% het Clown', locus: 'clown', allele: 'clown' });
    const detail = await read<ClaimDetailView>(`/animals/${sire}/claims/clown/clown`);
    const support = new Set(claim!.support!.map(({ recordId }) => recordId));
    expect(support.size).toBe(3);
    expect(new Set(detail.hinges)).toEqual(support);
    // With the visual dam each egg that is not visual halves the odds again.
    expect(detail.proofs[0]).toMatchObject({ number: 'CD-1', eggsForNo: 6 });
  });

  test('a carrier by birth hangs on its visual parent, and a doubtful look would be surer', async () => {
    expect(await claimsOf(proband)).toEqual(['100% het Clown']);
    const detail = await read<ClaimDetailView>(`/animals/${proband}/claims/clown/clown`);
    expect(detail.hinges).toHaveLength(1);
    expect(detail.proofs).toEqual([]);
    const response = await owner.post(`/animals/${proband}/records`, {
      kind: 'identification',
      on: TODAY,
      body: { genes: 'pastel', sure: 'probable', by: 'Tester' },
    });
    expect(response.status).toBe(201);
  });

  test('the kin chart knows who shows and who carries', async () => {
    const kin = await read<KinNodeView[]>(`/animals/${proband}/kin?locus=clown&allele=clown`);
    const of = (number: string) => kin.find((one) => one.number === number)!;
    expect(of('CD-1').gene).toEqual({ pShows: 1, pCarries: 1 });
    expect(of('CY-1')).toMatchObject({ dam, sires: [{ id: sire, p: 1 }] });
    // Bayes by hand: a quarter visual before, of which a probable "not" is wrong in one of ten.
    expect(of('CY-1').gene!.pShows).toBeCloseTo((0.25 * 0.1) / (0.25 * 0.1 + 0.75 * 0.9), 12);
    expect(of('CY-1').gene!.pCarries).toBeCloseTo(1, 12);
  });

  test('a claim that is not made, and an animal that is not there, are not found', async () => {
    expect((await owner.get(`/animals/${proband}/claims/clown/pied`)).status).toBe(404);
    expect((await owner.get(`/animals/${crypto.randomUUID()}/kin`)).status).toBe(404);
    expect((await app.anonymous.get('/contradictions')).status).toBe(401);
  });
});

describe('contradictions', () => {
  test('are ranked, and each remedy mends it', async () => {
    const dam = await founder('KD-1', 'female', 'normal het clown');
    const sire = await founder('KS-1', 'male', 'super enchi');
    for (const n of [1, 2, 3]) await young(`KY-${n}`, dam, sire, 'enchi');
    const odd = await young('KY-9', dam, sire, 'enchi mojave');
    const found = (await read<Page<ContradictionView>>('/contradictions?limit=200')).items;
    const one = found.find(({ locus }) => locus === 'blue-eyed-white')!;
    expect(one.animals.map(({ number }) => number)).toEqual(['KY-9']);
    expect(one.explanations.map(({ kind }) => kind)).toContain('carries-more');
    expect(one.explanations[0]).toMatchObject({
      kind: 'identification',
      animals: [{ id: odd, number: 'KY-9' }],
    });
    // The label says what was seen, and the gene in question is claimed of nobody.
    const view = await read<AnimalView>(`/animals/${odd}`);
    expect(view.label).toBe('Mojave Enchi 50% het Clown');
    expect(view.claims.map(({ label }) => label)).toEqual(['Enchi', '50% het Clown']);
    expect(view.conflicts).toHaveLength(1);

    const more = one.explanations.find(
      ({ kind, animals }) => kind === 'carries-more' && animals[0]!.id === dam,
    )!;
    expect(more).toMatchObject({ genes: 'Mojave Het Clown' });
    await owner.post(`/animals/${dam}/records`, {
      kind: 'identification',
      on: TODAY,
      body: { genes: more.genes, sure: 'certain', by: 'Tester' },
    });
    expect(
      (await read<Page<ContradictionView>>('/contradictions?limit=200')).items.map(({ locus }) => locus),
    ).not.toContain('blue-eyed-white');
  });
});

describe('the catalogue', () => {
  test("takes a gene of one's own, reads it at once, and works out anew what depends on it", async () => {
    const id = await created('/catalogue/entries', {
      kind: 'locus',
      name: 'River Axanthic',
      expression: 'recessive',
      double: null,
      recombination: null,
    });
    const dam = await founder('GD-1', 'female', 'river axanthic');
    const sire = await founder('GS-1', 'male', 'normal');
    const child = await young('GY-1', dam, sire, 'normal');
    expect(await claimsOf(child)).toEqual(['100% het River Axanthic']);
    const { entries } = await read<CatalogueView>('/catalogue');
    const entry = entries.find((one) => one.id === id)!;
    expect(entry).toMatchObject({ version: 1, usedBy: 1 });

    // It shows with one copy after all: then the dam has one, and the young that shows nothing got none.
    const changed = await owner.put(
      `/catalogue/entries/${id}`,
      {
        kind: 'locus',
        name: 'River Axanthic',
        expression: 'incomplete-dominant',
        double: null,
        recombination: null,
      },
      { 'If-Match': '"1"' },
    );
    expect(changed.status, JSON.stringify(changed.body)).toBe(200);
    expect((await read<AnimalView>(`/animals/${dam}`)).claims.map(({ label }) => label)).toEqual([
      'River Axanthic',
    ]);
    expect(await claimsOf(child)).toEqual([]);
    const stale = await owner.put(
      `/catalogue/entries/${id}`,
      { kind: 'locus', name: 'River Axanthic', expression: 'dominant', double: null, recombination: null },
      { 'If-Match': '"1"' },
    );
    expect(stale.status).toBe(412);
    const refused = await owner.delete(`/catalogue/entries/${id}`);
    expect(refused.status).toBe(409);
    expect((refused.body as { detail: string }).detail).toContain('GD-1');
  });

  test('a complex takes as many alleles as the engine and the planner can tell apart', async () => {
    const complex = CATALOGUE.locusById('yellow-belly-complex')!;
    const add = (n: number) =>
      owner.post('/catalogue/entries', {
        kind: 'allele',
        locus: complex.id,
        name: `Ladder ${n}`,
        expression: 'incomplete-dominant',
        double: null,
      });
    const made: string[] = [];
    for (let n = complex.alleles.length; n < MOST_ALLELES; n++)
      made.push(((await add(n)).body as { id: string }).id);
    expect(fieldsOf(await add(MOST_ALLELES))).toEqual([
      `locus: has ${MOST_ALLELES} alleles, which is the most`,
    ]);
    for (const id of made) expect((await owner.delete(`/catalogue/entries/${id}`)).status).toBe(204);
  });

  test('an alias is replaced by its genes, and goes again', async () => {
    const id = await created('/catalogue/entries', { kind: 'alias', word: 'Sunrise', genes: 'pastel enchi' });
    const animal = await founder('AL-1', 'female', 'sunrise het clown');
    expect((await read<AnimalView>(`/animals/${animal}`)).label).toBe('Pastel Enchi 100% het Clown');
    expect((await owner.delete(`/catalogue/entries/${id}`)).status).toBe(409);
    const other = await created('/catalogue/entries', { kind: 'alias', word: 'Moonset', genes: 'mojave' });
    expect((await owner.delete(`/catalogue/entries/${other}`)).status).toBe(204);
    expect(fieldsOf(await owner.post('/animals', { number: 'Q', sex: 'male', genes: 'moonset' }))[0]).toMatch(
      '“moonset” is not a known gene',
    );
  });

  test.each([
    [
      { kind: 'locus', name: 'Pastel', expression: 'recessive' },
      'name: is a word that the catalogue has already',
    ],
    [{ kind: 'locus', name: '!!', expression: 'recessive' }, 'name: needs letters or digits'],
    [{ kind: 'locus', name: 'x', expression: 'shiny' }, 'expression: must be one of'],
    [
      { kind: 'allele', locus: 'nowhere', name: 'Ember', expression: 'dominant' },
      'locus: is not in the catalogue',
    ],
    [
      { kind: 'allele', locus: 'clown', name: 'Ember', expression: 'dominant' },
      'expression: must be recessive',
    ],
    [{ kind: 'correction', allele: 'nothing', expression: 'dominant' }, 'allele: is not in the catalogue'],
    [
      { kind: 'correction', allele: 'mojave', expression: 'recessive' },
      'expression: cannot be recessive here',
    ],
    [{ kind: 'alias', word: 'Bumblebee', genes: 'pastel' }, 'word: is a word that the catalogue has already'],
    [{ kind: 'alias', word: 'Thing', genes: 'pastl' }, 'genes: “pastl” is not a known gene'],
    [{ kind: 'recombination', locus: 'clown', recombination: 0.1 }, 'locus: is not on the sex chromosomes'],
    [{ kind: 'recombination', locus: 'banana', recombination: 0.7 }, 'recombination: must be at most 0.5'],
    [{ kind: 'colour' }, 'kind: must be one of'],
  ])('%j is refused at its field', async (entry, message) => {
    const response = await owner.post('/catalogue/entries', entry);
    expect(response.status).toBe(422);
    expect(fieldsOf(response).join('; ')).toContain(message);
  });

  test('a gene that shows otherwise than the catalogue has it is corrected, and its claims follow', async () => {
    const animal = await founder('WO-1', 'female', 'woma');
    const child = await young('WO-2', animal, await founder('WO-3', 'male', 'woma'), 'super woma');
    expect(await claimsOf(child)).toEqual(['Super Woma']);
    await created('/catalogue/entries', {
      kind: 'correction',
      allele: 'woma',
      expression: 'dominant',
      double: null,
    });
    // Two copies now look like one: what showed could be either, one third and two thirds.
    const [claim] = (await read<AnimalView>(`/animals/${child}`)).claims;
    expect(claim).toMatchObject({ kind: 'visual', label: 'Woma' });
  });

  test('another value for the recombination changes what a sex-linked gene says', async () => {
    const dam = await founder('BD-1', 'female', 'normal');
    const sire = await founder('BS-1', 'male', 'male-maker banana');
    const odds = async (): Promise<number> => {
      const { claims } = await read<AnimalView>(`/animals/${child}`);
      return claims.find(({ allele }) => allele === 'banana')?.p ?? 0;
    };
    const child = await created('/animals', {
      number: 'BY-1',
      sex: 'female',
      damId: dam,
      sireId: sire,
      hatchedOn: ago(90),
    });
    expect(await odds()).toBeCloseTo(0.07, 12);
    await created('/catalogue/entries', { kind: 'recombination', locus: 'banana', recombination: 0.2 });
    expect(await odds()).toBeCloseTo(0.2, 12);
  });
});
