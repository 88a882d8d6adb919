import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { SMTPServer } from 'smtp-server';
import request from 'supertest';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { createApp } from '../src/app.ts';
import { backgroundEnded } from '../src/background.ts';
import { readConfig } from '../src/config.ts';
import { KeptLog } from './kept-log.ts';
import { startTestApp, type TestApp } from './test-app.ts';

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
