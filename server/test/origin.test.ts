import type { AnimalView, FeedingNightLine, TodayView } from '@karyotome/contract';
import { addDays } from '@karyotome/core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { ago, TODAY } from './days.ts';
import { peopleActs } from './people-acts.ts';
import { keeperOf, meal, refusedFields, startWithRacks } from './room-of-racks.ts';
import type { TestApp, TestClient } from './test-app.ts';
import { allOf, roundOf } from './wholes.ts';

/* Where animals come from, and breeding loans. */

let app: TestApp;
let owner: TestClient;
let tubs: string[];
const { created, read, record, animal } = keeperOf(() => owner);
const { invited, joined } = peopleActs(
  () => app,
  () => owner,
);
const view = (id: string) => read<AnimalView>(`/animals/${id}`);

beforeAll(async () => {
  ({ app, tubs } = await startWithRacks());
  owner = app.owner;
});
afterAll(() => app.close());

test('a newcomer is entered with whom it came from and its quarantine', async () => {
  const origin = {
    from: 'Oak Hollow',
    how: 'bought',
    on: ago(4),
    price: 450,
    currency: 'EUR',
    papers: 'receipt',
  };
  const body = { number: 'N-1', sex: 'male', genes: 'pastel', hatchedOn: ago(300), tubId: tubs[0] };
  const id = await created('/animals', { ...body, origin, quarantineDays: 30 });
  const { records, care } = await view(id);
  const { on, ...acquired } = origin;
  expect(records.find(({ kind }) => kind === 'acquisition')).toMatchObject({ on, body: acquired });
  expect(care.health.quarantine).toMatchObject({ since: ago(4), until: addDays(ago(4), 30), reason: 'new' });
  const refused = await owner.post('/animals', {
    ...body,
    number: 'N-2',
    origin: { ...origin, from: '', currency: 'gold' },
    quarantineDays: 0,
  });
  expect(refusedFields(refused).toSorted()).toEqual(['origin.currency', 'origin.from', 'quarantineDays']);
});

test('what was paid is for those who sell', async () => {
  const id = (await read<{ items: { id: string; number: string }[] }>('/animals')).items[0]!.id;
  const helper = await joined((await invited('helper')).token);
  const { records } = (await helper.get(`/animals/${id}`)).body as AnimalView;
  expect(records.find(({ kind }) => kind === 'acquisition')!.body).toMatchObject({
    from: 'Oak Hollow',
    price: null,
    currency: null,
  });
});

test('an animal that is lent to somebody has no tasks and no round until it is back', async () => {
  const id = await animal('L-1', tubs[1]!);
  await record(id, 'feeding', ago(20), meal);
  const codes = async (): Promise<string[]> =>
    (await read<TodayView>('/today?limit=200')).lines
      .filter((line) => line.animal?.number === 'L-1')
      .map(({ code }) => code);
  const inRound = async (): Promise<boolean> =>
    (await roundOf((path) => owner.get(path))).racks.some(({ tubs: own }) =>
      own.some(({ animals }) => animals.some(({ number }) => number === 'L-1')),
    );
  const eats = async (): Promise<boolean> =>
    (await allOf<FeedingNightLine>((path) => owner.get(path), '/feeding/night')).some(
      ({ number }) => number === 'L-1',
    );
  expect(await codes()).toContain('meal-due');
  expect([await inRound(), await eats()]).toEqual([true, true]);

  const early = { kind: 'loan-end', on: TODAY, body: {} };
  expect(refusedFields(await owner.post(`/animals/${id}/records`, early))).toEqual(['on']);
  const loan = { direction: 'out', partner: 'Reed Bank', until: TODAY, terms: 'first pick' };
  const sameDay = { kind: 'loan', on: TODAY, body: loan };
  expect(refusedFields(await owner.post(`/animals/${id}/records`, sameDay))).toEqual(['body.until']);
  const loanId = await record(id, 'loan', ago(10), loan);
  expect(await codes()).toEqual(['loan-over']);
  expect([await inRound(), await eats()]).toEqual([false, false]);
  expect((await view(id)).care.loan).toMatchObject({ id: loanId, partner: 'Reed Bank' });

  await record(id, 'loan-end', TODAY, { remark: 'well and fat' });
  expect(await codes()).toContain('meal-due');
  expect([await inRound(), await eats()]).toEqual([true, true]);
  expect((await view(id)).care.loan).toBeNull();
});

test('an animal on loan from somebody is cared for as every other one', async () => {
  const id = await animal('L-2', tubs[2]!);
  await record(id, 'feeding', ago(20), meal);
  await record(id, 'loan', ago(10), { direction: 'in', partner: 'Reed Bank', until: null });
  const lines = (await read<TodayView>('/today?limit=200')).lines.filter(
    (line) => line.animal?.number === 'L-2',
  );
  expect(lines.map(({ code }) => code)).toContain('meal-due');
});
