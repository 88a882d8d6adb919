import type { TodayView } from '@karyotome/contract';
import { SEASON_RULES } from '@karyotome/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { breederOf } from './breeder.ts';
import { ago } from './days.ts';
import { fieldsOf, startTestApp, type TestApp, type TestClient } from './test-app.ts';

let app: TestApp;
let owner: TestClient;
const { created, animal, board, female } = breederOf(() => owner);

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
});
afterAll(() => app.close());

describe('a whole season, from the first introduction to numbered hatchlings', () => {
  let dam: string;
  let other: string;
  let sire: string;
  let second: string;
  let pairing: string;

  test('the board shows who is ready, and why not', async () => {
    dam = await animal('D-1', 'female', 'het clown', 1800);
    other = await animal('D-2', 'female', 'pastel', 1200, 900);
    sire = await animal('S-1', 'male', 'clown', 900);
    second = await animal('S-2', 'male', 'enchi', 850);
    await animal('H-1', 'female', 'normal', 90, 60);
    const { females, males, rules } = await board();
    // A hatchling is not on it.
    expect(females.map(({ number, readiness }) => [number, readiness.ready])).toEqual([
      ['D-1', true],
      ['D-2', false],
    ]);
    expect(females[1]!.readiness.reasons).toMatchObject([
      { code: 'under-floor', facts: { massG: 1200, floor: { of: 'females', floorG: 1500 } } },
      { code: 'too-young', facts: { fromYears: 2.5, sex: 'female' } },
    ]);
    expect(males.map(({ number }) => number)).toEqual(['S-1', 'S-2']);
    expect(rules).toEqual(SEASON_RULES);
  });

  test('the floors are the keeper’s own', async () => {
    const { rules, rulesVersion } = await board();
    const wrong = await owner.put(
      '/season/rules',
      { ...rules, femaleFloorG: 20, cutting: 'always' },
      { 'If-Match': `"${rulesVersion}"` },
    );
    expect(fieldsOf(wrong)).toEqual([
      'femaleFloorG: must be at least 300',
      'cutting: must be one of after-first-pip, unpipped-at-day, never',
    ]);
    const right = await owner.put(
      '/season/rules',
      { ...rules, femaleFloorG: 1150, femaleFromYears: 2 },
      { 'If-Match': `"${rulesVersion}"` },
    );
    expect(right.status).toBe(200);
    expect((await female('D-2')).readiness.ready).toBe(true);
    const stale = await owner.put('/season/rules', rules, { 'If-Match': `"${rulesVersion}"` });
    expect(stale.status).toBe(412);
  });

  test('a male put to a female begins her pairing; put to another he leaves her', async () => {
    pairing = (
      await created<{ pairingId: string }>('/season/introductions', { damId: dam, sireId: sire, on: ago(90) })
    ).pairingId;
    expect((await female('D-1')).pairing).toMatchObject({ id: pairing, forecast: { stage: 'together' } });
    await created('/season/introductions', { damId: other, sireId: sire, on: ago(88) });
    expect((await female('D-1')).pairing!.forecast).toMatchObject({ stage: 'apart', with: [] });
    const back = await created<{ pairingId: string }>('/season/introductions', {
      damId: dam,
      sireId: second,
      on: ago(86),
    });
    // One pairing of the season, with both males.
    expect(back.pairingId).toBe(pairing);
    const now = (await female('D-1')).pairing!;
    expect(now.sires.map(({ number, stored }) => [number, stored])).toEqual([
      ['S-1', false],
      ['S-2', false],
    ]);
    const wrong = await owner.post('/season/introductions', { damId: sire, sireId: dam, on: ago(80) });
    expect(fieldsOf(wrong)[0]).toContain('damId: must be a female');
  });

  test('locks are counted; a male of another pairing and a day before the first are refused', async () => {
    const lock = (sireId: string | null, on: string) =>
      owner.post(`/pairings/${pairing}/events`, { kind: 'lock', on, sireId });
    expect((await lock(second, ago(85))).status).toBe(201);
    expect(fieldsOf(await lock(dam, ago(85)))).toEqual(['sireId: is not a male of this pairing']);
    expect(fieldsOf(await lock(null, ago(85)))).toEqual(['sireId: must be text']);
    expect(fieldsOf(await lock(second, ago(95)))[0]).toContain('on: lies before the first introduction');
    const male = (await board()).males.find(({ number }) => number === 'S-2')!;
    expect(male).toMatchObject({
      females: 1,
      locks: 1,
      with: { id: dam, number: 'D-1' },
      lastLockOn: ago(85),
    });
  });

  test('an event on the wrong day is corrected, and what was there is kept', async () => {
    const { id } = await created(`/pairings/${pairing}/events`, { kind: 'ovulation', on: ago(60) });
    const { id: right } = await created(`/pairing-events/${id}/correct`, {
      kind: 'ovulation',
      on: ago(58),
      reason: 'wrong day',
    });
    const now = (await female('D-1')).pairing!;
    expect(now.events.filter(({ kind }) => kind === 'ovulation').map((event) => event.id)).toEqual([right]);
    expect(now.forecast.expected.map(({ what }) => what)).toEqual(['pre-lay-shed', 'eggs']);
    const kind = await owner.post(`/pairing-events/${right}/correct`, {
      kind: 'lock',
      on: ago(58),
      sireId: sire,
      reason: 'x',
    });
    expect(fieldsOf(kind)[0]).toContain('kind: must stay ovulation');
    const { id: slip } = await created(`/pairings/${pairing}/events`, { kind: 'pre-lay-shed', on: ago(3) });
    expect((await owner.post(`/pairing-events/${slip}/void`, { reason: 'another female' })).status).toBe(204);
    expect((await owner.post(`/pairing-events/${slip}/void`, { reason: 'again' })).status).toBe(409);
    expect((await female('D-1')).pairing!.forecast.stage).toBe('ovulated');
  });

  test('an introduction taken back leaves no candidate behind, and an empty pairing is gone', async () => {
    const { id: damId } = await created('/animals', { number: 'D-9', sex: 'female', genes: 'Normal' });
    const { id: sireId } = await created('/animals', { number: 'S-9', sex: 'male', genes: 'Pastel' });
    const put = (male: string, on: string) =>
      created<{ pairingId: string; eventId: string }>('/season/introductions', { damId, sireId: male, on });
    const first = await put(sireId, ago(9));
    const { id: third } = await created('/animals', { number: 'S-8', sex: 'male', genes: 'Fire' });
    const slip = await put(third, ago(8));
    expect((await owner.post(`/pairing-events/${slip.eventId}/void`, { reason: 'slip' })).status).toBe(204);
    expect((await female('D-9')).pairing!.sires.map(({ number }) => number)).toEqual(['S-9']);
    expect((await owner.post(`/pairing-events/${first.eventId}/void`, { reason: 'slip' })).status).toBe(204);
    const { females } = await board();
    expect(females.find(({ number }) => number === 'D-9')?.pairing ?? null).toBeNull();
    for (const id of [damId, sireId, third])
      expect((await owner.post(`/animals/${id}/delete`, { reason: 'x' })).status).toBe(201);
  });

  test('a pairing that is not over goes on when the season turns', async () => {
    const { id: damId } = await created('/animals', { number: 'D-7', sex: 'female', genes: 'Normal' });
    const { id: sireId } = await created('/animals', { number: 'S-7', sex: 'male', genes: 'Pastel' });
    const put = (on: string) =>
      created<{ pairingId: string; eventId: string }>('/season/introductions', { damId, sireId, on });
    const first = await put(ago(230));
    const second = await put(ago(2));
    expect(second.pairingId).toBe(first.pairingId);
    expect((await female('D-7')).pairing!.id).toBe(first.pairingId);
    for (const { eventId } of [first, second])
      expect((await owner.post(`/pairing-events/${eventId}/void`, { reason: 'x' })).status).toBe(204);
    for (const id of [damId, sireId])
      expect((await owner.post(`/animals/${id}/delete`, { reason: 'x' })).status).toBe(201);
  });

  test('after the pre-lay shed Today asks for eggs from the earliest likely day', async () => {
    await created(`/pairings/${pairing}/events`, { kind: 'pre-lay-shed', on: ago(36) });
    const { lines } = (await owner.get('/today')).body as TodayView;
    expect(lines.find(({ kind }) => kind === 'season')).toMatchObject({
      code: 'eggs-due',
      facts: { what: 'eggs', day: 36 },
      animal: { number: 'D-1' },
    });
  });
});
