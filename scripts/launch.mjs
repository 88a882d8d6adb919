/*
 * npm run demo and npm start: installs what is missing, starts a private PostgreSQL, migrates, loads the demo data when
 * asked and empty, builds, serves, prints the address and the sign-in. Ctrl-C stops all of it; the data stays.
 */
import { spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import net from 'node:net';
import path from 'node:path';
import { installPackages } from './install.mjs';
import { destroyPostgres, ROOT, startPostgres, stopPostgres } from './postgres.mjs';

const mode = process.argv[2] === 'demo' ? 'demo' : 'start';
const name = mode === 'demo' ? 'demo' : 'main';
const fresh = process.argv.includes('--fresh');
const dataDir = path.join(ROOT, '.data', name);
const port = Number(process.env.PORT ?? 4180);
const host = process.env.HOST ?? '127.0.0.1';

function fail(message) {
  console.error(message);
  process.exit(1);
}

function portIsFree() {
  return new Promise((resolve) => {
    const probe = net.createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, host, () => probe.close(() => resolve(true)));
  });
}

async function ensureDatabase(url, database) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: url('postgres') });
  await client.connect();
  const { rowCount } = await client.query('select 1 from pg_database where datname = $1', [database]);
  if (rowCount === 0) await client.query(`create database ${database}`);
  await client.end();
  return url(database);
}

async function main() {
  const [major] = process.versions.node.split('.').map(Number);
  if (major !== 20) fail(`Node 20 is needed; this is ${process.version}.`);
  if (!(await portIsFree()))
    fail(`Port ${port} is taken. Stop what uses it, or choose another: PORT=4190 npm run ${mode}`);
  installPackages();
  const ownDatabase = process.env.DATABASE_URL;
  if (mode === 'demo' && ownDatabase) fail('The demo keeps its own database: start it without DATABASE_URL.');
  if (fresh && mode === 'demo') await destroyPostgres(name);
  else if (fresh) fail('--fresh is for the demo: it would delete your records.');
  fs.mkdirSync(dataDir, { recursive: true, mode: 0o700 });
  const { build } = await import('./build.mjs');
  await build();
  const databaseUrl = ownDatabase ?? (await ensureDatabase((await startPostgres(name)).url, 'karyotome'));
  const env = {
    ...process.env,
    DATABASE_URL: databaseUrl,
    KARYOTOME_DATA: dataDir,
    KARYOTOME_WEB: path.join(ROOT, 'web/dist'),
    LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
    KARYOTOME_PARENT: '1',
  };
  if (mode === 'demo') {
    const seeded = spawnSync(process.execPath, [path.join(ROOT, 'server/dist/demo.js')], {
      env,
      stdio: ['ignore', 'inherit', 'inherit'],
    });
    if (seeded.status !== 0) throw new Error('The demo data could not be loaded.');
  }
  await serve(env, ownDatabase === undefined);
}

/** Runs the server until it ends or we are told to stop; then stops the database that is ours. */
async function serve(env, isOurDatabase) {
  // The server also watches this pipe: should we be killed, it ends by itself.
  const server = spawn(process.execPath, [path.join(ROOT, 'server/dist/main.js')], {
    env,
    stdio: ['pipe', 'pipe', 'inherit'],
  });
  const stop = () => server.kill('SIGTERM');
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  server.stdout.setEncoding('utf8');
  server.stdout.on('data', (text) => {
    const listening = /^listening (\d+)$/m.exec(text);
    if (!listening) return process.stdout.write(text);
    console.log(`\nKaryotome is at http://${host}:${listening[1]}`);
    const signIn = path.join(dataDir, 'owner-sign-in.txt');
    if (fs.existsSync(signIn)) {
      const [email, password] = fs.readFileSync(signIn, 'utf8').split('\n');
      console.log(`Sign in as ${email} with ${password}`);
    }
    console.log('Ctrl-C stops it.');
  });
  const code = await new Promise((resolve) => server.on('exit', resolve));
  if (isOurDatabase) await stopPostgres(name);
  process.exit(code ?? 0);
}

try {
  await main();
} catch (error) {
  fail(error instanceof Error ? error.message : String(error));
}
