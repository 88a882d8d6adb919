import { randomUUID } from 'node:crypto';
import express from 'express';
import request from 'supertest';
import { afterAll, beforeAll, expect, inject, test } from 'vitest';
import { sidePool } from '../src/db/connection.ts';
import { openDatabase } from '../src/db/open.ts';
import type { Database } from '../src/db/work.ts';
import { pageRoutes } from '../src/features/pages/pages.routes.ts';
import { RateLimits } from '../src/http/rate-limits.ts';
import { administer, databaseUrl } from './template.ts';
import { startTestApp, type TestApp } from './test-app.ts';

/* Pages for everybody are read from a standby where there is one, and from the primary where it lacks something or is away. */

let app: TestApp;
let slug: string;
const opened: Database[] = [];

const open = (url: string, log?: (sql: string) => void): Database => {
  const database = openDatabase(url, () => undefined, log ? { log } : {});
  opened.push(database);
  return database;
};

beforeAll(async () => {
  app = await startTestApp();
  const { id } = (await app.owner.post('/animals', { number: 'P-1', sex: 'female', genes: 'Pastel' }))
    .body as {
    id: string;
  };
  await app.owner.post(`/animals/${id}/records`, {
    kind: 'identification',
    on: '2026-01-05',
    body: { genes: 'Pastel', sure: 'certain', by: 'Ida' },
  });
  slug = ((await app.owner.put(`/animals/${id}/publication`, {})).body as { slug: string }).slug;
});
afterAll(async () => {
  for (const { sequelize } of opened) await sequelize.close();
  await app.close();
});

/** The page, as it is read where this is the standby. */
async function pageWith(standby: Database): Promise<{ status: number; text: string }> {
  const pool = sidePool(app.databaseUrl, () => undefined);
  const pages = pageRoutes({ ...app.database, standby }, app.files, new RateLimits(pool));
  const answer = await request(express().use(pages)).get(`/p/${slug}`);
  await pool.end();
  return answer;
}

test('are read from the standby', async () => {
  const asked: string[] = [];
  const page = await pageWith(open(app.databaseUrl, (sql) => asked.push(sql)));
  expect(page.status).toBe(200);
  expect(page.text).toContain('P-1');
  expect(asked.some((sql) => sql.includes('publications'))).toBe(true);
});

test('are read from the primary where the standby does not have them yet', async () => {
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  const serverUrl = inject('serverUrl');
  await administer(serverUrl, `create database ${name} template ${inject('template')} strategy file_copy`);
  expect((await pageWith(open(databaseUrl(serverUrl, name)))).text).toContain('P-1');
});

test('are read from the primary while no standby answers', async () => {
  const away = new URL(app.databaseUrl);
  away.port = '1';
  expect((await pageWith(open(away.href))).text).toContain('P-1');
});
