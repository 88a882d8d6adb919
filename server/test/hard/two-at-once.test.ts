import { afterAll, beforeAll, describe } from 'vitest';
import { raceTests } from '../races.ts';
import { startTestApp, type TestApp, type TestClient } from '../test-app.ts';

let app: TestApp;
let one: TestClient;
let two: TestClient;
beforeAll(async () => {
  app = await startTestApp();
  one = app.owner;
  two = await app.colleague();
});
afterAll(() => app.close());

describe('two people at once, many times', () => {
  raceTests(() => ({ app, one, two }), 50);
});
