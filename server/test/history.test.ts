import { HISTORY_SUBJECTS, type HistoryLine, type NewToken, type Page } from '@karyotome/contract';
import Papa from 'papaparse';
import request from 'supertest';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { ago, TODAY } from './days.ts';
import { peopleActs } from './people-acts.ts';
import {
  createdBy,
  fieldsOf,
  maker,
  PASSWORD,
  startTestApp,
  type TestApp,
  type TestClient,
} from './test-app.ts';

/* The history: every write, kept by the database, which lets nobody change it. */

let app: TestApp;
let owner: TestClient;
let animal: string;
beforeAll(async () => {
  app = await startTestApp();
});
beforeEach(async () => {
  await forgetFailures();
  owner = await app.newCollection('Reedwater');
  animal = await maker(() => owner, ago).animal('F-1', 'female', 'Pastel');
});
afterAll(() => app.close());

const { invited, joined, forgetFailures } = peopleActs(
  () => app,
  () => owner,
);
const made = createdBy(() => owner);
const pageOf = async (query = ''): Promise<Page<HistoryLine>> =>
  (await owner.get(`/history?${query}`)).body as Page<HistoryLine>;
const lines = async (query = ''): Promise<HistoryLine[]> => (await pageOf(`limit=200&${query}`)).items;
const valuesOf = (line: HistoryLine) =>
  Object.fromEntries(line.changes.map(({ field, was, becomes }) => [field, [was, becomes]]));
const inDatabase = async <Row>(sql: string): Promise<Row[]> => {
  const [rows] = await app.database.sequelize.query(sql);
  return rows as Row[];
};

describe('every table of a collection', () => {
  /** What is computed or follows from other rows, what sensors report, and what only answers a repetition. */
  const LEFT_OUT = [
    'animal_claims',
    'animal_states',
    'due_tasks',
    'herd_days',
    'history',
    'idempotent_writes',
    'readings',
    'simulated_mail',
    'stated_evidence',
    'tubs',
    'used_numbers',
    'webhook_messages',
  ];

  test('is kept, or is named here as one that is not', async () => {
    const rows = await inDatabase<{ name: string; subject: string | null }>(
      `select c.relname as name, split_part(encode(t.tgargs, 'escape'), '\\000', 1) as subject
         from pg_class c join pg_attribute a on a.attrelid = c.oid and a.attname = 'collection_id'
         left join pg_trigger t on t.tgrelid = c.oid and t.tgname = 'keep_history'
        where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p') and not c.relispartition order by 1`,
    );
    expect(rows.filter(({ subject }) => subject === null).map(({ name }) => name)).toEqual(LEFT_OUT);
    const subjects = rows.flatMap(({ subject }) => subject ?? []);
    // Of tubs there are lines from before.
    expect([...subjects, 'collection', 'tub'].toSorted()).toEqual([...HISTORY_SUBJECTS].toSorted());
  });
});

describe('a line', () => {
  test('says who did what with which device, what was and what is', async () => {
    const { body } = await owner.get(`/animals/${animal}`);
    const { version } = body as { version: number };
    await owner.patch(
      `/animals/${animal}`,
      { name: 'Juniper' },
      { 'If-Match': `"${version}"`, 'User-Agent': 'Field phone' },
    );
    const [line] = await lines('subject=animal');
    expect(line).toMatchObject({
      action: 'changed',
      subject: 'animal',
      by: 'Tester',
      program: null,
      device: 'Field phone',
      animal: { id: animal, number: 'F-1' },
      changes: [{ field: 'name', becomes: 'Juniper' }],
    });
    expect(Math.abs(Date.parse(line!.at) - Date.now())).toBeLessThan(600_000);
  });

  test('is there for records, what voids them, racks, moves and rules', async () => {
    const { id } = await made(`/animals/${animal}/records`, {
      kind: 'weight',
      on: TODAY,
      body: { massG: 1500 },
    });
    await owner.post(`/records/${id}/void`, { reason: 'Another snake' });
    const [voided, added] = await lines(`animalId=${animal}&subject=record`);
    expect(valuesOf(added!)).toMatchObject({
      kind: [undefined, 'weight'],
      body: [undefined, { massG: 1500 }],
    });
    expect(voided).toMatchObject({ action: 'changed' });
    expect(valuesOf(voided!)).toMatchObject({ void_reason: [undefined, 'Another snake'] });
    const { body } = await owner.get('/session');
    const { collection } = body as { collection: Record<string, unknown> & { version: number } };
    const { id: _id, version, farmZone: _zone, ...settings } = collection;
    const changed = await owner.put(
      '/settings',
      { ...settings, massUnit: 'oz' },
      { 'If-Match': `"${version}"` },
    );
    expect(changed.status).toBe(200);
    const [rules] = await lines('subject=collection');
    expect(valuesOf(rules!)).toMatchObject({ mass_unit: ['g', 'oz'] });
  });

  test('is there for what is removed, with what it was', async () => {
    const extra = await maker(() => owner, ago).animal('F-2', 'female', 'Clown');
    await owner.post(`/animals/${extra}/delete`, { reason: 'Entered twice' });
    const [deleted] = await lines('subject=bin-entry');
    expect(deleted).toMatchObject({ action: 'added', animal: { number: 'F-2', isHere: false } });
    expect(valuesOf(deleted!)).toMatchObject({ reason: [undefined, 'Entered twice'] });
    const [ladder] = ((await owner.get('/ladders?limit=9')).body as Page<{ id: string }>).items;
    const place = { room: 'R', name: 'Rack R', levels: 1, tubsPerLevel: 1 };
    const { id: rack } = await made('/racks', { ...place, ladderId: ladder!.id, stepPosition: 0 });
    await owner.post(`/racks/${rack}/delete`, { reason: 'Sold' });
    const [removed] = await lines('subject=bin-entry');
    expect(valuesOf(removed!)).toMatchObject({ kind: [undefined, 'rack'], number: [undefined, 'Rack R'] });
  });

  test('is there for rights, tokens, sign-ins that failed, and passwords', async () => {
    const ida = await joined((await invited('keeper')).token);
    const { id, email } = ida.session.account;
    await owner.put(`/members/${id}`, { role: 'viewer' });
    await app.anonymous.post('/session', { email, password: 'wrong herons at dawn' });
    await ida.put('/account/password', { current: 'nine herons at dusk', next: 'ten herons at dawn' });
    const acts = (await lines(`accountId=${id}`)).map(({ action }) => action);
    expect(acts).toEqual(expect.arrayContaining(['signed-in', 'sign-in-failed', 'password-changed']));
    const member = (await lines('subject=member')).find(({ action }) => action === 'changed')!;
    expect(valuesOf(member)).toMatchObject({ role: ['keeper', 'viewer'] });
    expect(member.by).toBe('Tester');
  });

  test('names the program that acted for somebody', async () => {
    const { token } = await made<NewToken>('/account/tokens', { name: 'Scale', scope: 'record', days: 5 });
    const weighed = await request(app.express)
      .post(`/api/v1/animals/${animal}/records`)
      .set('Authorization', `Bearer ${token}`)
      .send({ kind: 'weight', on: TODAY, body: { massG: 1400 } });
    expect(weighed.status).toBe(201);
    const [line] = await lines('subject=record');
    expect(line).toMatchObject({ by: 'Tester', program: 'Scale' });
  });

  test('goes with its write: what was refused leaves none', async () => {
    const before = (await pageOf()).total;
    expect((await owner.post('/animals', { number: 'F-1', sex: 'female' })).status).toBe(409);
    expect((await pageOf()).total).toBe(before);
  });
});

