import { ROUTES, type NewToken, type Route } from '@karyotome/contract';
import request from 'supertest';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { API_EXAMPLES, WEBHOOK_EXAMPLES } from '../src/http/api-examples.ts';
import { startTestApp, type TestApp } from './test-app.ts';

/* The examples of the API's description, run as they stand there, by a program with a token. */

let app: TestApp;
let token: string;
beforeAll(async () => {
  app = await startTestApp();
  ({ token } = (await app.owner.post('/account/tokens', { name: 'Examples', scope: 'record', days: 1 }))
    .body as NewToken);
});
afterAll(() => app.close());

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;
/** Ids of the examples -> ids that the server gave. */
const ids = new Map<string, string>();
const given = (text: string): string =>
  text.replace(/[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}/g, (id) => ids.get(id) ?? id);

/** Holds an answer against what is shown of it; an id that is seen for the first time stands for what the server gave. */
function compare(shown: unknown, answer: unknown, path: string): void {
  if (typeof shown === 'string' && UUID.test(shown)) {
    expect(answer, path).toMatch(UUID);
    if (!ids.has(shown)) ids.set(shown, answer as string);
    expect(answer, path).toBe(ids.get(shown));
  } else if (Array.isArray(shown)) {
    expect(answer, path).toHaveLength(shown.length);
    shown.forEach((one, i) => compare(one, (answer as unknown[])[i], `${path}[${i}]`));
  } else if (typeof shown === 'object' && shown !== null)
    for (const [name, one] of Object.entries(shown))
      compare(one, (answer as Record<string, unknown>)[name], `${path}.${name}`);
  else expect(answer, path).toBe(shown);
}

test('each does what is shown', async () => {
  for (const { title, route, params = {}, query = {}, body, status, answer } of API_EXAMPLES) {
    const { method, path }: Route = ROUTES[route];
    const address = path.replace(/:(\w+)/g, (_, name: string) => given(params[name]!));
    const asked = request(app.express)
      [method](`/api/v1${address}`)
      .query(query)
      .set('Authorization', `Bearer ${token}`);
    const answered = await (body ? asked.send(JSON.parse(given(JSON.stringify(body))) as object) : asked);
    expect(answered.status, `${title}: ${answered.text}`).toBe(status);
    if (answer) compare(answer, answered.body, title);
    else expect(answered.text).toBe('');
  }
});

test('the page shows them, and those of webhooks', async () => {
  const { text } = await request(app.express).get('/api/docs');
  for (const { title } of API_EXAMPLES) expect(text).toContain(title.replaceAll('&', '&amp;'));
  for (const { says } of Object.values(WEBHOOK_EXAMPLES)) expect(text).toContain(says);
});
