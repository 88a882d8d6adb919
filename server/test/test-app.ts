import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Express } from 'express';
import { pino } from 'pino';
import request, { type Response, type Test } from 'supertest';
import { expect, inject } from 'vitest';
import { createApp } from '../src/app.ts';
import { openDatabase } from '../src/db/open.ts';
import type { Database } from '../src/db/work.ts';
import type { FileStore } from '../src/files/file-store.ts';
import { openStore } from '../src/files/open-store.ts';
import type { S3Place } from '../src/files/s3-store.ts';
import { createCollection } from '../src/domain/collection/create-collection.ts';
import { KeptLog } from './kept-log.ts';
import { administer, databaseUrl } from './template.ts';

export const PASSWORD = 'long-enough-for-tests';

export interface TestClient {
  get(path: string, headers?: Record<string, string>): Promise<Response>;
  post(path: string, body?: object, headers?: Record<string, string>): Promise<Response>;
  put(path: string, body?: object, headers?: Record<string, string>): Promise<Response>;
  patch(path: string, body?: object, headers?: Record<string, string>): Promise<Response>;
  delete(path: string, headers?: Record<string, string>): Promise<Response>;
  /** Posts raw bytes of a media type. */
  upload(path: string, type: string, bytes: Buffer): Promise<Response>;
}

export interface TestApp {
  readonly database: Database;
  /** Signed in as the owner of a fresh, empty collection. */
  readonly owner: TestClient;
  readonly anonymous: TestClient;
  readonly express: Express;
  readonly dataDir: string;
  readonly files: FileStore;
  readonly databaseUrl: string;
  /** What was reported as a fault that ended no request. */
  readonly faults: unknown[];
  /** The address of the owner of a fresh, empty collection. */
  newAccount(title: string): Promise<string>;
  /** A second owner of the first collection, in a session of their own. */
  colleague(): Promise<TestClient>;
  /** What it logged; searched for what may not be logged when it is closed. */
  readonly log: KeptLog;
  /** Somebody in a session of their own. */
  signedIn(email: string, password?: string): Promise<TestClient>;
  newCollection(name: string, role?: 'owner' | 'keeper' | 'helper' | 'viewer'): Promise<TestClient>;
  close(): Promise<void>;
}

/** Tests see what is inferred, however slow the machine: those of daily work that goes on without it say less. */
const PATIENCE_MS = 60_000;

/**
 * The real application over a fresh copy of the migrated database.
 *
 * @param isEmpty - without any account
 * @param s3 - the bucket in which it keeps files; in a folder where there is none
 */
export async function startTestApp({
  isEmpty = false,
  inferencePatienceMs = PATIENCE_MS,
  behindTls = false,
  isWebhookPrivateAllowed = false,
  s3 = null as S3Place | null,
} = {}): Promise<TestApp> {
  const serverUrl = inject('serverUrl');
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  await administer(serverUrl, `create database ${name} template ${inject('template')} strategy file_copy`);
  const url = databaseUrl(serverUrl, name);
  const faults: unknown[] = [];
  const database = openDatabase(url, (error) => faults.push(error), { inferencePatienceMs });
  const { sequelize } = database;
  const dataDir = mkdtempSync(join(tmpdir(), 'karyotome-'));
  const files = await openStore({ dataDir, s3 }, (error) => faults.push(error));
  const log = new KeptLog();
  const app = createApp(
    database,
    files,
    {
      databaseUrl: url,
      host: '127.0.0.1',
      port: 0,
      dataDir,
      s3,
      webDir: null,
      sessionSecret: 'only-for-tests',
      signingSecret: 'only-for-tests',
      smtpUrl: null,
      mailFrom: 'post@karyotome.local',
      publicAddress: null,
      logLevel: 'info',
      behindTls,
      isWebhookPrivateAllowed,
      trustedProxies: behindTls ? ['loopback'] : [],
      signInAttempts: 5,
      clockAheadDays: 0,
      processes: 1,
      hasLauncher: false,
      isPooledByTransaction: false,
      directDatabaseUrl: url,
      standbyDatabaseUrl: null,
      backupFolder: null,
      backupPassphrase: 'only for tests',
      postgresPrograms: null,
    },
    pino({ level: 'info' }, log),
  );
  const newActor = async (title: string) => {
    const email = `${randomUUID()}@example.test`;
    const actor = await createCollection(database, { email, name: 'Tester', password: PASSWORD }, title);
    return { email, actor };
  };
  const signedIn = async (email: string, password = PASSWORD): Promise<TestClient> => {
    const agent = request.agent(app.express);
    const session = await agent.post('/api/v1/session').send({ email, password });
    return client(agent, (session.body as { csrfToken: string }).csrfToken);
  };
  const newCollection: TestApp['newCollection'] = async (title, role = 'owner') => {
    const { email, actor } = await newActor(title);
    if (role !== 'owner')
      await database.models.memberships.update({ role }, { where: { accountId: actor.accountId } });
    return signedIn(email);
  };
  const first = isEmpty ? null : await newActor('Test collection');
  const colleague = async (): Promise<TestClient> => {
    const { email, actor } = await newActor('Elsewhere');
    await database.models.memberships.destroy({ where: { accountId: actor.accountId } });
    const { collectionId } = first!.actor;
    await database.models.memberships.create({ collectionId, accountId: actor.accountId, role: 'owner' });
    return signedIn(email);
  };
  return {
    database,
    owner: first ? await signedIn(first.email) : client(request.agent(app.express), ''),
    colleague,
    anonymous: client(request.agent(app.express), ''),
    express: app.express,
    dataDir,
    files,
    databaseUrl: url,
    faults,
    newAccount: async (title) => (await newActor(title)).email,
    signedIn,
    newCollection,
    log,
    async close() {
      await app.close();
      const leaks = await log.leaks(sequelize).catch(() => []);
      await sequelize.close();
      await administer(serverUrl, `drop database ${name} with (force)`);
      rmSync(dataDir, { recursive: true, force: true });
      expect(leaks).toEqual([]);
    },
  };
}

