import {
  PRESET_GRANTS,
  type InvitationOffer,
  type InvitationView,
  type MemberView,
  type NewInvitation,
} from '@karyotome/contract';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { peopleActs } from './people-acts.ts';
import { fieldsOf, PASSWORD, startTestApp, type TestApp, type TestClient } from './test-app.ts';

let app: TestApp;
let owner: TestClient;
beforeAll(async () => {
  app = await startTestApp();
});
beforeEach(async () => {
  owner = await app.newCollection('Reedwater');
  await forgetFailures();
});
afterAll(() => app.close());

const { items, sessionOf, invited, joined, forgetFailures } = peopleActs(
  () => app,
  () => owner,
);

describe('an invitation', () => {
  test('makes an account for whoever has its link, in the role it names, once', async () => {
    const { token } = await invited('keeper');
    const offer = await app.anonymous.post('/join/look', { token });
    expect(offer.body).toEqual({
      collection: 'Reedwater',
      role: 'keeper',
      grants: PRESET_GRANTS.keeper,
      by: 'Tester',
    } satisfies InvitationOffer);
    const ida = await joined(token);
    expect(ida.answer.status).toBe(201);
    expect(ida.session).toMatchObject({ role: 'keeper', account: { name: 'Ida Marsh' } });
    expect((await ida.post('/animals', { number: 'P-1', sex: 'female' })).status).toBe(201);
    expect((await ida.get('/members')).status).toBe(403);
    expect((await joined(token)).answer.status).toBe(404);
    expect(await items<InvitationView>(owner, '/invitations')).toEqual([]);
    const members = await items<MemberView>(owner, '/members');
    expect(members.map(({ name, role }) => `${name} ${role}`)).toEqual(['Tester owner', 'Ida Marsh keeper']);
  });

  test('is told once, and what the database keeps lets nobody in', async () => {
    const key = { 'Idempotency-Key': 'one-invitation' };
    const body = { name: 'Odo', role: 'viewer' };
    const [first, again] = [
      await owner.post('/invitations', body, key),
      await owner.post('/invitations', body, key),
    ];
    // A lost answer can be asked for again under its key; nothing else tells it.
    expect(again.body).toEqual(first.body);
    const { token, id } = first.body as NewInvitation;
    expect(JSON.stringify(await items(owner, '/invitations'))).not.toContain(token.split('.')[1]);
    const [rows] = await app.database.sequelize.query(
      `select to_json(i)::text as kept from invitations i
        union all select to_json(w)::text from idempotent_writes w`,
    );
    expect(JSON.stringify(rows)).not.toContain(token.split('.')[1]);
    expect((await app.anonymous.post('/join/look', { token: `${id}.forged` })).status).toBe(404);
    expect((await app.anonymous.post('/join/look', { token: 'nothing' })).status).toBe(404);
  });

  test('that was withdrawn, or has run out, is none', async () => {
    const { id, token } = await invited('keeper');
    expect((await owner.delete(`/invitations/${id}`)).status).toBe(204);
    expect((await joined(token)).answer.status).toBe(404);
    expect((await owner.delete(`/invitations/${id}`)).status).toBe(404);
    const late = await invited('keeper');
    await app.database.sequelize.query("update invitations set expires_at = now() - interval '1 minute'");
    expect((await joined(late.token)).answer.status).toBe(404);
  });

  test('two who take it at once: one is in', async () => {
    const { token } = await invited('viewer');
    const answers = await Promise.all([joined(token), joined(token), joined(token)]);
    expect(answers.map(({ answer }) => answer.status).toSorted()).toEqual([201, 404, 404]);
    expect(await items<MemberView>(owner, '/members')).toHaveLength(2);
  });

  test('is taken with an account that is there, by its password; then there are two collections', async () => {
    const email = await app.newAccount('Their own');
    const { token } = await invited('viewer');
    expect((await joined(token, { email, password: 'a wrong password' })).answer.status).toBe(401);
    const both = await joined(token, { email, password: PASSWORD });
    expect(both.session.collections.map(({ name }) => name)).toEqual(['Reedwater', 'Their own']);
    expect(both.session.collection.name).toBe('Reedwater');
    const second = await invited('keeper');
    expect((await joined(second.token, { email, password: PASSWORD })).answer.status).toBe(409);
  });

  test('two taken at once with one new address make one account', async () => {
    const [one, other] = [await invited('keeper'), await invited('viewer')];
    const email = 'one-address@example.test';
    const answers = await Promise.all([joined(one.token, { email }), joined(other.token, { email })]);
    // The second is told: that the address has an account by now, or that the account is in already.
    expect(answers.map(({ answer }) => answer.status).toSorted()).toEqual([201, 409]);
    expect(await items<MemberView>(owner, '/members')).toHaveLength(2);
  });

  test.each([
    [{ password: 'short' }, 'password: must have at least 12'],
    [{ password: 'Password1234' }, 'password: is one that many people have'],
    [{ password: 'qwertyuiop123!' }, 'password: is one that many people have'],
    [{ password: 'aaaaaaaaaaaaaa' }, 'password: is one that many people have'],
    [{ password: 'my-name-is-ida marsh' }, 'password: must not contain your name'],
    [{ name: null }, 'name: is needed'],
    [{ email: 'nobody' }, 'email: must be an e-mail address'],
  ])('a new account with %j is refused at its field', async (more, message) => {
    const { token } = await invited('keeper');
    const { answer } = await joined(token, more);
    expect(answer.status).toBe(422);
    expect(fieldsOf(answer).join('; ')).toContain(message);
    expect((await joined(token)).answer.status).toBe(201);
  });
});

