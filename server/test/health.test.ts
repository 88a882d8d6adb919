import type { AnimalView, MiteWatchView, Page, RoundResult, TodayLine, TodayView } from '@karyotome/contract';
import { addDays } from '@karyotome/core';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { ago, TODAY } from './days.ts';
import { keeperOf, refusedFields, startWithRacks } from './room-of-racks.ts';
import type { TestApp, TestClient } from './test-app.ts';
import { roundOf } from './wholes.ts';

let app: TestApp;
let owner: TestClient;
let tubs: string[];
const { read, record, animal } = keeperOf(() => owner);
const sent = (id: string, kind: string, on: string, body: object) =>
  owner.post(`/animals/${id}/records`, { kind, on, body });
const view = (id: string) => read<AnimalView>(`/animals/${id}`);
const linesOf = async (number: string): Promise<TodayLine[]> =>
  (await read<TodayView>('/today?limit=200')).lines.filter((line) => line.animal?.number === number);
const codesOf = async (number: string): Promise<string[]> => (await linesOf(number)).map(({ code }) => code);

beforeAll(async () => {
  ({ app, tubs } = await startWithRacks());
  owner = app.owner;
});
afterAll(() => app.close());

const ORDERED = {
  what: 'drops',
  dose: '1 drop',
  orderedBy: 'Dr. Vold',
  from: ago(3),
  everyDays: 1,
  timesADay: 1,
  doses: 3,
};

describe('a treatment', () => {
  let id: string;
  let treatment: string;
  let courseId: string;
  const dose = (ordinal: number, on: string, isGiven = true) =>
    sent(id, 'dose', on, { courseId, ordinal, isGiven });
  beforeAll(async () => {
    id = await animal('T-1', null);
    treatment = await record(id, 'treatment', ago(3), { ...ORDERED, weighEveryDays: 7 });
    courseId = (await view(id)).care.health.courses[0]!.courseId;
  });

  test('stands on Today, dose after dose, and brings weighings closer', async () => {
    const [line] = (await linesOf('T-1')).filter(({ code }) => code === 'dose-due');
    expect(line).toMatchObject({ kind: 'dose', dueOn: ago(3), facts: { ordinal: 1, of: 3, isLate: true } });
    // Weighed three weeks ago; of this weight once a month without a treatment.
    expect(await codesOf('T-1')).toContain('weighing-due');
    expect((await dose(1, ago(2))).status).toBe(201);
    expect((await view(id)).care.health.courses[0]).toMatchObject({
      given: 1,
      next: { ordinal: 2, dueOn: ago(1) },
    });
  });

  test('a dose is recorded once: two at once, and one of them is told', async () => {
    const answers = await Promise.all([dose(2, TODAY), dose(2, TODAY)]);
    expect(answers.map(({ status }) => status).toSorted()).toEqual([201, 409]);
    expect(answers.find(({ status }) => status === 409)!.body).toMatchObject({
      detail: expect.stringContaining('Dose 2 of T-1') as string,
    });
    expect((await view(id)).care.health.courses[0]).toMatchObject({ given: 2, next: { ordinal: 3 } });
  });

  test('what cannot be is refused, field by field', async () => {
    expect(refusedFields(await dose(4, TODAY))).toEqual(['body.ordinal']);
    expect(refusedFields(await dose(3, ago(4)))).toEqual(['on']);
    const unknown = { courseId: randomUUID(), ordinal: 1, isGiven: true };
    expect(refusedFields(await sent(id, 'dose', TODAY, unknown))).toEqual(['body.courseId']);
    const other = await animal('T-2', null);
    expect(refusedFields(await sent(other, 'dose', TODAY, { ...unknown, courseId }))).toEqual([
      'body.courseId',
    ]);
    expect(refusedFields(await sent(id, 'treatment', TODAY, { ...ORDERED, everyDays: 0 }))).toEqual([
      'body.everyDays',
    ]);
  });

  test('is not voided while its doses stand, and keeps them where it is corrected', async () => {
    const refused = await owner.post(`/records/${treatment}/void`, { reason: 'slip' });
    expect(refused.status).toBe(409);
    const corrected = await owner.post(`/records/${treatment}/correct`, {
      kind: 'treatment',
      on: ago(3),
      body: { ...ORDERED, dose: '2 drops', doses: 5 },
      reason: 'read wrongly',
    });
    expect(corrected.status, JSON.stringify(corrected.body)).toBe(201);
    expect((await view(id)).care.health.courses).toMatchObject([
      { courseId, dose: '2 drops', given: 2, next: { ordinal: 3 } },
    ]);
  });

  test('once ended it asks for nothing, and takes no dose', async () => {
    await record(id, 'treatment-end', TODAY, { courseId, reason: 'healed, says Dr. Vold' });
    expect((await view(id)).care.health.courses).toEqual([]);
    expect(await codesOf('T-1')).not.toContain('dose-due');
    expect((await dose(3, TODAY)).status).toBe(409);
    expect((await sent(id, 'treatment-end', TODAY, { courseId, reason: 'again' })).status).toBe(409);
  });
});

