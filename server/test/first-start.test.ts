import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { SessionView } from '@karyotome/contract';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { demoPassword } from '../src/demo/demo-password.ts';
import { firstStartCode } from '../src/domain/accounts/first-owner.ts';
import { fieldsOf, startTestApp, type TestApp } from './test-app.ts';

/* The first start of an installation: by a code that the server writes, once. */

const SECRET = 'only-for-tests';
let app: TestApp;
let code: string;
beforeEach(async () => {
  app = await startTestApp({ isEmpty: true });
  code = (await firstStartCode(app.database, SECRET))!;
});
afterEach(() => app.close());

const farm = {
  name: 'Reedwater',
  timeZone: 'Europe/Vienna',
  massUnit: 'oz',
  temperatureUnit: 'F',
  currency: 'CHF',
  numberPattern: 'running',
};
const owner = { name: 'Ida Marsh', email: 'Ida@example.test', password: 'nine herons at dusk' };
const start = (more: object = {}) => app.anonymous.post('/first-start', { code, ...owner, farm, ...more });
const accounts = () => app.database.models.accounts.count();

test('makes the owner and the farm as they said, and signs them in', async () => {
  expect((await app.anonymous.get('/first-start')).body).toEqual({ isOpen: true, mailsResets: false });
  const { status, body, headers } = await start();
  expect(status).toBe(201);
  expect(headers['cache-control']).toBe('no-store');
  expect(body as SessionView).toMatchObject({
    role: 'owner',
    account: { name: 'Ida Marsh', email: 'ida@example.test' },
    collection: {
      name: 'Reedwater',
      timeZone: 'Europe/Vienna',
      massUnit: 'oz',
      temperatureUnit: 'F',
      numberPattern: 'running',
    },
  });
  expect((await app.anonymous.get('/sale-rules')).body).toMatchObject({ rules: { currency: 'CHF' } });
  expect((await app.anonymous.get('/first-start')).body).toEqual({ isOpen: false, mailsResets: false });
  // Nothing of the password lies in the data folder.
  const files = readdirSync(app.dataDir, { recursive: true, withFileTypes: true }).filter((one) =>
    one.isFile(),
  );
  for (const { parentPath, name } of files)
    expect(readFileSync(join(parentPath, name), 'utf8')).not.toContain(owner.password);
});

test('is over once there is an account: its code opens nothing', async () => {
  await start();
  expect(await firstStartCode(app.database, SECRET)).toBeNull();
  const second = await start({ email: 'odo@example.test' });
  expect(second.status).toBe(409);
  expect(await accounts()).toBe(1);
});

test('of two at once one makes the owner', async () => {
  const answers = await Promise.all([
    start(),
    start({ email: 'odo@example.test' }),
    start({ email: 'una@example.test' }),
  ]);
  expect(answers.map(({ status }) => status).toSorted()).toEqual([201, 409, 409]);
  expect(await accounts()).toBe(1);
});

test('takes the code as it is typed, and no other; guessing is held up', async () => {
  expect(code).toMatch(/^[0-9A-HJKMNP-TV-Z]{4}-[0-9A-HJKMNP-TV-Z]{4}-[0-9A-HJKMNP-TV-Z]{4}$/);
  const wrong = code.replace(/.$/, (last) => (last === '0' ? '1' : '0'));
  const answers = [];
  for (let i = 0; i < 6; i++) answers.push((await start({ code: wrong })).status);
  expect(answers).toEqual([404, 404, 404, 404, 404, 429]);
  await app.database.sequelize.query('delete from rate_limits');
  const asTyped = ` ${code.toLowerCase().replaceAll('-', ' ').replaceAll('0', 'o').replaceAll('1', 'l')}`;
  expect((await start({ code: asTyped })).status).toBe(201);
});

test.each([
  [{ password: 'password1234' }, 'password: is one that many people have'],
  [{ password: 'reedwater herons' }, 'password: must not contain your name'],
  [{ password: 'short' }, 'password'],
  [{ email: 'nobody' }, 'email'],
  [{ name: '' }, 'name'],
  [{ farm: { ...farm, name: '' } }, 'farm.name'],
  [{ farm: { ...farm, timeZone: 'Nowhere/Town' } }, 'farm.timeZone'],
  [{ farm: { ...farm, currency: 'XYZ9' } }, 'farm.currency'],
  [{ farm: { ...farm, numberPattern: 'none' } }, 'farm.numberPattern'],
])('is refused with the field at fault: %j', async (more, field) => {
  const answer = await start(more);
  expect(answer.status).toBe(422);
  expect(fieldsOf(answer).join('; ')).toContain(field);
  expect(await accounts()).toBe(0);
});

test('the demo alone keeps how to sign in, on the disk before the account is', async () => {
  expect(existsSync(join(app.dataDir, 'owner-sign-in.txt'))).toBe(false);
  const password = await demoPassword(app.dataDir, 'maren@example.test');
  // Cut off here, the next one finds the same.
  expect(await demoPassword(app.dataDir, 'maren@example.test')).toBe(password);
});
