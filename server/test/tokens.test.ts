import type { NewToken, Page, TokenView } from '@karyotome/contract';
import request from 'supertest';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import { peopleActs } from './people-acts.ts';
import { fieldsOf, listening, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* Programs sign in with a token in each request: limited, good for a while, and ended at once. */

let app: TestApp;
let owner: TestClient;
beforeAll(async () => {
  app = await startTestApp();
});
beforeEach(async () => {
  owner = await app.newCollection('Reedwater');
});
afterAll(() => app.close());
const { items, sessionOf, invited, joined } = peopleActs(
  () => app,
  () => owner,
);

async function made(scope: string, client: Pick<TestClient, 'post'> = owner): Promise<NewToken> {
  const answer = await client.post('/account/tokens', { name: 'Scale', scope, days: 30 });
  expect(answer.status).toBe(201);
  return answer.body as NewToken;
}
/** A program: no cookie, no token against forged requests. */
function program(token: string) {
  const ask = (method: 'get' | 'post' | 'put' | 'delete', path: string) =>
    request(app.express)[method](`/api/v1${path}`).set('Authorization', `Bearer ${token}`);
  return {
    get: (path: string) => ask('get', path),
    post: (path: string, body: object) => ask('post', path).send(body),
    delete: (path: string) => ask('delete', path),
    put: (path: string, body: object) => ask('put', path).send(body),
  };
}
const animal = { number: 'T-1', sex: 'female' };

test('a token to record records under its person’s name, and needs no session', async () => {
  const { token } = await made('record');
  const scale = program(token);
  const created = await scale.post('/animals', animal);
  expect(created.status).toBe(201);
  expect(created.headers['set-cookie']).toBeUndefined();
  expect((await scale.get('/animals')).body).toMatchObject({ total: 1 });
  expect((await scale.get('/session')).body).toMatchObject({ account: { name: 'Tester' } });
  const [listed] = await items<TokenView>(owner, '/account/tokens');
  expect(listed).toMatchObject({ name: 'Scale', scope: 'record', usedAt: expect.any(String) });
});

test('a token to look records nothing, and none changes the account, people or settings', async () => {
  const looking = program((await made('view')).token);
  expect((await looking.get('/animals')).status).toBe(200);
  expect((await looking.post('/animals', animal)).status).toBe(403);
  const recording = program((await made('record')).token);
  const self = (await sessionOf(owner)).account.id;
  for (const attempt of [
    recording.put('/account/password', { current: 'x', next: 'y' }),
    recording.post('/account/tokens', { name: 'Another', scope: 'record', days: 1 }),
    recording.delete('/account/sessions'),
    recording.get('/members'),
    recording.post('/invitations', { name: 'Odo', role: 'owner' }),
    recording.delete(`/members/${self}`),
    recording.put('/settings', {}),
    recording.put('/session/collection', { collectionId: self }),
  ])
    expect((await attempt).status).toBe(403);
});

test('a token that was revoked, has run out, or was never made lets nobody in', async () => {
  const { id, token } = await made('record');
  const [late, kept] = [await made('record'), await made('record')];
  expect((await owner.delete(`/account/tokens/${id}`)).status).toBe(204);
  expect((await owner.delete(`/account/tokens/${id}`)).status).toBe(404);
  await app.database.sequelize.query('update access_tokens set expires_at = now() where id = $1', {
    bind: [late.id],
  });
  for (const one of [token, late.token, `${kept.token}x`, kept.token.slice(0, -1), 'nothing', '']) {
    const answer = await program(one).get('/animals');
    expect(answer.status, one).toBe(401);
    expect(answer.headers['www-authenticate']).toBe('Bearer');
  }
  expect((await program(kept.token).get('/animals')).status).toBe(200);
  expect((await items<TokenView>(owner, '/account/tokens')).map((one) => one.id)).toEqual([kept.id]);
});

test('a token may never do more than its person, and ends with their membership for good', async () => {
  const ida = await joined((await invited('keeper')).token);
  const scale = program((await made('record', ida)).token);
  expect((await scale.post('/animals', animal)).status).toBe(201);
  const { id } = ida.session.account;
  expect((await owner.put(`/members/${id}`, { role: 'viewer' })).status).toBe(204);
  expect((await scale.post('/animals', { ...animal, number: 'T-2' })).status).toBe(403);
  expect((await owner.delete(`/members/${id}`)).status).toBe(204);
  expect((await scale.get('/animals')).status).toBe(401);
  const { token } = await invited('keeper');
  const { email } = ida.session.account;
  expect((await joined(token, { email })).answer.status).toBe(201);
  expect((await scale.get('/animals')).status).toBe(401);
});

test('its secret is told once and kept nowhere; others’ tokens are nobody’s business', async () => {
  const { id, token } = await made('view');
  expect(token).toMatch(/^karyotome_/);
  const secret = token.split('.')[1]!;
  expect(JSON.stringify(((await owner.get('/account/tokens')).body as Page<TokenView>).items)).not.toContain(
    secret,
  );
  const [rows] = await app.database.sequelize.query(
    `select to_json(t)::text as kept from access_tokens t
      union all select to_json(w)::text from idempotent_writes w`,
  );
  expect(JSON.stringify(rows)).not.toContain(secret);
  const stranger = await app.newCollection('Elsewhere');
  expect(await items<TokenView>(stranger, '/account/tokens')).toEqual([]);
  expect((await stranger.delete(`/account/tokens/${id}`)).status).toBe(404);
});

test.each([
  [{ scope: 'manage' }, 'scope: '],
  [{ days: 0 }, 'days: '],
  [{ days: 4000 }, 'days: '],
  [{ name: '' }, 'name: '],
])('a token with %j is refused at its field', async (more, message) => {
  const answer = await owner.post('/account/tokens', { name: 'Scale', scope: 'view', days: 30, ...more });
  expect(answer.status).toBe(422);
  expect(fieldsOf(answer).join('; ')).toContain(message);
});

test('a program is told of changes as they happen, until its token is revoked', async () => {
  const server = await listening(app.express);
  try {
    const { id, token } = await made('view');
    const answer = await fetch(`${server.origin}/api/v1/changes`, {
      headers: { Authorization: `Bearer ${token}` },
    });
    expect(answer.status).toBe(200);
    const reader = answer.body!.getReader();
    const heard = async (): Promise<string | null> => {
      const { done, value } = await reader.read();
      return done ? null : new TextDecoder().decode(value);
    };
    expect(await heard()).toContain('watching');
    await owner.post('/animals', { ...animal, number: 'T-77' });
    expect(await heard()).toContain('event: change');
    expect((await owner.delete(`/account/tokens/${id}`)).status).toBe(204);
    let last = await heard();
    while (last !== null) last = await heard();
    expect(
      (await fetch(`${server.origin}/api/v1/changes`, { headers: { Authorization: `Bearer ${token}` } }))
        .status,
    ).toBe(401);
  } finally {
    await server.close();
  }
});