describe('members', () => {
  test('a role is changed at once; the last owner stays one', async () => {
    const ida = await joined((await invited('keeper')).token);
    const { id } = ida.session.account;
    expect((await owner.put(`/members/${id}`, { role: 'viewer' })).status).toBe(204);
    expect((await ida.post('/animals', { number: 'P-2', sex: 'female' })).status).toBe(403);
    const self = (await sessionOf(owner)).account.id;
    for (const attempt of [
      owner.put(`/members/${self}`, { role: 'keeper' }),
      owner.delete(`/members/${self}`),
    ])
      expect((await attempt).body).toMatchObject({
        status: 409,
        detail: expect.stringContaining('needs an owner'),
      });
    expect((await owner.put(`/members/${id}`, { role: 'owner' })).status).toBe(204);
    expect((await owner.put(`/members/${self}`, { role: 'keeper' })).status).toBe(204);
    expect((await owner.get('/members')).status).toBe(403);
    expect((await owner.put(`/members/${id}`, { role: 'king' })).status).toBe(403);
  });

  test('two owners who remove one another at once: one stays', async () => {
    const ida = await joined((await invited('owner')).token);
    const self = (await sessionOf(owner)).account.id;
    const answers = await Promise.all([
      owner.delete(`/members/${ida.session.account.id}`),
      ida.delete(`/members/${self}`),
    ]);
    // The second is refused: as the last owner, or since its own membership has ended by then.
    const statuses = answers.map(({ status }) => status).toSorted();
    expect(statuses[0]).toBe(204);
    expect([401, 403, 409]).toContain(statuses[1]);
    const [rows] = await app.database.sequelize.query(
      'select count(*)::int as owners from memberships where role = $1 and collection_id = $2',
      { bind: ['owner', ida.session.collection.id] },
    );
    expect(rows).toEqual([{ owners: 1 }]);
  });

  test('who is removed is out at once everywhere, and their name stays', async () => {
    const ida = await joined((await invited('owner')).token);
    const feed = (await ida.post('/calendar-feeds', { name: 'Phone' })).body as { path: string };
    expect((await app.anonymous.get(feed.path.replace('/api/v1', ''))).status).toBe(200);
    const { token } = (await ida.post('/invitations', { name: 'Guest', role: 'viewer' }))
      .body as NewInvitation;
    const { id: animal } = (await ida.post('/animals', { number: 'P-3', sex: 'female' })).body as {
      id: string;
    };
    const weight = { kind: 'weight', on: new Date().toISOString().slice(0, 10), body: { massG: 80 } };
    expect((await ida.post(`/animals/${animal}/records`, weight)).status).toBe(201);

    expect((await owner.delete(`/members/${ida.session.account.id}`)).status).toBe(204);
    expect((await ida.get('/session')).status).toBe(401);
    expect((await ida.get('/animals')).status).toBe(401);
    expect((await ida.post('/animals', { number: 'P-4', sex: 'female' })).status).toBe(401);
    expect((await app.anonymous.get(feed.path.replace('/api/v1', ''))).status).toBe(404);
    expect((await joined(token)).answer.status).toBe(404);
    const { records } = (await owner.get(`/animals/${animal}`)).body as { records: { author: string }[] };
    expect(records.map(({ author }) => author)).toContain('Ida Marsh');
    expect((await owner.delete(`/members/${ida.session.account.id}`)).status).toBe(404);
  });

  test('one collection knows nothing of the people of another', async () => {
    const ida = await joined((await invited('keeper')).token);
    const { id } = await invited('viewer');
    const stranger = await app.newCollection('Elsewhere');
    expect((await stranger.delete(`/members/${ida.session.account.id}`)).status).toBe(404);
    expect((await stranger.put(`/members/${ida.session.account.id}`, { role: 'viewer' })).status).toBe(404);
    expect((await stranger.delete(`/invitations/${id}`)).status).toBe(404);
    expect(await items<MemberView>(stranger, '/members')).toHaveLength(1);
    const other = (await sessionOf(stranger)).collection.id;
    const refused = await owner.put('/session/collection', { collectionId: other });
    expect(fieldsOf(refused)).toEqual(['collectionId: is none of yours']);
  });
});
