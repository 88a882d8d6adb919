import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { pino } from 'pino';
import { KeptLog } from './kept-log.ts';
import { PASSWORD, startTestApp, type TestApp } from './test-app.ts';

/* One line a request, with who asked; security events stand at the level that a server logs at when nothing is set. */

let app: TestApp;
beforeAll(async () => {
  app = await startTestApp();
});
afterAll(() => app.close());
beforeEach(async () => {
  await app.database.sequelize.query('delete from rate_limits');
  app.log.lines.length = 0;
});

interface Line {
  readonly level: number;
  readonly req?: { readonly id: string; readonly method: string; readonly url: string };
  readonly res?: { readonly statusCode: number };
  readonly account?: string;
  readonly act?: string;
}
const logged = (): Line[] => app.log.lines.map((line) => JSON.parse(line) as Line);
const { info, warn } = pino.levels.values as { info: number; warn: number };

async function ownAccount(): Promise<string> {
  const { body } = (await app.owner.get('/session')) as { body: { account: { id: string } } };
  app.log.lines.length = 0;
  return body.account.id;
}

test('a request is one line, with an id of its own and whose account asked', async () => {
  const account = await ownAccount();
  await app.owner.get('/animals');
  await app.owner.get('/animals');
  const lines = logged();
  expect(lines.map((line) => [line.level, line.req?.url, line.res?.statusCode, line.account])).toEqual([
    [info, '/api/v1/animals', 200, account],
    [info, '/api/v1/animals', 200, account],
  ]);
  expect(new Set(lines.map((line) => line.req?.id)).size).toBe(2);
});

describe('security events', () => {
  test('failed sign-ins, and those that are made to wait, are warnings', async () => {
    const email = await app.newAccount('Guessed');
    const sent = Array.from({ length: 6 }, () => ({ email, password: 'not the right one' }));
    for (const body of sent) await app.anonymous.post('/session', body);
    expect(logged().map(({ level, act, res }) => [level, act, res?.statusCode])).toEqual([
      ...Array.from({ length: 5 }, () => [warn, 'signIn', 401]),
      [warn, 'signIn', 429],
    ]);
  });

  test('who has come in is named by their account', async () => {
    await app.signedIn(await app.newAccount('Comes in'));
    expect(logged()).toMatchObject([
      { act: 'signIn', res: { statusCode: 201 }, account: expect.any(String) },
    ]);
  });

  test('rights, tokens, passwords, exports and deletions are named, with whose account did it', async () => {
    const account = await ownAccount();
    await app.owner.post('/invitations', { name: 'Nell', role: 'helper' });
    const token = (await app.owner.post('/account/tokens', { name: 'Scale', scope: 'record', days: 30 })) as {
      body: { id: string };
    };
    await app.owner.delete(`/account/tokens/${token.body.id}`);
    await app.owner.get('/export/weights.csv');
    await app.owner.put('/account/password', { password: 'wrong', newPassword: 'several plain words' });
    const made = (await app.owner.post('/animals', { number: 'L-9', sex: 'male' })) as {
      body: { id: string };
    };
    await app.owner.post(`/animals/${made.body.id}/delete`, { reason: 'Entered twice' });
    const acts = logged().filter(({ act }) => act !== undefined);
    expect(acts.every((line) => line.account === account && line.level === warn)).toBe(true);
    expect(acts.map(({ act }) => act)).toEqual([
      'invite',
      'addToken',
      'revokeToken',
      'exportWeights',
      'changePassword',
      'deleteAnimal',
    ]);
  });
});

test('the search finds what may not be logged', async () => {
  const log = new KeptLog();
  const logger = pino({ level: 'info' }, log);
  const client = await app.newCollection('Searched');
  const animal = (await client.post('/animals', {
    number: 'S-1',
    sex: 'male',
    note: 'behind the boiler',
  })) as {
    status: number;
  };
  expect(animal.status).toBe(201);
  const { headers } = (await app.anonymous.post('/session', {
    email: await app.newAccount('Cookie'),
    password: PASSWORD,
  })) as { headers: Record<string, unknown> };
  for (const leaked of [
    'who@example.test',
    `key ${'aB3_'.repeat(11)}`,
    'select id from animals',
    'behind the boiler',
    String(headers['set-cookie']),
  ]) {
    log.lines.length = 0;
    logger.info(leaked);
    expect(await log.leaks(app.database.sequelize), leaked).not.toEqual([]);
  }
  log.lines.length = 0;
  logger.info({ req: { url: '/api/v1/animals/6f0c1f0e-6a64-4b6d-9d0b-0f3e8f6f6a11' } }, 'request completed');
  expect(await log.leaks(app.database.sequelize)).toEqual([]);
});
