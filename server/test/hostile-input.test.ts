import { afterAll, beforeAll, expect, test } from 'vitest';
import { machineToday } from '../src/db/work.ts';
import { fuzz } from './hostile/fuzz.ts';
import { HOSTILE_TEXT } from './hostile/generate.ts';
import { ROUTES, routesOf } from './hostile/routes.ts';
import { listening, PASSWORD, startTestApp, type TestApp } from './test-app.ts';

/* Requests that mean harm, made from the schemas themselves. The long form: npm run test:hard. */

let app: TestApp;
let server: Awaited<ReturnType<typeof listening>>;
let origin: string;
beforeAll(async () => {
  app = await startTestApp();
  for (const text of HOSTILE_TEXT) app.log.addressed.add(text);
  server = await listening(app.express);
  ({ origin } = server);
});
afterAll(async () => {
  await server.close();
  await app.close();
});

/** Pages for people, beside the API: tried by test/pages.test.ts and test/taking-in.test.ts. */
const PAGES = [
  'get /api/docs',
  'get /p-assets/:file',
  'get /p/:slug',
  'get /p/:slug/statements/:statement',
  'get /p/:slug/pictures/:id/:width',
  'get /c/:name',
  'get /c/:name/feed.json',
  'get /c/:name/inquiry',
  'post /c/:name/inquiry',
  'get /h/:token',
  'post /h/:token',
];

test('the application serves the routes of the table, the pages for people, and no others', () => {
  const tried = ROUTES.map(({ method, path }) => `${method} ${path}`);
  expect([...tried, ...PAGES].toSorted()).toEqual([...new Set(routesOf(app.express))].toSorted());
});

test('hostile requests to every route: no 5xx, and no page broken afterwards', async () => {
  const outcome = await fuzz({
    origin,
    email: '',
    password: PASSWORD,
    requests: 2_000,
    atOnce: 6,
    seed: 20_261_128,
    today: machineToday(),
    perFarm: 1_000,
    anew: async () => ({ email: await app.newAccount('Hostile'), password: PASSWORD }),
  });
  expect(outcome.faults).toEqual([]);
  expect(outcome.brokenPages).toEqual([]);
  expect(outcome.sent).toBe(2_000);
  // It got through to what is behind the schemas, too.
  expect((outcome.statuses['200'] ?? 0) + (outcome.statuses['201'] ?? 0)).toBeGreaterThan(200);
}, 900_000);
