import type { RecoveryCodes, SecondFactorStart, SecondFactorView } from '@karyotome/contract';
import { Secret, TOTP } from 'otpauth';
import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { fieldsOf, PASSWORD, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* The second factor of an account: codes of an authenticator (RFC 6238), and recovery codes. */

let app: TestApp;
beforeAll(async () => {
  app = await startTestApp();
});
afterAll(() => app.close());
beforeEach(() => app.database.sequelize.query('delete from rate_limits'));

/** Ten minutes on, and back again: a code counts once, and tests must not wait for the next. */
let ahead = 0;
beforeEach(() => {
  ahead += 600_000;
  const real = performance.timeOrigin + performance.now();
  vi.spyOn(Date, 'now').mockReturnValue(Math.floor(real) + ahead);
});
afterAll(() => vi.restoreAllMocks());

const shown = (start: SecondFactorStart, stepsAhead = 0): string =>
  new TOTP({ secret: Secret.fromBase32(start.secret) }).generate({
    timestamp: Date.now() + stepsAhead * 30_000,
  });

async function withFactor(): Promise<{
  email: string;
  client: TestClient;
  start: SecondFactorStart;
  codes: string[];
}> {
  const email = await app.newAccount('Factors');
  const client = await app.signedIn(email);
  const begun = await client.post('/account/second-factor', { password: PASSWORD });
  expect(begun.status, JSON.stringify(begun.body)).toBe(201);
  const start = begun.body as SecondFactorStart;
  const confirmed = await client.put('/account/second-factor', { code: shown(start, -1) });
  expect(confirmed.status, JSON.stringify(confirmed.body)).toBe(200);
  return { email, client, start, codes: (confirmed.body as RecoveryCodes).codes };
}

async function signIn(email: string, code?: string): Promise<string> {
  const answer = await app.anonymous.post('/session', {
    email,
    password: PASSWORD,
    ...(code ? { code } : {}),
  });
  if (answer.status === 201) return 'in';
  return (answer.body as { type: string }).type.replace('urn:karyotome:problem:', '');
}

test('the codes are those of RFC 6238, appendix B', () => {
  // SHA-1, secret "12345678901234567890", the last six of eight digits.
  const totp = new TOTP({ secret: Secret.fromUTF8('12345678901234567890') });
  const published = { 59: '287082', 1111111109: '081804', 1234567890: '005924', 20000000000: '353130' };
  for (const [second, code] of Object.entries(published))
    expect(totp.generate({ timestamp: Number(second) * 1000 })).toBe(code);
});

describe('signing in', () => {
  test('asks for a code once password and e-mail are right, and takes each code once', async () => {
    const { email, start } = await withFactor();
    expect(await signIn(email)).toBe('code-needed');
    expect(await signIn(email, '000000')).toBe('wrong-code');
    const code = shown(start);
    expect(await signIn(email, `${code.slice(0, 3)} ${code.slice(3)}`)).toBe('in');
    expect(await signIn(email, code)).toBe('wrong-code');
    // One that was shown before is over as well.
    expect(await signIn(email, shown(start, -1))).toBe('wrong-code');
    expect(await signIn(email, shown(start, 1))).toBe('in');
    const wrong = await app.anonymous.post('/session', { email, password: 'another one', code });
    expect((wrong.body as { type: string }).type).toContain('wrong-sign-in');
  });

  test('of two with the same code at once, one gets in', async () => {
    const { email, start, codes } = await withFactor();
    for (const code of [shown(start), codes[0]!]) {
      const answers = await Promise.all([signIn(email, code), signIn(email, code), signIn(email, code)]);
      expect(answers.toSorted()).toEqual(['in', 'wrong-code', 'wrong-code']);
    }
  });

  test('takes each recovery code once, however it is written', async () => {
    const { email, codes, client } = await withFactor();
    expect(new Set(codes).size).toBe(10);
    const [first] = codes as [string];
    expect(await signIn(email, `${first.slice(0, 5)}-${first.slice(5)}`.toUpperCase())).toBe('in');
    expect(await signIn(email, first)).toBe('wrong-code');
    const view = (await client.get('/account/second-factor')).body as SecondFactorView;
    expect(view.recoveryCodesLeft).toBe(9);
    const others = (await client.post('/account/second-factor/recovery-codes', { password: PASSWORD }))
      .body as RecoveryCodes;
    expect(await signIn(email, codes[1])).toBe('wrong-code');
    expect(await signIn(email, others.codes[1])).toBe('in');
  });

  test('wrong codes are counted like wrong passwords', async () => {
    const { email } = await withFactor();
    const answers: string[] = [];
    for (let i = 0; i < 6; i++) answers.push(await signIn(email, '000000'));
    expect(answers).toEqual([...Array.from({ length: 5 }, () => 'wrong-code'), 'too-many']);
  });

  test('an invitation that is taken with the account asks for it as well', async () => {
    const { email, start } = await withFactor();
    const { token } = (await app.owner.post('/invitations', { name: 'Nell', role: 'helper' })).body as {
      token: string;
    };
    const join = (code?: string) =>
      app.anonymous.post('/join', { token, email, password: PASSWORD, ...(code ? { code } : {}) });
    expect((await join()).status).toBe(401);
    expect((await join(shown(start))).status).toBe(201);
  });
});

describe('setting it up', () => {
  test('takes the password, and a code that the authenticator shows now', async () => {
    const client = await app.signedIn(await app.newAccount('Begins'));
    const refused = await client.post('/account/second-factor', { password: 'not it' });
    expect(fieldsOf(refused)).toEqual(['password: is not your password']);
    const start = (await client.post('/account/second-factor', { password: PASSWORD }))
      .body as SecondFactorStart;
    expect(start.uri).toContain('otpauth://totp/Karyotome:');
    const before = (await client.get('/account/second-factor')).body as SecondFactorView;
    expect(before.since).toBeNull();
    const wrong = await client.put('/account/second-factor', { code: '000000' });
    expect(fieldsOf(wrong)).toEqual(['code: is not what the authenticator shows now']);
    expect((await client.put('/account/second-factor', { code: shown(start) })).status).toBe(200);
    // Once it is on, its secret is told nobody any more.
    expect((await client.post('/account/second-factor', { password: PASSWORD })).status).toBe(409);
  });

  test('sent again with the same key, it is the same secret', async () => {
    const client = await app.signedIn(await app.newAccount('Again'));
    const send = () =>
      client.post('/account/second-factor', { password: PASSWORD }, { 'Idempotency-Key': 'set-up-1234' });
    const [first, again] = [await send(), await send()];
    expect(again.body).toEqual(first.body);
    expect((first.body as SecondFactorStart).secret).not.toBe('');
  });

  test('turning it off takes the password; then the password alone is enough', async () => {
    const { email, client } = await withFactor();
    expect((await client.post('/account/second-factor/off', { password: 'not it' })).status).toBe(422);
    expect(await signIn(email)).toBe('code-needed');
    expect((await client.post('/account/second-factor/off', { password: PASSWORD })).status).toBe(204);
    expect(await signIn(email)).toBe('in');
  });

  test('neither the secret nor a recovery code stands in the database', async () => {
    const { start, codes } = await withFactor();
    const [rows] = await app.database.sequelize.query('select * from second_factors');
    const [kept] = await app.database.sequelize.query('select * from idempotent_writes');
    const all = JSON.stringify([rows, kept]);
    for (const secret of [start.secret, ...codes]) expect(all).not.toContain(secret);
  });
});
