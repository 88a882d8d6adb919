import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { SMTPServer } from 'smtp-server';
import request from 'supertest';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { createApp } from '../src/app.ts';
import { backgroundEnded } from '../src/background.ts';
import { readConfig } from '../src/config.ts';
import { KeptLog } from './kept-log.ts';
import { PASSWORD, startTestApp, type TestApp } from './test-app.ts';

/* A link for another password, mailed to whoever forgot theirs, by a real mail server. */

let app: TestApp;
let office: SMTPServer;
let mailing: ReturnType<typeof createApp>;
const log = new KeptLog();
const mails: { to: string; text: string }[] = [];
const PUBLIC = 'https://farm.example';

beforeAll(async () => {
  app = await startTestApp();
  office = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    onRcptTo: ({ address }, _session, done) =>
      done(address.startsWith('refused@') ? new Error('550 nobody here') : null),
    onData(stream, session, done) {
      const parts: Buffer[] = [];
      stream.on('data', (part: Buffer) => parts.push(part));
      stream.on('end', () => {
        // As quoted-printable is read.
        const text = Buffer.concat(parts).toString('utf8').replaceAll('=\r\n', '').replaceAll('=3D', '=');
        mails.push({ to: session.envelope.rcptTo[0]!.address, text });
        done();
      });
    },
  });
  await new Promise<void>((resolve) => office.listen(0, '127.0.0.1', resolve));
  const { port } = office.server.address() as AddressInfo;
  const config = readConfig({
    DATABASE_URL: app.databaseUrl,
    KARYOTOME_DATA: app.dataDir,
    SMTP_URL: `smtp://127.0.0.1:${port}`,
    PUBLIC_ADDRESS: PUBLIC,
  });
  mailing = createApp(app.database, app.files, config, pino({ level: 'info' }, log));
});
beforeEach(async () => {
  await app.database.sequelize.query('delete from rate_limits');
  mails.length = 0;
});
afterAll(async () => {
  expect(await log.leaks(app.database.sequelize)).toEqual([]);
  await mailing.close();
  await new Promise<void>((resolve) => office.close(() => resolve()));
  await app.close();
});

const forgot = (email: string, host = 'evil.example') =>
  request(mailing.express).post('/api/v1/account/forgotten').set('Host', host).send({ email });
async function mailsOf(email: string): Promise<string[]> {
  await backgroundEnded();
  return mails.filter(({ to }) => to === email).map(({ text }) => text);
}

describe('whoever forgot their password', () => {
  test('is mailed a link of this server, whatever host the request names, and chooses another by it', async () => {
    const email = await app.newAccount('Forgetful');
    expect((await forgot(email)).status).toBe(204);
    const [text] = await mailsOf(email);
    expect(text).not.toContain('evil.example');
    const code = new RegExp(`${PUBLIC}/reset#([\\w.-]+)`).exec(text!)![1]!;
    const chosen = { code, password: 'nine herons at dusk' };
    const reset = await request(mailing.express).post('/api/v1/account/reset').send(chosen);
    expect(reset.status, JSON.stringify(reset.body)).toBe(204);
    const signIn = { email, password: chosen.password };
    expect((await request(mailing.express).post('/api/v1/session').send(signIn)).status).toBe(201);
    expect((await request(mailing.express).post('/api/v1/account/reset').send(chosen)).status).toBe(404);
  });

  test('learns nothing of whether an address has an account, and no link is stored', async () => {
    const email = await app.newAccount('Known');
    const [known, unknown] = [await forgot(email), await forgot('nobody@farm.example')];
    expect([known.status, unknown.status]).toEqual([204, 204]);
    expect(unknown.text).toBe(known.text);
    expect(await mailsOf(email)).toHaveLength(1);
    expect(await mailsOf('nobody@farm.example')).toEqual([]);
    const [letters] = await app.database.sequelize.query('select * from letters');
    expect(JSON.stringify(letters)).not.toContain('/reset#');
  });

  test('is mailed a few in an hour at most, and whoever asks for more is told to wait', async () => {
    const email = await app.newAccount('Flooded');
    const statuses: number[] = [];
    for (let i = 0; i < 6; i++) statuses.push((await forgot(email)).status);
    expect(statuses).toEqual([204, 204, 204, 204, 204, 429]);
    expect(await mailsOf(email)).toHaveLength(5);
  });
});

test('the sign-in page is told whether links are mailed', async () => {
  const { body } = await request(mailing.express).get('/api/v1/first-start');
  expect(body).toEqual({ isOpen: false, mailsResets: true });
});

test.each(['farm.example', 'ftp://farm.example', 'https://farm.example/path'])(
  'PUBLIC_ADDRESS refuses %s',
  (address) => {
    const read = () =>
      readConfig({ DATABASE_URL: 'x', KARYOTOME_DATA: app.dataDir, PUBLIC_ADDRESS: address });
    expect(read).toThrow('PUBLIC_ADDRESS');
  },
);

describe('an invitation', () => {
  async function owner() {
    const agent = request.agent(mailing.express);
    const email = await app.newAccount('Inviting');
    const session = await agent.post('/api/v1/session').send({ email, password: PASSWORD });
    const token = (session.body as { csrfToken: string }).csrfToken;
    return (body: object) => agent.post('/api/v1/invitations').set('X-CSRF-Token', token).send(body);
  }

  test('is mailed where an address is given, and its link lets one person in', async () => {
    const invite = await owner();
    const answer = await invite({ name: 'Ida', role: 'helper', email: 'ida@marsh.example' });
    expect(answer.body).toMatchObject({ isMailed: true });
    const [text] = await mailsOf('ida@marsh.example');
    const token = new RegExp(`${PUBLIC}/join#([\\w.-]+)`).exec(text!)![1]!;
    expect(token).toBe((answer.body as { token: string }).token);
    const looked = await request(mailing.express).post('/api/v1/join/look').send({ token });
    expect(looked.body).toMatchObject({ role: 'helper', by: 'Tester' });
    // Nothing of it is kept: neither among letters nor with the invitation.
    const [kept] = await app.database.sequelize.query(
      `select 1 from letters where paragraphs::text like '%join#%' or to_address = 'ida@marsh.example'`,
    );
    expect(kept).toEqual([]);
  });

  test('is shown all the same where the mail server refuses', async () => {
    const invite = await owner();
    const answer = await invite({ name: 'Ida', role: 'helper', email: 'refused@marsh.example' });
    expect(answer.body).toMatchObject({ isMailed: false, token: expect.stringMatching(/./) as string });
    expect(app.faults.splice(0)).toHaveLength(1);
  });

  test('cannot be mailed without a mail server, and so many a day by one person', async () => {
    const plain = await app.owner.post('/invitations', {
      name: 'Ida',
      role: 'helper',
      email: 'ida@marsh.example',
    });
    expect(plain.body).toMatchObject({ errors: [{ field: 'email' }] });
    const invite = await owner();
    const answers = [];
    for (let i = 0; i < 21; i++)
      answers.push((await invite({ name: 'Ida', role: 'viewer', email: `p${i}@marsh.example` })).status);
    expect(answers.filter((status) => status === 201).length).toBeLessThanOrEqual(20);
    expect(answers.at(-1)).toBe(429);
  });
});