describe('what is kept', () => {
  test.each([
    ['changed', "update history set action = 'changed'"],
    ['deleted', 'delete from history'],
    ['emptied', 'truncate history'],
    ['emptied in a part', 'truncate history_0'],
  ])('cannot be %s', async (_how, sql) => {
    await expect(app.database.sequelize.query(sql)).rejects.toThrow('cannot be changed or deleted');
  });

  test('holds no secret, and nothing of people who may want to be forgotten', async () => {
    const person = { name: 'Wilhelmina Quist', email: 'quist@example.test', phone: '0123 456' };
    const { id } = await made('/persons', person);
    const feed = await made<{ path: string }>('/calendar-feeds', { name: 'Phone' });
    await made<NewToken>('/account/tokens', { name: 'Scale', scope: 'view', days: 5 });
    await owner.post('/signing-keys');
    await owner.delete(`/persons/${id}`);
    const [added] = await lines('subject=person');
    expect(added!.changes.length).toBeGreaterThan(0);
    const rows = await inDatabase<{ text: string }>('select h::text as text from history h');
    const all = rows.map(({ text }) => text).join('\n');
    for (const secret of [
      ...Object.values(person),
      feed.path.split('/').at(-1)!.replace('.ics', ''),
      PASSWORD,
    ])
      expect(all).not.toContain(secret);
    expect(all).not.toMatch(/argon2|sealed_secret|token_digest/);
  });
});

describe('it is asked for', () => {
  test('page by page, each line once, and by day, animal and words', async () => {
    for (let i = 0; i < 5; i++)
      await made(`/animals/${animal}/records`, { kind: 'note', on: TODAY, body: { text: `Note ${i}` } });
    const whole = await lines();
    const paged: string[] = [];
    let after: string | null = '';
    while (after !== null) {
      const page: Page<HistoryLine> = await pageOf(`limit=3${after ? `&after=${after}` : ''}`);
      expect(page.total).toBe(whole.length);
      paged.push(...page.items.map(({ id }) => id));
      after = page.next;
    }
    expect(paged).toEqual(whole.map(({ id }) => id));
    expect(await lines(`search=${encodeURIComponent('note 3')}`)).toHaveLength(1);
    expect((await lines(`from=${TODAY}&to=${TODAY}`)).length).toBe(whole.length);
    expect(await lines(`to=${ago(2)}`)).toEqual([]);
  });

  test.each([
    ['animalId=nobody', 'animalId'],
    ['from=2026-02-30', 'from'],
    ['subject=dragon', 'subject'],
    ['after=abc', 'after'],
  ])('wrongly, %s, and is refused with the field', async (query, field) => {
    const answer = await owner.get(`/history?${query}`);
    expect(answer.status).toBe(422);
    expect(fieldsOf(answer).join()).toContain(field);
  });

  test('as a table, in which a spreadsheet finds no formula', async () => {
    await made(`/animals/${animal}/records`, { kind: 'note', on: TODAY, body: { text: 'x' }, note: '=1+2' });
    const { text, headers } = await owner.get(`/history.csv?animalId=${animal}`);
    expect(headers['content-type']).toContain('text/csv');
    const { data } = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true });
    expect(data.find(({ field }) => field === 'note')).toMatchObject({
      becomes: "'=1+2",
      animal: 'F-1',
      by: 'Tester',
    });
    expect((await lines()).map(({ action }) => action)).toContain('exported');
  });

  test('by owners of this collection alone', async () => {
    const other = await app.newCollection('Elsewhere');
    expect(((await other.get(`/history?animalId=${animal}`)).body as Page<HistoryLine>).items).toEqual([]);
    const keeper = await joined((await invited('keeper')).token);
    expect((await keeper.get('/history')).status).toBe(403);
    expect((await keeper.get('/history.csv')).status).toBe(403);
  });
});
