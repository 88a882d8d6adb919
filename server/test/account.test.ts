import type { DeviceView, Page, SessionView } from '@karyotome/contract';
import request from 'supertest';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { createResetCode } from '../src/domain/accounts/password-reset.ts';
import { NEW_PASSWORD, peopleActs } from './people-acts.ts';
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

const { sessionOf, invited, joined, forgetFailures } = peopleActs(
  () => app,
  () => owner,
);

describe('an account', () => {
  test('goes to another of its collections, and sees that one alone', async () => {
    const email = await app.newAccount('Their own');
    const { token } = await invited('viewer');
    const both = await joined(token, { email, password: PASSWORD });
    await owner.post('/animals', { number: 'R-1', sex: 'female' });
    const [here, there] = both.session.collections;
    expect((await both.get('/animals')).body).toMatchObject({ total: 1 });
    const agent = request.agent(app.express);
    const signedIn = (await agent.post('/api/v1/session').send({ email, password: PASSWORD }))
      .body as SessionView;
    const choose = async (collectionId: string) =>
      (
        await agent
          .put('/api/v1/session/collection')
          .set('X-CSRF-Token', signedIn.csrfToken)
          .send({ collectionId })
      ).body as SessionView;
    expect(await choose(there!.id)).toMatchObject({ role: 'owner', collection: { name: 'Their own' } });
    expect((await agent.get('/api/v1/animals')).body).toMatchObject({ total: 0 });
    expect(await choose(here!.id)).toMatchObject({ role: 'viewer', collection: { name: 'Reedwater' } });
    expect((await agent.get('/api/v1/animals')).body).toMatchObject({ total: 1 });
  });

  test('changes its password by the old one, and is signed out everywhere else', async () => {
    const email = await app.newAccount('Passwords');
    const signIn = async (password: string) => {
      const agent = request.agent(app.express);
      const answer = await agent
        .post('/api/v1/session')
        .set('User-Agent', 'Heron/1.0')
        .send({ email, password });
      return { agent, answer, csrf: (answer.body as SessionView).csrfToken };
    };
    const [here, elsewhere] = [await signIn(PASSWORD), await signIn(PASSWORD)];
    const change = (current: string, next: string) =>
      here.agent.put('/api/v1/account/password').set('X-CSRF-Token', here.csrf).send({ current, next });
    expect(fieldsOf(await change('not my password', NEW_PASSWORD))).toEqual([
      'current: is not your password',
    ]);
    expect(fieldsOf(await change(PASSWORD, 'password1234'))[0]).toContain(
      'next: is one that many people have',
    );
    expect((await elsewhere.agent.get('/api/v1/animals')).status).toBe(200);
    expect((await change(PASSWORD, NEW_PASSWORD)).status).toBe(204);
    expect((await here.agent.get('/api/v1/animals')).status).toBe(200);
    expect((await elsewhere.agent.get('/api/v1/animals')).status).toBe(401);
    expect((await signIn(PASSWORD)).answer.status).toBe(401);
    expect((await signIn(NEW_PASSWORD)).answer.status).toBe(201);
  });

  test('whose password was forgotten chooses another by a link, once, and is signed out everywhere', async () => {
    const email = await app.newAccount('Forgotten');
    const secret = 'only-for-tests';
    const [first, second] = [
      await createResetCode(app.database, email.toUpperCase(), secret),
      await createResetCode(app.database, email, secret),
    ];
    const agent = request.agent(app.express);
    await agent.post('/api/v1/session').send({ email, password: PASSWORD });
    const reset = (code: string, password: string) =>
      app.anonymous.post('/account/reset', { code, password });
    expect(fieldsOf(await reset(first!, 'password1234'))[0]).toContain('is one that many people have');
    const answers = await Promise.all([reset(first!, NEW_PASSWORD), reset(first!, NEW_PASSWORD)]);
    expect(answers.map(({ status }) => status).toSorted()).toEqual([204, 404]);
    expect((await agent.get('/api/v1/animals')).status).toBe(401);
    expect((await reset(second!, 'seven swans at noon')).status).toBe(404);
    expect((await app.anonymous.post('/session', { email, password: NEW_PASSWORD })).status).toBe(201);
    // Made with another secret, run out, or for nobody: none.
    await forgetFailures();
    expect((await reset((await createResetCode(app.database, email, 'another'))!, NEW_PASSWORD)).status).toBe(
      404,
    );
    const late = (await createResetCode(app.database, email, secret))!.split('.');
    expect((await reset([late[0], '1', late[2]].join('.'), NEW_PASSWORD)).status).toBe(404);
    expect(await createResetCode(app.database, 'nobody@example.test', secret)).toBeNull();
  });

  test('sees where it is signed in, and ends one session or all others', async () => {
    const email = await app.newAccount('Devices');
    const signIn = async (userAgent: string) => {
      const agent = request.agent(app.express);
      const answer = await agent
        .post('/api/v1/session')
        .set('User-Agent', userAgent)
        .send({ email, password: PASSWORD });
      return { agent, csrf: (answer.body as SessionView).csrfToken };
    };
    const [desk, phone, tablet] = [await signIn('Desk'), await signIn('Phone'), await signIn('Tablet')];
    const list = async () =>
      ((await desk.agent.get('/api/v1/account/sessions')).body as Page<DeviceView>).items;
    const listed = await list();
    expect(listed.map(({ userAgent }) => userAgent).toSorted()).toEqual(['Desk', 'Phone', 'Tablet']);
    expect(listed.filter(({ isThis }) => isThis).map(({ userAgent }) => userAgent)).toEqual(['Desk']);
    const end = (path: string) =>
      desk.agent.delete(`/api/v1/account/sessions${path}`).set('X-CSRF-Token', desk.csrf);
    const phones = listed.find(({ userAgent }) => userAgent === 'Phone')!;
    expect((await end(`/${phones.id}`)).status).toBe(204);
    expect((await phone.agent.get('/api/v1/animals')).status).toBe(401);
    expect((await tablet.agent.get('/api/v1/animals')).status).toBe(200);
    expect((await end(`/${phones.id}`)).status).toBe(404);
    expect((await end('')).status).toBe(204);
    expect((await tablet.agent.get('/api/v1/animals')).status).toBe(401);
    expect(await list()).toHaveLength(1);
    // Nobody ends what is not theirs.
    expect((await owner.delete(`/account/sessions/${(await list())[0]!.id}`)).status).toBe(404);
  });

  test('a session that began longer ago than ninety days has ended, however much it was used', async () => {
    const client = await app.newCollection('Long ago');
    const { id } = (await sessionOf(client)).account;
    await app.database.sequelize.query(
      `update sessions set sess = jsonb_set(sess::jsonb, '{signedInAt}', to_jsonb((now() - interval '91 days')::text))::json
        where sess ->> 'accountId' = :id`,
      { replacements: { id } },
    );
    expect((await client.get('/animals')).status).toBe(401);
  });
});
