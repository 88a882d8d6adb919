import type { AnimalView, FeedingNightLine, FeedingView, RoundResult } from '@karyotome/contract';
import { FEEDING_RULES } from '@karyotome/core';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { keeperOf, meal, refusedFields, startWithRacks } from './room-of-racks.ts';
import { ago, TODAY } from './days.ts';
import { type TestApp, type TestClient } from './test-app.ts';
import { allOf, roundOf } from './wholes.ts';

let app: TestApp;
let owner: TestClient;
let tubs: string[];
const { created, read, record, animal, today, version } = keeperOf(() => owner);
const send = async (entries: object[]): Promise<RoundResult[]> => {
  const response = await owner.post('/rounds/entries', { entries });
  expect(response.status, JSON.stringify(response.body)).toBe(200);
  return (response.body as { results: RoundResult[] }).results;
};

beforeAll(async () => {
  ({ app, tubs } = await startWithRacks());
  owner = app.owner;
});
afterAll(() => app.close());

describe('a round', () => {
  let id: string;
  beforeAll(async () => {
    id = await animal('R-1', tubs[0]!);
    await record(id, 'feeding', ago(10), meal);
  });

  test('shows tubs in walking order with what is due, and what a weighing should show', async () => {
    const round = await roundOf((path) => owner.get(path));
    expect(round.racks.map(({ name }) => name)).toEqual(['Small']);
    const [seen] = round.racks[0]!.tubs[0]!.animals;
    expect(seen).toMatchObject({ number: 'R-1', meal: { verdict: 'due', prey: 'rat pup' }, done: [] });
    expect(seen!.expected!.lowG).toBeLessThan(200);
    expect(seen!.expected!.highG).toBeGreaterThan(200);
  });

  test('an entry counts once however often it is sent, and the one that is wrong is refused alone', async () => {
    const good = { key: randomUUID(), animalId: id, record: { kind: 'feeding', on: TODAY, body: meal } };
    const bad = {
      key: randomUUID(),
      animalId: id,
      record: { kind: 'weight', on: TODAY, body: { massG: -3 } },
    };
    const foreign = {
      key: randomUUID(),
      animalId: randomUUID(),
      record: { kind: 'care', on: TODAY, body: { act: 'cleaned' } },
    };
    const clean = {
      key: randomUUID(),
      animalId: id,
      record: { kind: 'care', on: TODAY, body: { act: 'cleaned' } },
    };
    const first = await send([good, bad, foreign, clean]);
    expect(first.map(({ status }) => status)).toEqual(['kept', 'refused', 'refused', 'kept']);
    expect(first[1]).toMatchObject({ problem: { errors: [{ field: 'record.body.massG' }] } });
    const again = await send([good, clean]);
    expect(again).toEqual([first[0], first[3]]);
    const { records } = await read<AnimalView>(`/animals/${id}`);
    expect(records.filter(({ kind, on }) => kind === 'feeding' && on === TODAY)).toHaveLength(1);
    const seen = (await roundOf((path) => owner.get(path))).racks[0]!.tubs[0]!.animals[0]!;
    expect(seen.done).toMatchObject([
      { kind: 'feeding', body: { ...meal, taken: true } },
      { kind: 'care', body: { act: 'cleaned' } },
    ]);
    expect(seen.meal!.verdict).toBe('later');
    expect(seen.flags).toContainEqual({ code: 'digesting', facts: { daysSinceMeal: 0 } });
  });

  test('many at once are taken in their order: one that is wrong, an undo among them', async () => {
    const entry = (animalId: string, kind: string, body: object) => ({
      key: randomUUID(),
      animalId,
      record: { kind, on: ago(1), body },
    });
    const weight = (massG: number) => entry(id, 'weight', { massG });
    const first = weight(201);
    const before = { ...weight(202), record: { kind: 'weight', on: ago(5000), body: { massG: 202 } } };
    const second = weight(203);
    const sent = [
      first,
      entry(randomUUID(), 'care', { act: 'cleaned' }),
      before,
      second,
      { key: randomUUID(), undo: second.key },
      entry(id, 'note', {}),
      weight(204),
    ];
    const results = await send(sent);
    expect(results.map(({ status }) => status)).toEqual([
      'kept',
      'refused',
      'refused',
      'kept',
      'taken-back',
      'refused',
      'kept',
    ]);
    // The second names the first as like it, and not the other way round; the last does not name what was taken back.
    const alike = results.map((one) =>
      one.status === 'kept' ? one.alike.map(({ record: r }) => r.body) : null,
    );
    expect(alike[0]).toEqual([]);
    expect(alike[3]).toEqual([{ massG: 201 }]);
    expect(alike[6]).toEqual([{ massG: 201 }]);
    // Sent again from its beginning, each is answered as it was.
    const again = await send(sent);
    expect(again.map(({ status }) => status)).toEqual(results.map(({ status }) => status));
    const { records } = await read<AnimalView>(`/animals/${id}`);
    const weights = records.filter(({ kind, on }) => kind === 'weight' && on === ago(1));
    expect(weights.map(({ body, voided }) => [(body as { massG: number }).massG, voided === null])).toEqual([
      [204, true],
      [203, false],
      [201, true],
    ]);
    for (const { id: one, voided } of weights)
      if (!voided) await owner.post(`/records/${one}/void`, { reason: 'test' });
  });

  test('what a second hand logs of the same is kept, and said', async () => {
    const [result] = await send([
      {
        key: randomUUID(),
        animalId: id,
        record: { kind: 'feeding', on: TODAY, body: { ...meal, taken: false } },
      },
    ]);
    expect(result).toMatchObject({
      status: 'kept',
      alike: [{ record: { kind: 'feeding', body: { ...meal, taken: true } }, author: 'Tester' }],
    });
  });

  test('an entry is taken back by its key, also twice, also one that never came', async () => {
    const key = randomUUID();
    await send([{ key, animalId: id, record: { kind: 'care', on: TODAY, body: { act: 'pushing' } } }]);
    const undo = { key: randomUUID(), undo: key };
    expect(await send([undo])).toEqual([{ key: undo.key, status: 'taken-back' }]);
    expect(await send([undo])).toEqual([{ key: undo.key, status: 'taken-back' }]);
    const { records } = await read<AnimalView>(`/animals/${id}`);
    expect(records.filter(({ body }) => (body as { act?: string }).act === 'pushing')).toMatchObject([
      { voided: { reason: 'Undone' } },
    ]);
    expect((await send([{ key: randomUUID(), undo: randomUUID() }]))[0]!.status).toBe('taken-back');
  });

  test('a key with another entry is refused; what is wrong with one entry is its own', async () => {
    const key = randomUUID();
    const entry = (act: string) => ({
      key,
      animalId: id,
      record: { kind: 'care', on: TODAY, body: { act } },
    });
    await send([entry('cleaned')]);
    expect((await send([entry('soaked')]))[0]).toMatchObject({ status: 'refused' });
    expect(refusedFields(await owner.post('/rounds/entries', { entries: [] }))).toEqual(['entries']);
    const good = { ...entry('cleaned'), key: randomUUID() };
    const mixed = await send([
      { key: 'short' },
      { ...good, key: `${randomUUID()}\u0000` },
      null as never,
      good,
    ]);
    expect(mixed.map(({ status }) => status)).toEqual(['refused', 'refused', 'refused', 'kept']);
    const [both] = await send([{ ...entry('cleaned'), key: randomUUID(), undo: randomUUID() }]);
    expect(both).toMatchObject({ status: 'refused' });
  });

  test('somebody who only looks may not send any', async () => {
    const viewer = await app.newCollection('Looked at', 'viewer');
    const response = await viewer.post('/rounds/entries', { entries: [{ key: randomUUID() }] });
    expect(response.status).toBe(403);
  });
});

