import type { MemberView, RoundResult, SessionView } from '@karyotome/contract';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { ago, TODAY } from './days.ts';
import { peopleActs } from './people-acts.ts';
import { fieldsOf, maker, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* What each set of permissions lets somebody do, and what it does not. */

let app: TestApp;
let owner: TestClient;
let animal: string;
beforeAll(async () => {
  app = await startTestApp();
});
beforeEach(async () => {
  owner = await app.newCollection('Reedwater');
  animal = await maker(() => owner, ago).animal('F-1', 'female', 'Pastel');
  await forgetFailures();
});
afterAll(() => app.close());

const { items, invited, joined, forgetFailures } = peopleActs(
  () => app,
  () => owner,
);
const somebody = async (role: string, grants?: string[]) =>
  joined((await invited(role, grants ? { grants } : {})).token);

const weight = () => ({ kind: 'weight', on: TODAY, body: { massG: 1500 } });
const identification = () => ({
  kind: 'identification',
  on: TODAY,
  body: { genes: 'Pastel Clown', sure: 'certain', by: 'me' },
});
const move = () => ({ kind: 'move', on: TODAY, body: { toTubId: null, reason: 'sold' } });

describe('a helper', () => {
  test('records daily work, and neither identifies, moves, breeds nor sells', async () => {
    const helper = await somebody('helper');
    const records = `/animals/${animal}/records`;
    expect((await helper.post(records, weight())).status).toBe(201);
    const refused = [
      await helper.post(records, identification()),
      await helper.post(records, {
        kind: 'sex',
        on: TODAY,
        body: { sex: 'female', method: 'probed', sure: 'certain', by: 'me' },
      }),
      await helper.post(records, move()),
      await helper.post('/animals', { number: 'P-1', sex: 'female' }),
      await helper.post('/racks', {}),
      await helper.get('/persons'),
      await helper.get('/members'),
      await helper.put('/settings', {}),
      await helper.post(`/animals/${animal}/delete`, { reason: 'Mine' }),
    ];
    expect(refused.map(({ status }) => status)).toEqual(refused.map(() => 403));
    expect(refused[0]!.body).toMatchObject({ detail: expect.stringContaining('breed and identify') });
    // Nothing of what was refused was written.
    const { body } = await owner.get(`/animals/${animal}`);
    expect((body as { label: string }).label).toBe('Pastel');
  });

  test('cannot take back or correct what takes another permission', async () => {
    const { body } = await owner.post(`/animals/${animal}/records`, identification());
    const { id } = body as { id: string };
    const helper = await somebody('helper');
    const reason = 'A slip';
    expect((await helper.post(`/records/${id}/void`, { reason })).status).toBe(403);
    expect((await helper.post(`/records/${id}/correct`, { reason, ...identification() })).status).toBe(403);
    expect((await helper.post('/records/void', { ids: [id] })).status).toBe(403);
    expect((await owner.post(`/records/${id}/void`, { reason })).status).toBeLessThan(300);
  });

  test('on a round, only the entry that they may not make is refused', async () => {
    const helper = await somebody('helper');
    const entries = [weight(), move()].map((record, i) => ({
      key: `round-entry-${i}`,
      animalId: animal,
      record,
    }));
    const { body } = await helper.post('/rounds/entries', { entries });
    expect((body as { results: RoundResult[] }).results.map(({ status }) => status)).toEqual([
      'kept',
      'refused',
    ]);
  });
});

describe('a set of one’s own', () => {
  test('allows what is in it, and says so', async () => {
    const breeder = await somebody('custom', ['view', 'record', 'breed']);
    expect(breeder.session).toMatchObject({ role: 'custom', permissions: ['view', 'record', 'breed'] });
    expect((await breeder.post(`/animals/${animal}/records`, identification())).status).toBe(201);
    expect((await breeder.post(`/animals/${animal}/records`, move())).status).toBe(403);
    expect((await breeder.get('/sales')).status).toBe(403);
    const [member] = (await items<MemberView>(owner, '/members')).filter(({ role }) => role === 'custom');
    expect(member!.grants).toEqual(['view', 'record', 'breed']);
    const choice = { role: 'custom', grants: ['view', 'sell'] };
    expect((await owner.put(`/members/${member!.id}`, choice)).status).toBe(204);
    expect((await breeder.post(`/animals/${animal}/records`, identification())).status).toBe(403);
    expect((await breeder.get('/sales')).status).toBe(200);
  });

  test.each([
    ['without looking', { role: 'custom', grants: ['record'] }, 'grants'],
    ['without anything', { role: 'custom' }, 'grants'],
    ['with what there is not', { role: 'custom', grants: ['view', 'destroy'] }, 'grants'],
    ['that moves without recording', { role: 'custom', grants: ['view', 'house'] }, 'grants'],
    ['of a preset', { role: 'keeper', grants: ['view'] }, 'grants'],
  ])('is refused %s', async (_what, choice, field) => {
    const answer = await owner.post('/invitations', { name: 'Ida', ...choice });
    expect(answer.status).toBe(422);
    expect(fieldsOf(answer).join('; ')).toContain(field);
  });

  test('with people in it gives no more than it has, and does not touch whoever has more', async () => {
    const manager = await somebody('custom', ['view', 'record', 'manage']);
    const owners = (await items<MemberView>(owner, '/members')).filter(({ role }) => role === 'owner');
    const keeper = await somebody('keeper');
    const self = manager.session.account.id;
    const refused = [
      await manager.put(`/members/${self}`, { role: 'owner' }),
      await manager.put(`/members/${self}`, { role: 'custom', grants: ['view', 'manage', 'sell'] }),
      await manager.post('/invitations', { name: 'Odo', role: 'keeper' }),
      await manager.put(`/members/${owners[0]!.id}`, { role: 'viewer' }),
      await manager.delete(`/members/${owners[0]!.id}`),
      await manager.delete(`/members/${keeper.session.account.id}`),
    ];
    expect(refused.map(({ status }) => status)).toEqual(refused.map(() => 403));
    expect((await manager.post('/invitations', { name: 'Odo', role: 'helper' })).status).toBe(201);
    expect(((await keeper.get('/session')).body as SessionView).role).toBe('keeper');
  });
});
