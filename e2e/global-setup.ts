import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build } from '../scripts/build.mjs';
import { ROOT } from '../scripts/root.mjs';
import { administer, databaseUrl, prepareTemplate } from '../server/test/template.ts';

/**
 * The built application, a migrated database and one with the demo farm: every spec gets a copy of its own.
 *
 * @returns takes away what was made for this run
 */
export default async function setup(): Promise<() => Promise<void>> {
  await build();
  const { serverUrl, template } = await prepareTemplate();
  process.env['E2E_SERVER_URL'] = serverUrl;
  process.env['E2E_TEMPLATE'] = template;
  const demo = `e2e_demo_${randomUUID().replaceAll('-', '')}`;
  const demoData = mkdtempSync(join(tmpdir(), 'karyotome-e2e-demo-'));
  process.env['E2E_DEMO_TEMPLATE'] = demo;
  process.env['E2E_DEMO_DATA'] = demoData;
  await administer(serverUrl, `create database ${demo} template ${template} strategy file_copy`);
  const env = { ...process.env, DATABASE_URL: databaseUrl(serverUrl, demo), KARYOTOME_DATA: demoData };
  const loaded = spawnSync(process.execPath, [join(ROOT, 'server/dist/demo.js')], { env, encoding: 'utf8' });
  if (loaded.status !== 0) throw new Error(`The demo could not be loaded: ${loaded.stderr}`);
  return async () => {
    await administer(serverUrl, `drop database ${demo} with (force)`);
    rmSync(demoData, { recursive: true, force: true });
  };
}