describe('quarantine', () => {
  test('is a round of its own, the last, until it ends', async () => {
    const [apart, other] = [await animal('Q-1', tubs[0]!), await animal('Q-2', tubs[1]!)];
    const body = { until: addDays(TODAY, 30), reason: 'new' };
    await record(apart, 'quarantine', ago(8), body);
    const racks = async () => {
      const round = await roundOf((path) => owner.get(path));
      return round.racks.map(({ id, name, tubs: own }) => [
        name ?? id,
        own.flatMap(({ animals, rack }) => animals.map(({ number }) => `${rack ?? ''} ${number}`.trim())),
      ]);
    };
    expect(await racks()).toEqual([
      ['Small', ['Q-2']],
      ['without-tub', ['T-1', 'T-2']],
      ['in-quarantine', ['Small Q-1']],
    ]);
    expect(await codesOf('Q-1')).toContain('quarantine-check-due');
    await record(apart, 'health-check', TODAY, { signs: [] });
    expect(await codesOf('Q-1')).not.toContain('quarantine-check-due');
    await record(apart, 'quarantine', TODAY, { until: null, reason: 'new' });
    expect((await racks()).slice(0, 1)).toEqual([['Small', ['Q-1', 'Q-2']]]);
    expect(refusedFields(await sent(other, 'quarantine', TODAY, { ...body, until: TODAY }))).toEqual([
      'body.until',
    ]);
  });
});

describe('mites', () => {
  const watches = async (): Promise<MiteWatchView[]> =>
    (await read<Page<MiteWatchView>>('/mite-watches')).items;

  test('are a matter of the whole rack, wherever the animal is put afterwards', async () => {
    const found = await animal('M-1', tubs[6]!);
    const mates = [await animal('M-2', tubs[7]!), await animal('M-3', tubs[8]!)];
    expect(await watches()).toEqual([]);
    await record(found, 'health-check', ago(1), { signs: ['mites'] });
    await record(found, 'move', TODAY, { toTubId: null, reason: 'kept apart' });
    const line = (await read<TodayView>('/today?limit=200')).lines.find(
      ({ code }) => code === 'mite-check-due',
    );
    expect(line).toMatchObject({ rack: { name: 'Large' }, facts: { toCheck: 2, of: 2 } });
    expect(await watches()).toMatchObject([
      {
        name: 'Large',
        lastSeenOn: ago(1),
        animals: [
          { number: 'M-2', isDue: true, checkedOn: null },
          { number: 'M-3', isDue: true },
        ],
      },
    ]);
    // Looked through in a round: each is an entry of its own.
    const entries = mates.map((animalId, i) => ({
      key: randomUUID(),
      animalId,
      record: { kind: 'health-check', on: TODAY, body: { signs: i === 0 ? [] : ['mites'] } },
    }));
    const answer = await owner.post('/rounds/entries', { entries });
    expect((answer.body as { results: RoundResult[] }).results.map(({ status }) => status)).toEqual([
      'kept',
      'kept',
    ]);
    expect(await watches()).toMatchObject([{ lastSeenOn: TODAY, toCheck: [], dueOn: null }]);
  });

  test('a sighting that was a slip watches nothing', async () => {
    for (const { id, kind, body, voided } of (await view((await linesOf('M-3'))[0]!.animal!.id)).records)
      if (kind === 'health-check' && body.signs.includes('mites') && !voided)
        await owner.post(`/records/${id}/void`, { reason: 'a speck of dust' });
    expect((await watches())[0]!.lastSeenOn).toBe(ago(1));
  });
});

test('a post-mortem is of an animal that died, and a visit arranges the next one later', async () => {
  const id = await animal('V-1', null);
  const examined = { by: 'Dr. Vold', words: 'No cause found.' };
  expect(refusedFields(await sent(id, 'post-mortem', TODAY, examined))).toEqual(['kind']);
  const visit = { veterinarian: 'Dr. Vold', words: 'Come back in a week.', nextOn: ago(1) };
  expect(refusedFields(await sent(id, 'vet-visit', TODAY, visit))).toEqual(['body.nextOn']);
  await record(id, 'vet-visit', ago(2), visit);
  expect(await codesOf('V-1')).toContain('visit-due');
  const { version } = await view(id);
  await owner.patch(`/animals/${id}`, { status: 'died' }, { 'If-Match': `"${version}"` });
  await record(id, 'post-mortem', TODAY, examined);
  expect((await view(id)).records[0]).toMatchObject({ kind: 'post-mortem', body: examined });
});
