import type { ImportSummary, Page } from '@karyotome/contract';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { TODAY } from './days.ts';
import { spreadsheetActs } from './spreadsheet-acts.ts';
import { fieldsOf, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* Spreadsheets of animals as people keep them come in: looked at, corrected, taken whole, and taken back whole. */

let app: TestApp;
let owner: TestClient;
beforeAll(async () => {
  app = await startTestApp();
});
afterAll(() => app.close());
beforeEach(async () => {
  owner = await app.newCollection('Reedwater');
});

const { upload, brought, look, planned, run, undo, animals, animal, problemsOf, everything } =
  spreadsheetActs(
    () => app,
    () => owner,
  );

describe('a file of animals', () => {
  test('names each bad row and field, and brings in nothing until it is confirmed', async () => {
    const view = await brought(
      [
        'number,sex,hatched,genes,dam,sire,weight,status',
        'A,female,2021-05-01,Cinnamon YB,,,1500,breeder',
        'B,male,2021-13-01,pastl,,,1500,breeder',
        'A,m,,,,,,',
        'C,,2022-01-01,axanthic,B,A,-3,lost',
        'D,f,,,Z,,,',
      ].join('\n'),
    );
    expect(view).toMatchObject({
      kind: 'animals',
      state: 'draft',
      fileName: 'my snakes.csv',
      good: 1,
      bad: 4,
    });
    expect(problemsOf(view)).toEqual([
      '3 hatched must be a day that exists, in the order that was chosen',
      '3 genes “pastl” is not a known gene. Did you mean Pastel?',
      '4 number stands in line 2 too',
      expect.stringContaining('5 status “lost” must be one of undecided'),
      '5 weight must be at least 1',
      '5 genes “axanthic” can mean several things: write Axanthic A, Axanthic B, Axanthic C or Axanthic D',
      '5 dam must be a female: it is male',
      '6 dam names no animal of the file or the collection',
    ]);
    expect(await animals()).toEqual([]);
    const refused = await run(view);
    expect(refused.status).toBe(422);
    expect(fieldsOf(refused)[0]).toContain('rows.3.hatched: must be a day');
    expect(await animals()).toEqual([]);
    // Rows that are right come in alone where that is asked for.
    expect((await run(view, { leaveOutBad: true })).body).toEqual({ rows: 1 });
    expect((await animals()).map(({ number }) => number)).toEqual(['A']);
  });

  test('an animal that is its own ancestor is found in the file, and a bad parent takes its young along', async () => {
    expect(problemsOf(await brought('number,sex,dam\nA,female,B\nB,female,A\n'))).toEqual([
      '2 dam makes the animal its own ancestor',
      '3 dam makes the animal its own ancestor',
    ]);
    const view = await brought('number,sex,dam,weight\nY,male,M,\nM,female,,heavy\n');
    expect(problemsOf(view)).toEqual([
      '2 dam stands in line 3, which needs a correction',
      '3 weight must be a weight',
    ]);
    expect(view.good).toBe(0);
  });

  test.each([
    ['no rows', Buffer.from('number,sex\n'), 'holds no rows'],
    ['an open quote', Buffer.from('number,sex\n"A,male\n'), 'has a quote that is never closed'],
  ])('%s is refused at the file', async (_, bytes, message) => {
    const response = await upload(bytes);
    expect(response.status).toBe(422);
    expect(fieldsOf(response)[0]).toContain(`file: ${message}`);
  });

  test('another kind of file is refused', async () => {
    expect((await owner.upload('/imports', 'application/zip', Buffer.from('PK'))).status).toBe(415);
  });

  test('children may stand above their parents; quotes, commas and line ends are kept (RFC 4180)', async () => {
    const view = await brought(
      '\ufeffNumber,Sex,Hatch date,Morph,Dam,Notes\r\nY,u,2024-05-01,,M,"says ""hi"",\r\ntwice"\r\nM,F,2020-05-01,"Cinnamon, YB",,\r\n',
    );
    expect(view).toMatchObject({ good: 2, bad: 0, separator: ',' });
    expect((await run(view)).status).toBe(201);
    expect((await animals()).map(({ number, label }) => [number, label])).toEqual([
      ['M', 'Yellow Belly Cinnamon'],
      ['Y', 'Not identified'],
    ]);
    expect(await animal('Y')).toMatchObject({
      note: expect.stringMatching(/^says "hi",\r?\ntwice$/) as string,
      parents: [{ role: 'dam', number: 'M' }],
    });
  });

  test('of a German spreadsheet: semicolons, commas in numbers, days with points, an old encoding', async () => {
    // ISO 8859-1, as spreadsheet programs in western Europe wrote CSV for long: ü is one byte.
    const view = await brought(
      Buffer.from(
        'Nr;Name;Geschlecht;Schlupf;Gewicht\nG-1;Grüne;w;03.04.2024;1.210,5\nG-2;Müsli;m;25.12.2023;84,5\nG-3;Ähre;w;01.02.2024;612,0\n',
        'latin1',
      ),
    );
    expect(view.separator).toBe(';');
    expect(view.columns[1]!.examples).toEqual(['Grüne', 'Müsli', 'Ähre']);
    // Its headings are no English ones: the person says what they are.
    expect(view.plan.columns).toEqual(['number', 'name', null, null, null]);
    expect(view.missing).toEqual(['sex']);
    const matched = await planned(view, {
      columns: ['number', 'name', 'sex', 'hatched', 'weight'],
      decimals: 'comma',
    });
    expect(matched).toMatchObject({ good: 3, bad: 0, missing: [], dates: { isSure: true } });
    expect(matched.shown[0]!.values).toMatchObject({
      name: 'Grüne',
      sex: 'female',
      hatched: '2024-04-03',
      weight: 1210.5,
    });
    await run(matched);
    // The next file of the kind is read so from the beginning.
    const next = await brought('Nr;Name;Geschlecht;Schlupf;Gewicht\nG-4;Heu;w;03.04.2025;1,5\n');
    expect(next.plan.columns).toEqual(['number', 'name', 'sex', 'hatched', 'weight']);
  });

  test('words that nobody knows are asked for once, and remembered', async () => {
    const file = (number: string) => `number,sex,status\n${number},mare,keeper here\n${number}x,Mare,sold\n`;
    const view = await brought(file('W'));
    expect(view.words).toEqual([
      { field: 'sex', word: 'mare', count: 2 },
      { field: 'status', word: 'keeper here', count: 1 },
      { field: 'status', word: 'sold', count: 1, value: 'sold' },
    ]);
    expect(view.bad).toBe(2);
    const said = await planned(view, {
      words: [
        { field: 'sex', word: 'mare', value: 'female' },
        { field: 'status', word: 'keeper here', value: 'held-back' },
      ],
    });
    expect(said).toMatchObject({ good: 2, bad: 0 });
    await run(said);
    expect((await animals()).map(({ sex, status }) => [sex, status])).toEqual([
      ['female', 'held-back'],
      ['female', 'sold'],
    ]);
    expect(await brought(file('V'))).toMatchObject({ good: 2, bad: 0 });
    // Another collection has not said so.
    owner = await app.newCollection('Elsewhere');
    expect(await brought(file('W'))).toMatchObject({ good: 0, bad: 2 });
  });

  test('a plan that names no field, or a field twice, is refused by its name', async () => {
    const view = await brought('number,sex\nA,male\n');
    const twice = await owner.put(`/imports/${view.id}/plan`, {
      ...view.plan,
      columns: ['number', 'number'],
    });
    expect(fieldsOf(twice)).toEqual(['columns.1: names the same one twice']);
    // Columns of another kind of table are proposed anew.
    const changed = await planned(view, { kind: 'weights' });
    expect(changed.plan.columns).toEqual(['number', null]);
    expect(changed.missing).toEqual(['on', 'weight']);
    expect((await run(changed)).status).toBe(422);
  });

  test('is taken back whole, numbers included, unless something was recorded since', async () => {
    const before = await everything();
    const file = 'number,sex,genes,weight,dam\nA,female,Pastel,900,\nB,male,Clown,80,A\n';
    const view = await brought(file);
    await run(view);
    expect(await look(view.id)).toMatchObject({ status: 409 });
    expect(((await owner.get('/imports')).body as Page<ImportSummary>).items).toMatchObject([
      { id: view.id, kind: 'animals', state: 'done', rows: 2, by: 'Tester' },
    ]);
    const { id } = await animal('A');
    const weighed = (await owner.post(`/animals/${id}/records`, {
      kind: 'weight',
      on: TODAY,
      body: { massG: 950 },
    })) as { body: { id: string } };
    expect((await undo(view)).body).toMatchObject({
      detail: expect.stringContaining('Something was recorded since of A') as string,
    });
    await app.database.sequelize.query(`delete from records where id = '${weighed.body.id}'`);
    expect((await undo(view)).status).toBe(204);
    expect(await everything()).toEqual(before);
    expect((await undo(view)).status).toBe(409);
    expect((await run(await brought(file))).status).toBe(201);
  });
});

test('drafts are of their collection alone, and can be discarded', async () => {
  const view = await brought('number,sex\nA,male\n');
  const stranger = await app.newCollection('Elsewhere');
  for (const answer of [
    await stranger.get(`/imports/${view.id}`),
    await stranger.post(`/imports/${view.id}/run`, {}),
    await stranger.post(`/imports/${view.id}/undo`),
    await stranger.delete(`/imports/${view.id}`),
  ])
    expect(answer.status).toBe(404);
  expect((await owner.delete(`/imports/${view.id}`)).status).toBe(204);
  expect((await owner.get(`/imports/${view.id}`)).status).toBe(404);
});