/** Serves an application at an address of its own, for requests that no library would send. */
export async function listening(
  express: Express,
): Promise<{ server: Server; origin: string; close(): Promise<void> }> {
  const server = createServer(express).listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  return {
    server,
    origin: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    async close() {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}

function client(agent: ReturnType<typeof request.agent>, token: string): TestClient {
  const at = (path: string): string => `/api/v1${path}`;
  const headers = (more: Record<string, string> = {}): Record<string, string> => ({
    'X-CSRF-Token': token,
    ...more,
  });
  return {
    get: (path, more = {}) => agent.get(at(path)).set(more),
    post: (path, body, more) =>
      agent
        .post(at(path))
        .set(headers(more))
        .send(body ?? {}),
    put: (path, body, more) =>
      agent
        .put(at(path))
        .set(headers(more))
        .send(body ?? {}),
    patch: (path, body, more) =>
      agent
        .patch(at(path))
        .set(headers(more))
        .send(body ?? {}),
    delete: (path, more) => agent.delete(at(path)).set(headers(more)),
    upload: (path, type, bytes) =>
      agent
        .post(at(path))
        .set(headers({ 'Content-Type': type }))
        .send(type === 'application/json' ? bytes.toString() : bytes),
  };
}

/** `field: message` for every broken rule of a problem document. */
export function fieldsOf(response: Response): string[] {
  return ((response.body as { errors?: { field: string; message: string }[] }).errors ?? []).map(
    ({ field, message }) => `${field}: ${message}`,
  );
}

/** Makes something over the API, and says what was refused where it was. @returns the answer */
export const createdBy =
  (owner: () => TestClient) =>
  async <T = { id: string }>(path: string, body: object): Promise<T> => {
    const response = await owner().post(path, body);
    expect(response.status, JSON.stringify(response.body)).toBe(201);
    return response.body as T;
  };

/** Makes things over the API, and answers their ids. */
export function maker(owner: () => TestClient, daysAgo: (days: number) => string) {
  const made = createdBy(owner);
  const created = async (path: string, body: object): Promise<string> => (await made(path, body)).id;
  /** A grown animal, identified as it came in. */
  const animal = (number: string, sex: string, genes: string): Promise<string> =>
    created('/animals', { number, sex, genes, hatchedOn: daysAgo(1500), massG: 1800 });
  return { created, animal };
}

/** Reads an answer of a media type that the client takes for text. */
export const binary: Parameters<Test['parse']>[0] = (response, done) => {
  const parts: Buffer[] = [];
  response.on('data', (part: Buffer) => parts.push(part));
  response.on('end', () => done(null, Buffer.concat(parts)));
};
