import type {
  AnimalView,
  ClaimView,
  ContradictionView,
  Page,
  RecordView,
  TakeInPreview,
  TakenView,
  BreederView,
} from '@karyotome/contract';
import sharp from 'sharp';
import request, { type Test } from 'supertest';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { version as ifVersion } from './bench-acts.ts';
import { ago, TODAY } from './days.ts';
import { binary, createdBy, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/*
 * An animal goes from one server to another by a file, with its records and its breeder's word. A year later its young prove
 * what it carries, and that statement comes back.
 */

let breeders: TestApp;
let buyers: TestApp;
let breeder: TestClient;
let buyer: TestClient;
const atBreeder = createdBy(() => breeder);
const atBuyer = createdBy(() => buyer);
const ids: Record<string, string> = {};

beforeAll(async () => {
  [breeders, buyers] = [await startTestApp(), await startTestApp()];
  [breeder, buyer] = [breeders.owner, buyers.owner];
  const dam = {
    number: 'F-1',
    name: 'Reed',
    sex: 'female',
    genes: 'normal (clown)',
    hatchedOn: ago(2000),
    massG: 1700,
  };
  ids['dam'] = (await atBreeder('/animals', { ...dam, genes: '50% het clown' })).id;
  ids['sire'] = (
    await atBreeder('/animals', { number: 'M-1', sex: 'male', genes: 'pastel', hatchedOn: ago(2000) })
  ).id;
  for (const number of ['Y-1', 'Y-2']) {
    const parents = { damId: ids['dam'], sireId: ids['sire'], hatchedOn: ago(600) };
    ids[number] = (
      await atBreeder('/animals', { number, sex: number === 'Y-1' ? 'female' : 'male', ...parents })
    ).id;
    await record(
      breeder,
      ids[number]!,
      'identification',
      { genes: 'pastel', sure: 'certain', by: 'Ilko' },
      ago(580),
    );
  }
  await record(breeder, ids['Y-1']!, 'weight', { massG: 640 }, ago(30));
  await record(
    breeder,
    ids['Y-1']!,
    'feeding',
    { species: 'rat', size: 'pup', state: 'frozen-thawed', taken: true },
    ago(20),
  );
  await record(breeder, ids['Y-1']!, 'shed', { stage: 'shed', complete: true }, ago(25));
  await record(breeder, ids['Y-1']!, 'note', { text: 'bites' }, ago(25));
  const png = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#884' } })
    .png()
    .toBuffer();
  await breeder.upload(`/animals/${ids['Y-1']}/pictures`, 'image/png', png);
  await breeder.put(`/animals/${ids['Y-1']}/publication`, {});
});
afterAll(async () => {
  await breeders.close();
  await buyers.close();
});

async function record(client: TestClient, id: string, kind: string, body: object, on = TODAY): Promise<void> {
  const answer = await client.post(`/animals/${id}/records`, { kind, on, body });
  expect(answer.status, JSON.stringify(answer.body)).toBe(201);
}
const packageOf = async (client: TestClient, id: string): Promise<Buffer> =>
  (await (client.get(`/animals/${id}/package`) as Test).buffer(true).parse(binary)).body as Buffer;
const viewOf = async (client: TestClient, id: string): Promise<AnimalView> =>
  (await client.get(`/animals/${id}`)).body as AnimalView;
const claimOf = async (client: TestClient, id: string, locus = 'clown'): Promise<ClaimView | undefined> =>
  (await viewOf(client, id)).claims.find((claim) => claim.locus === locus);
const preview = async (client: TestClient, file: Buffer): Promise<TakeInPreview> => {
  const answer = await client.upload('/taken/preview', 'application/zip', file);
  expect(answer.status, JSON.stringify(answer.body)).toBe(200);
  return (answer.body as TakeInPreview[])[0]!;
};
const take = (client: TestClient, file: Buffer, query = '?as=own') =>
  client.upload(`/taken${query}`, 'application/zip', file);

let packed: Buffer;

describe('a sold animal', () => {
  test('is previewed: what it brings, and that nothing of it is known', async () => {
    packed = await packageOf(breeder, ids['Y-1']!);
    expect(await preview(buyer, packed)).toMatchObject({
      verification: { valid: true },
      subject: { id: ids['Y-1'], number: 'Y-1', sex: 'female' },
      breeder: { name: 'Test collection', trust: 'certain', isKnown: false },
      here: null,
      conflicts: [],
      records: 3,
      pictures: 1,
      isNew: true,
    });
    expect((await preview(buyer, packed)).relatives.filter(({ isAncestor }) => isAncestor)).toHaveLength(2);
  });

  test('enters with its origin, records that stay its breeder’s, and ancestors that take no tub', async () => {
    const answer = await take(buyer, packed);
    expect(answer.status, JSON.stringify(answer.body)).toBe(201);
    const view = await viewOf(buyer, ids['Y-1']!);
    expect(view).toMatchObject({ number: 'Y-1', sex: 'female', status: 'undecided', identified: true });
    expect(view.label).toBe((await viewOf(breeder, ids['Y-1']!)).label);
    expect(view.parents.map(({ number }) => number).toSorted()).toEqual([
      'F-1, Test collection',
      'M-1, Test collection',
    ]);
    expect(view.pictures).toHaveLength(1);
    const records = view.records.filter(({ from }) => from === 'Test collection');
    expect(records.map(({ kind }) => kind).toSorted()).toEqual(['feeding', 'shed', 'weight']);
    expect(JSON.stringify(view)).not.toContain('bites');
    const mine = records.find(({ kind }) => kind === 'weight') as RecordView;
    expect((await buyer.post(`/records/${mine.id}/void`, { reason: 'x' })).status).toBe(409);
    const animals = ((await buyer.get('/animals?limit=200')).body as Page<AnimalView>).items;
    expect(animals.filter(({ status }) => status === 'outside').every(({ tub }) => tub === null)).toBe(true);
  });

  test('is claimed there as it was stated, and its breeder is named as the source', async () => {
    const [there, here] = [await claimOf(breeder, ids['Y-1']!), await claimOf(buyer, ids['Y-1']!)];
    expect(here).toMatchObject({ label: there!.label, kind: there!.kind });
    expect(here!.p).toBeCloseTo(there!.p, 6);
    expect(here!.support!.map(({ by, eye }) => [by, eye])).toContainEqual([
      'Test collection',
      'other-breeder',
    ]);
  });

  test('is taken in once, however often it is sent, and by two at once', async () => {
    const answers = await Promise.all([take(buyer, packed), take(buyer, packed)]);
    expect(answers.map(({ status }) => status)).toEqual([409, 409]);
    expect((await preview(buyer, packed)).isNew).toBe(false);
    expect(((await buyer.get('/taken')).body as Page<TakenView>).items).toHaveLength(1);
  });

  test('is not taken in where anything of it was changed', async () => {
    const document = (await breeder.get(`/animals/${ids['Y-1']}`)).body as AnimalView;
    const statement = await breeders.anonymous.get(`/public/${document.publication!.slug}/statements/1`);
    const changed = Buffer.from(statement.text.replace('"Y-1"', '"Y-9"'));
    expect((await preview(buyer, changed)).verification).toMatchObject({
      valid: false,
      signature: 'invalid',
    });
    expect((await take(buyer, changed)).status).toBe(409);
    for (const text of ['{}', '{"a":1,"a":2}', 'PK\u0003\u0004 no zip', ''])
      expect((await take(buyer, Buffer.from(text))).status, text).toBeGreaterThanOrEqual(400);
    expect((await take(buyer, packed, '?as=mine')).body).toMatchObject({ errors: [{ field: 'as' }] });
  });

  test('how far the breeder’s word counts is for whoever took it in', async () => {
    const certain = (await claimOf(buyer, ids['Y-1']!))!.p;
    const [known] = ((await buyer.get('/breeders')).body as Page<BreederView>).items;
    await buyer.put(`/breeders/${known!.id}`, { trust: 'ignored' }, ifVersion(known!.version));
    expect((await viewOf(buyer, ids['Y-1']!)).label).toBe('Not identified');
    await buyer.put(`/breeders/${known!.id}`, { trust: 'certain' }, ifVersion(known!.version + 1));
    expect((await claimOf(buyer, ids['Y-1']!))!.p).toBeCloseTo(certain, 9);
  });
});

describe('a year later', () => {
  let statement: Buffer;
  test('a young of it shows the gene, and its keeper states so', async () => {
    const sireId = (
      await atBuyer('/animals', { number: 'B-1', sex: 'male', genes: 'clown', hatchedOn: ago(900) })
    ).id;
    const parents = { damId: ids['Y-1'], sireId, hatchedOn: ago(60) };
    ids['young'] = (await atBuyer('/animals', { number: 'K-1', sex: 'male', ...parents })).id;
    await record(buyer, ids['young'], 'identification', { genes: 'clown', sure: 'certain', by: 'Bo' });
    expect(await claimOf(buyer, ids['Y-1']!)).toMatchObject({ kind: 'sure-carrier', certain: true });
    const published = await buyer.put(`/animals/${ids['young']}/publication`, {});
    expect(published.status, JSON.stringify(published.body)).toBe(200);
    const { slug } = published.body as { slug: string };
    statement = Buffer.from((await buyers.anonymous.get(`/public/${slug}/statements/1`)).text);
  });

  test('the statement comes back: dam and sibling move, with the source named', async () => {
    const before = {
      dam: (await claimOf(breeder, ids['dam']!))!,
      sibling: (await claimOf(breeder, ids['Y-2']!))!,
    };
    expect(before.dam.kind).toBe('possible-carrier');
    const found = await preview(breeder, statement);
    expect(found).toMatchObject({ verification: { valid: true }, here: null, conflicts: [], isNew: true });
    expect(found.relatives.map(({ number }) => number)).toContain('Y-1');
    expect((await take(breeder, statement, '?as=outside')).status).toBe(201);
    expect(await claimOf(breeder, ids['dam']!)).toMatchObject({ kind: 'sure-carrier', certain: true });
    const sibling = (await claimOf(breeder, ids['Y-2']!))!;
    // Of a certain carrier by a sire who is none: one half, by Mendel.
    expect(sibling.p).toBeCloseTo(0.5, 6);
    expect(sibling.p).toBeGreaterThan(before.sibling.p);
    expect((await claimOf(breeder, ids['dam']!))!.support!.map(({ animalNumber }) => animalNumber)).toContain(
      'K-1, Test collection',
    );
    expect(await viewOf(breeder, ids['young']!)).toMatchObject({ status: 'outside', tub: null });
    // What the breeder recorded of the sold animal is theirs still, and counts once.
    expect((await viewOf(breeder, ids['Y-1']!)).records.every(({ from }) => from === null)).toBe(true);
  });

  test('what was published says something else now, and is signed anew with the reason', async () => {
    const lines = ((await breeder.get('/showcase')).body as Page<{ changes: { from: string; to: string }[] }>)
      .items;
    expect(lines[0]!.changes).toMatchObject([{ to: '100% het Clown' }]);
    await breeder.post(`/animals/${ids['Y-1']}/statements`, {});
    const amended = await packageOf(breeder, ids['Y-1']!);
    const found = await preview(buyer, amended);
    expect(found).toMatchObject({ isNew: true, here: { number: 'Y-1', isOwn: false, statement: 1 } });
    expect(found.changes).toMatchObject([{ to: '100% het Clown' }]);
    expect((await take(buyer, amended)).status).toBe(201);
    const records = (await viewOf(buyer, ids['Y-1']!)).records.filter(({ from }) => from !== null);
    expect(records).toHaveLength(3);
    // The older one is behind now.
    expect((await take(buyer, packed)).status).toBe(409);
  });

  test('a statement that is let go counts no more', async () => {
    const [taken] = ((await breeder.get('/taken')).body as Page<TakenView>).items;
    expect((await breeder.delete(`/taken/${taken!.id}`)).status).toBe(204);
    expect((await breeder.delete(`/taken/${taken!.id}`)).status).toBe(204);
    expect((await claimOf(breeder, ids['dam']!))!.kind).toBe('possible-carrier');
    expect((await take(breeder, statement, '?as=outside')).status).toBe(201);
  });

  test('what cannot be true with one’s own records is said before, and shown after', async () => {
    const contradictions = ((await breeder.get('/contradictions')).body as Page<ContradictionView>).items;
    expect(contradictions).toEqual([]);
    // The breeder looked again, and says that the dam carries nothing.
    await record(breeder, ids['dam']!, 'identification', { genes: 'normal', sure: 'certain', by: 'Ilko' });
    const found = await preview(breeder, statement);
    expect(found.conflicts.map(({ code }) => code)).toContain('records-contradict');
    expect(
      ((await breeder.get('/contradictions')).body as Page<ContradictionView>).items.length,
    ).toBeGreaterThan(0);
  });
});

describe('on one server', () => {
  test('two collections hold the same animal, and hand it over at an address that works once', async () => {
    const other = await breeders.newCollection('Neighbour');
    const { path } = (await breeder.post(`/animals/${ids['Y-1']}/hand-over`)).body as { path: string };
    const shown = await request(breeders.express).get(path);
    expect(shown.text).toContain('Fetch the package');
    const first = await request(breeders.express).post(path).buffer(true).parse(binary);
    expect(first.headers['content-type']).toContain('zip');
    expect((await request(breeders.express).post(path)).status).toBe(409);
    expect((await request(breeders.express).get(path)).text).toContain('was fetched already');
    expect((await request(breeders.express).get('/h/nothing')).status).toBe(404);
    expect((await take(other, first.body as Buffer)).status).toBe(201);
    expect((await viewOf(other, ids['Y-1']!)).number).toBe('Y-1');
    expect((await viewOf(breeder, ids['Y-1']!)).number).toBe('Y-1');
    await record(other, ids['Y-1']!, 'weight', { massG: 700 });
    expect((await viewOf(breeder, ids['Y-1']!)).massG).toBe(640);
  });
});