describe('feeding', () => {
  test('rules are the keeper’s: a class of its own changes what is due, and an older version is refused', async () => {
    const id = await animal('F-1', tubs[1]!, 200);
    await record(id, 'feeding', ago(5), meal);
    const due = async () =>
      (await today()).lines.some((line) => line.animal?.number === 'F-1' && line.kind === 'meal');
    expect(await due()).toBe(false);
    const feeding = {
      ...FEEDING_RULES,
      classes: [{ belowG: null, share: 0.1, everyDays: 5 }],
    };
    const order = { leadDays: 10, service: 0.9 };
    const old = await version();
    expect((await owner.put('/feeding/rules', { feeding, order }, { 'If-Match': old })).status).toBe(200);
    expect(await due()).toBe(true);
    expect((await owner.put('/feeding/rules', { feeding, order }, { 'If-Match': old })).status).toBe(412);
    const wrong = { feeding: { ...feeding, classes: [{ belowG: 300, share: 0.1, everyDays: 5 }] }, order };
    expect(refusedFields(await owner.put('/feeding/rules', wrong, { 'If-Match': await version() }))).toEqual([
      'feeding.classes',
    ]);
    await owner.put('/feeding/rules', { feeding: FEEDING_RULES, order }, { 'If-Match': await version() });
  });

  test('its own way, a regurgitation, and being passed over change the meal', async () => {
    const id = await animal('F-2', tubs[2]!, 200);
    await record(id, 'feeding', ago(8), meal);
    const mealOf = async () => (await read<AnimalView>(`/animals/${id}`)).nextMeal;
    expect(await mealOf()).toMatchObject({ verdict: 'due', prey: 'rat pup' });
    await record(id, 'own-way', ago(1), { species: 'mouse', everyDays: 6 });
    expect(await mealOf()).toMatchObject({ prey: 'mouse adult', everyDays: 6 });
    const passed = await record(id, 'care', TODAY, { act: 'not-offered' });
    expect(await mealOf()).toMatchObject({ verdict: 'later' });
    await owner.post(`/records/${passed}/void`, { reason: 'Undone' });
    await record(id, 'care', ago(2), { act: 'regurgitated' });
    expect(await mealOf()).toMatchObject({ verdict: 'resting' });
    const { thaw } = await read<FeedingView>('/feeding');
    const night = await allOf<FeedingNightLine>((path) => owner.get(path), '/feeding/night');
    expect(night.find(({ number }) => number === 'F-2')!.meal.notes).toMatchObject([
      { code: 'smaller-after-regurgitation' },
      { code: 'resting-after-regurgitation', facts: { on: ago(2) } },
    ]);
    expect(thaw.every(({ prey }) => prey !== 'mouse adult')).toBe(true);
  });

  test('a refusing one walks down its plan, and one touch carries the step', async () => {
    const id = await animal('F-3', tubs[3]!, 200);
    for (const days of [40, 33, 26, 19, 12])
      await record(id, 'feeding', ago(days), { ...meal, taken: days === 40 });
    const line = (await today()).lines.find((one) => one.animal?.number === 'F-3' && one.kind === 'meal')!;
    expect(line.preset).toMatchObject({ step: 'warmer' });
    expect(line).toMatchObject({
      code: 'meal-due',
      facts: { trying: { isPlanned: false, name: 'Prey warmer, warmest at the head' } },
    });
    await record(id, 'feeding', TODAY, { ...meal, taken: true, step: 'warmer', light: 'dark' });
    const { care } = await read<AnimalView>(`/animals/${id}`);
    expect(care.worked.find(({ by, value }) => by === 'step' && value === 'warmer')).toMatchObject({
      count: 1,
      of: 1,
    });
    expect(care.worked.find(({ by }) => by === 'light')).toMatchObject({ value: 'dark' });
  });

  test('plans: a built-in one is changed and given back, an own one is added, used and removed', async () => {
    const plans = async () => (await read<FeedingView>('/feeding')).plans;
    const [live] = await plans();
    const { name, start, steps } = live!;
    const input = { name, start: { ...start, meals: 2 }, steps: steps.slice(0, 3) };
    const put = (key: string, body: object, v: number) =>
      owner.put(`/feeding/plans/${key}`, body, { 'If-Match': `"${v}"` });
    expect((await put(live!.id, input, 0)).body).toMatchObject({ version: 1 });
    expect((await put(live!.id, input, 0)).status).toBe(412);
    expect((await plans())[0]).toMatchObject({ changed: true, start: { meals: 2 } });
    expect(refusedFields(await put(live!.id, { ...input, steps: [] }, 1))).toEqual(['steps']);
    const own = await created('/feeding/plans', { ...input, name: 'Mine' });
    expect(refusedFields(await owner.post('/feeding/plans', { ...input, name: 'Mine' }))).toEqual(['name']);
    expect((await plans()).map((plan) => plan.name)).toContain('Mine');
    const id = await animal('F-4', null);
    await record(id, 'own-way', TODAY, { planId: own });
    expect((await read<AnimalView>(`/animals/${id}`)).care.plan.name).toBe('Mine');
    const remove = (key: string, v: number) =>
      owner.delete(`/feeding/plans/${key}`, { 'If-Match': `"${v}"` });
    expect((await remove(own, 9)).status).toBe(412);
    expect((await remove(own, 1)).status).toBe(204);
    // Whoever was on it is on the usual one again.
    expect((await read<AnimalView>(`/animals/${id}`)).care.plan.id).toBe('frozen-first');
    expect((await remove(live!.id, 1)).status).toBe(204);
    expect((await plans())[0]).toMatchObject({ changed: false, start: { meals: 3 } });
  });

  test('the freezer: booked in, thawed, counted, taken back, and an order asked for in time', async () => {
    const line = async () =>
      (await read<FeedingView>('/feeding')).freezer.find(({ prey }) => prey === 'rat pup');
    expect(await line()).toBeUndefined();
    const receipt = await created('/stock', { prey: 'rat pup', kind: 'receipt', quantity: 40, on: ago(30) });
    const before = (await line())!;
    // All thawed rat pups since the receipt are gone, those of the tests before included.
    expect(before.inStock).toBeLessThan(40);
    await created('/stock', { prey: 'rat pup', kind: 'count', quantity: 12, on: TODAY });
    expect((await line())!.inStock).toBe(12);
    expect(
      (await today()).lines.some((one) => one.code === 'prey-order-due' && one.facts.prey === 'rat pup'),
    ).toBe((await line())!.order);
    expect((await owner.post(`/stock/${receipt}/void`, { reason: 'Undone' })).status).toBe(204);
    expect((await owner.post(`/stock/${receipt}/void`, { reason: 'Undone' })).status).toBe(409);
    const wrong = { prey: 'whale calf', kind: 'receipt', quantity: 0, on: ago(-9) };
    expect(refusedFields(await owner.post('/stock', wrong)).toSorted()).toEqual(['on', 'prey', 'quantity']);
  });
});
