import type { Page, PairingView } from '@karyotome/contract';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { ago } from './days.ts';
import { spreadsheetActs } from './spreadsheet-acts.ts';
import { createdBy, maker, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* Spreadsheets of records, parents and clutches of animals that are there. */

let app: TestApp;
let owner: TestClient;
beforeAll(async () => {
  app = await startTestApp();
});
afterAll(() => app.close());
beforeEach(async () => {
  owner = await app.newCollection('Reedwater');
});

const make = maker(() => owner, ago);
const created = createdBy(() => owner);
const { brought, planned, run, undo, animal, problemsOf, everything } = spreadsheetActs(
  () => app,
  () => owner,
);

describe('files of what was recorded', () => {
  beforeEach(async () => {
    await make.animal('A', 'female', 'Pastel');
    await make.animal('B', 'male', 'Clown');
  });

  test('weights in ounces, the month first', async () => {
    const before = await everything();
    const view = await brought('Snake,Date,Weight (oz)\nA,12/25/2025,60\nB,1/5/2026,62.5\nZ,1/5/2026,3\n');
    expect(view).toMatchObject({
      kind: 'weights',
      plan: { columns: ['number', 'on', 'weight'], dates: 'mdy', masses: 'oz' },
      good: 2,
      bad: 1,
    });
    expect(problemsOf(view)).toEqual(['4 number names no animal of the collection']);
    expect((await run(view, { leaveOutBad: true })).body).toEqual({ rows: 2 });
    expect((await animal('A')).records).toContainEqual(
      expect.objectContaining({ kind: 'weight', on: '2025-12-25', body: { massG: 1701 } }),
    );
    expect((await undo(view)).status).toBe(204);
    expect(await everything()).toEqual(before);
  });

  test('days that could be read both ways are shown as they are read', async () => {
    const view = await brought('number,date,weight\nA,03/04/2026,1800\nB,05/04/2026,1700\n');
    expect(view.dates).toEqual({ text: '03/04/2026', day: '2026-04-03', isSure: false });
    expect((await planned(view, { dates: 'mdy' })).dates).toMatchObject({ day: '2026-03-04' });
  });

  test('meals: what every row has alike is said once, and what is there already is left out', async () => {
    const file =
      'id,fed on,food,prey size,ate,notes\nA,2026-05-01,Rats,S,yes,\nA,2026-05-08,rat,sm,Refused,in shed\n';
    const view = await brought(file);
    expect(view).toMatchObject({ kind: 'meals', missing: ['state'] });
    const said = await planned(view, { fixed: [{ field: 'state', value: 'frozen-thawed' }] });
    expect(said).toMatchObject({ good: 2, bad: 0, known: 0 });
    expect((await run(said)).body).toEqual({ rows: 2 });
    const meals = (await animal('A')).records.filter(({ kind }) => kind === 'feeding');
    expect(meals).toMatchObject([
      { on: '2026-05-08', body: { species: 'rat', size: 'small', taken: false }, note: 'in shed' },
      { on: '2026-05-01', body: { species: 'rat', size: 'small', state: 'frozen-thawed', taken: true } },
    ]);
    const again = await planned(await brought(`${file}B,2026-05-01,rat,small,y,\n`), {
      fixed: [{ field: 'state', value: 'frozen-thawed' }],
    });
    expect(again).toMatchObject({ good: 3, known: 2 });
    expect((await run(again)).body).toEqual({ rows: 1 });
  });

  test('sheds, before hatching or in the future refused', async () => {
    const view = await brought(
      `animal,shed date,full shed\nA,2026-01-05,yes\nA,2026-02-20,stuck\nB,2019-01-01,y\nB,${ago(-3)},y\n`,
    );
    expect(view).toMatchObject({
      kind: 'sheds',
      plan: { fixed: [{ field: 'stage', value: 'shed' }] },
      good: 2,
    });
    expect(view.problems.map(({ line, field, code }) => [line, field, code])).toEqual([
      [4, 'on', 'before-hatching'],
      [5, 'on', 'day.future'],
    ]);
    await run(view, { leaveOutBad: true });
    const sheds = (await animal('A')).records.filter(({ kind }) => kind === 'shed');
    expect(sheds).toMatchObject([{ body: { complete: false } }, { body: { complete: true } }]);
  });

  test('parents of animals that are there; circles refused', async () => {
    await created('/animals', { number: 'C', sex: 'male', hatchedOn: ago(90) });
    const before = await everything();
    const view = await brought('number,dam,sire\nC,A,B\n');
    expect(view).toMatchObject({ kind: 'parents', good: 1 });
    await run(view);
    expect((await animal('C')).parents.map(({ role, number }) => `${role} ${number}`).toSorted()).toEqual([
      'dam A',
      'sire B',
    ]);
    expect((await undo(view)).status).toBe(204);
    expect(await everything()).toEqual(before);
    await created('/animals', { number: 'P', sex: 'female' });
    await created('/animals', { number: 'Q', sex: 'male' });
    const more = await everything();
    const circle = await brought('number,dam,sire\nP,,Q\nQ,P,\n');
    expect((await run(circle)).body).toMatchObject({
      detail: 'By these parents an animal would descend from itself: P, Q.',
    });
    expect(await everything()).toEqual(more);
  });

  test('clutches with their pairings and hatchlings', async () => {
    await make.animal('S', 'male', 'Fire');
    const before = await everything();
    const view = await brought(
      'dam,sire,paired,laid,eggs,slugs,hatched,hatchlings\nA,B + S,2025-12-01,2026-02-01,6,1,2026-03-30,"H-1, H-2, H-3"\nA,B,,2024-03-01,5,,,\n',
    );
    expect(problemsOf(view)).toEqual([]);
    expect(view).toMatchObject({ kind: 'clutches', good: 2 });
    const done = await run(view);
    expect(done.body).toEqual({ rows: 2 });
    const pairings = ((await owner.get('/pairings?limit=200')).body as Page<PairingView>).items;
    expect(pairings.map(({ season, sires, clutches }) => [season, sires.length, clutches.length])).toEqual([
      [2026, 2, 1],
      [2024, 1, 1],
    ]);
    expect(await animal('H-2')).toMatchObject({ hatchedOn: '2026-03-30', clutch: { mates: 3 } });
    expect((await undo(view)).status).toBe(204);
    expect(await everything()).toEqual(before);
  });
});
