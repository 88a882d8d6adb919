/*
 * npm run admin -- reset-password E-MAIL: makes a link by which somebody chooses a new password. Works beside a running server,
 * and without one; with --demo on the demo's data.
 */
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { installPackages } from './install.mjs';
import { postmasterOf, startPostgres, stopPostgres } from './postgres.mjs';
import { ROOT } from './root.mjs';
import { asServiceUser, serviceUser } from './service-user.mjs';

const words = process.argv.slice(2).filter((word) => word !== '--demo');
const name = process.argv.includes('--demo') ? 'demo' : 'main';
const dataDir = path.join(ROOT, '.data', name);

async function main() {
  if (words.length === 0) {
    console.error('npm run admin -- reset-password E-MAIL [--demo]');
    process.exitCode = 2;
    return;
  }
  if (!fs.existsSync(dataDir))
    throw new Error(`There is no data in ${dataDir}: start the server once first.`);
  installPackages();
  const { build } = await import('./build.mjs');
  await build();
  const own = process.env.DATABASE_URL || null;
  const wasRunning = own !== null || postmasterOf(path.join(dataDir, 'pg')) !== null;
  const url = own ?? (await startPostgres(name)).applicationUrl('karyotome');
  try {
    const [command, args, options] = asServiceUser(serviceUser(ROOT), process.execPath, [
      path.join(ROOT, 'server/dist/admin.js'),
      ...words,
    ]);
    const env = { ...process.env, DATABASE_URL: url, KARYOTOME_DATA: dataDir, HOME: dataDir };
    const child = spawn(command, args, { ...options, env, stdio: 'inherit' });
    process.exitCode = await new Promise((resolve) => child.once('exit', (code) => resolve(code ?? 1)));
  } finally {
    if (!wasRunning) await stopPostgres(name);
  }
}

try {
  await main();
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  process.exitCode = 1;
}
