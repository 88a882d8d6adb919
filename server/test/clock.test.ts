import type { SessionView, TodayView } from '@karyotome/contract';
import { addDays } from '@karyotome/core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { setClockAhead } from '../src/clock.ts';
import { createdBy, fieldsOf, startTestApp, type TestApp, type TestClient } from './test-app.ts';
import { ago, TODAY } from './days.ts';

/* A server whose clock is put ahead, to be tried out on a later day: its days are later ones throughout. */

const AHEAD = 40;
let app: TestApp;
let owner: TestClient;
beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
});
afterAll(async () => {
  setClockAhead(0);
  await app.close();
});

test('what is recorded, due, published and signed is dated by the clock', async () => {
  const { id } = await createdBy(() => owner)('/animals', {
    number: 'C-1',
    sex: 'female',
    hatchedOn: ago(90),
    genes: 'Pastel',
  });
  setClockAhead(AHEAD);
  const later = addDays(TODAY, AHEAD);
  expect((await owner.get('/session')).body as SessionView).toMatchObject({ daysAhead: AHEAD });
  expect(((await owner.get('/today')).body as TodayView).today).toBe(later);
  const weigh = (on: string) =>
    owner.post(`/animals/${id}/records`, { kind: 'weight', on, body: { massG: 80 } });
  expect((await weigh(later)).status).toBe(201);
  expect(fieldsOf(await weigh(addDays(later, 2)))).toEqual(['on: lies in the future']);
  const { slug } = (await owner.put(`/animals/${id}/publication`, {})).body as { slug: string };
  const { body } = await app.anonymous.get(`/public/${slug}/statements/1`);
  const signed = body as { validFrom: string; credentialSubject: { asOf: string } };
  expect(signed.credentialSubject.asOf).toBe(later);
  expect(Math.abs(Date.parse(signed.validFrom) - Date.parse(`${later}T12:00:00Z`))).toBeLessThan(
    86_400_000 * 1.1,
  );
});
