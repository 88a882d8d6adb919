import { ROUTES, type Permission, type Route } from '@karyotome/contract';
import { Validator } from '@seriousme/openapi-schema-validator';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { permissionsOf } from '../src/access/policy.ts';
import { startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* The table of routes: who may use each, and how it is described. */

const ROLES = ['owner', 'keeper', 'helper', 'viewer'] as const;
let app: TestApp;
const clients: Partial<Record<(typeof ROLES)[number] | 'nobody', TestClient>> = {};
beforeAll(async () => {
  app = await startTestApp();
  clients.owner = app.owner;
  clients.keeper = await app.newCollection('Of a keeper', 'keeper');
  clients.helper = await app.newCollection('Of a helper', 'helper');
  clients.viewer = await app.newCollection('Of a viewer', 'viewer');
  clients.nobody = app.anonymous;
});
afterAll(() => app.close());

const ID = '11111111-1111-4111-8111-111111111111';
const routes = Object.entries<Route>(ROUTES).filter(([, { format }]) => format !== 'events');
/** Ends the session that the other tests go on with. */
const ENDS_SESSION: Route = ROUTES.signOut;

/** What stands for a parameter: nothing that exists. */
const addressOf = ({ path }: Route): string =>
  path.replace(/:(\w+)/g, (_, name: string) => (name === 'id' ? ID : 'nothing'));

async function ask(client: TestClient, route: Route): Promise<number> {
  const path = addressOf(route);
  const headers = { 'If-Match': '"1"' };
  switch (route.method) {
    case 'get':
      return (await client.get(path)).status;
    case 'delete':
      return (await client.delete(path, headers)).status;
    default:
      return (await client[route.method](path, {}, headers)).status;
  }
}

const mayUse = (role: (typeof ROLES)[number], permission: Permission): boolean =>
  permission === 'open' || permission === 'own' || permissionsOf({ role }).includes(permission);

describe.each(routes.filter(([, route]) => route !== ENDS_SESSION))('%s', (_name, route) => {
  test.each(ROLES)('asked by a(n) %s', async (role) => {
    const status = await ask(clients[role]!, route);
    if (mayUse(role, route.permission)) expect([401, 403]).not.toContain(status);
    else expect(status).toBe(403);
  });

  test('asked by nobody', async () => {
    const status = await ask(clients.nobody!, route);
    if (route.permission === 'open') expect([401, 403]).not.toContain(status);
    else expect(status).toBe(401);
  });
});

test('a session says what its person may do', async () => {
  for (const role of ROLES) {
    const { body } = await clients[role]!.get('/session');
    expect(body).toMatchObject({ role, permissions: permissionsOf({ role }) });
  }
});

test('the description is one of OpenAPI 3.1, and names every route', async () => {
  const { status, body } = await app.anonymous.get('/openapi.json');
  expect(status).toBe(200);
  const result = await new Validator().validate(body as Record<string, unknown>);
  expect(result.errors ?? []).toEqual([]);
  expect(result.valid).toBe(true);
  const described = Object.entries((body as { paths: Record<string, object> }).paths).flatMap(
    ([path, methods]) =>
      Object.keys(methods).map((method) => `${method} ${path.replace(/\{(\w+)\}/g, ':$1')}`),
  );
  const table = Object.values<Route>(ROUTES).map(({ method, path }) => `${method} ${path}`);
  expect(described.toSorted()).toEqual(table.toSorted());
  expect(body).toMatchObject({
    openapi: '3.1.0',
    paths: {
      '/animals/{id}': {
        patch: {
          operationId: 'changeAnimal',
          parameters: [{ name: 'id' }, { name: 'If-Match' }, { name: 'Idempotency-Key' }],
        },
      },
      '/session': {
        post: {
          security: [],
          requestBody: { content: { 'application/json': { schema: { required: ['email', 'password'] } } } },
        },
      },
    },
  });
});

test('the description is a page for people as well, with every route and field', async () => {
  const { status, text, headers } = await request(app.express).get('/api/docs');
  expect(status).toBe(200);
  expect(headers['content-type']).toContain('text/html');
  for (const name of Object.keys(ROUTES)) expect(text, name).toContain(`id="${name}"`);
  // A field within a field, what it may be, and that it is needed.
  expect(text).toMatch(/<code>farm\.currency<\/code>.*?needed/);
  expect(text).not.toMatch(/https?:\/\/(?!127)/);
});
