/*
 * npm run demo and npm start: installs what is missing, starts a private PostgreSQL, migrates, loads the demo data when asked
 * and empty, builds, serves, prints the address and the sign-in. While it runs it watches both: whatever ends without being
 * told to is started again. Ctrl-C stops all of it; the data stays.
 */
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import readline from 'node:readline';
import { setTimeout as sleep } from 'node:timers/promises';
import { ensureDatabase } from './application-database.mjs';
import { installPackages } from './install.mjs';
import { isPortFree } from './ports.mjs';
import { destroyPostgres, postmasterOf, startPostgres, stopPostgres } from './postgres.mjs';
import { ROOT } from './root.mjs';
import { asServiceUser, giveTo, serviceUser } from './service-user.mjs';

const mode = process.argv[2] === 'demo' ? 'demo' : 'start';
const name = mode === 'demo' ? 'demo' : 'main';
const fresh = process.argv.includes('--fresh');
const dataDir = path.join(ROOT, '.data', name);
const port = Number(process.env.PORT ?? 4180);
const host = process.env.HOST ?? '127.0.0.1';

/** Pauses between attempts grow from the first to the last; one that has run so long begins at the first again. */
const FIRST_PAUSE_MS = 500;
const LAST_PAUSE_MS = 10_000;
const STEADY_MS = 60_000;
/** About five minutes of trying. One that never began is not tried so long: it needs a person. */
const MOST_ATTEMPTS = 35;
const MOST_FIRST_ATTEMPTS = 3;
/** The database is looked at so often, and missed only when it was gone several times: a restart takes a moment. */
const LOOK_MS = 1_000;
const LOOKS_MISSED = 3;
/** Longer than the server gives the requests it has accepted. */
const STOP_MS = 25_000;

const say = console.log;
const pauseAfter = (failures) => Math.min(FIRST_PAUSE_MS * 2 ** (failures - 1), LAST_PAUSE_MS);

/** What the server writes belongs to the user it runs as; the database's own files and passwords do not change hands. */
function handOverData(user) {
  fs.mkdirSync(dataDir, { recursive: true, mode: 0o700 });
  if (user.uid === null) return;
  fs.chownSync(dataDir, user.uid, user.gid);
  const kept = new Set(['pg', 'postgres.json', 'reserve']);
  for (const entry of fs.readdirSync(dataDir)) if (!kept.has(entry)) giveTo(user, path.join(dataDir, entry));
}

/** A program of the built server, run as the service user. */
function runBuilt(user, program, env, stdio) {
  const [command, args, options] = asServiceUser(user, process.execPath, [
    path.join(ROOT, 'server/dist', program),
  ]);
  return spawn(command, args, { ...options, env, stdio });
}

const ended = (child) =>
  new Promise((resolve) => {
    child.once('error', (error) => resolve(error.message));
    child.once('exit', (code, signal) => resolve(signal ?? code));
  });

async function main() {
  const [major] = process.versions.node.split('.').map(Number);
  if (major !== 20) throw new Error(`Node 20 is needed; this is ${process.version}.`);
  if (!(await isPortFree(port, host)))
    throw new Error(`Port ${port} is taken. Stop what uses it, or choose another: PORT=4190 npm run ${mode}`);
  const ownDatabase = process.env.DATABASE_URL || undefined;
  if (mode === 'demo' && ownDatabase)
    throw new Error('The demo keeps its own database: start it without DATABASE_URL.');
  if (fresh && mode !== 'demo') throw new Error('--fresh is for the demo: it would delete your records.');
  installPackages();
  const { build } = await import('./build.mjs');
  await build();
  if (fresh) await destroyPostgres(name);
  say(`Data is in ${dataDir}${ownDatabase ? ', the records in the database of DATABASE_URL' : ''}`);
  try {
    const supervisor = new Supervisor(ownDatabase ?? null);
    for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => supervisor.stop());
    await supervisor.run();
  } finally {
    if (!ownDatabase) await stopPostgres(name);
  }
}

/** Keeps the database and the server running until it is told to stop, or gives up. */
class Supervisor {
  constructor(ownDatabase) {
    this.ownDatabase = ownDatabase;
    this.isStopping = false;
    this.server = null;
    this.cluster = null;
    this.hasListened = false;
    this.wakers = new Set();
  }

  stop() {
    if (this.isStopping) return;
    this.isStopping = true;
    this.wake();
    const { server } = this;
    if (!server) return;
    server.kill('SIGTERM');
    setTimeout(() => server.kill('SIGKILL'), STOP_MS).unref();
  }

  /** Ends pauses: there is something to do. */
  wake() {
    for (const wake of this.wakers) wake();
  }

  async pause(ms) {
    let wake;
    await Promise.race([
      sleep(ms),
      new Promise((resolve) => {
        wake = resolve;
        this.wakers.add(wake);
      }),
    ]);
    this.wakers.delete(wake);
  }

  async run() {
    const databaseUrl = this.ownDatabase ?? (await this.openDatabase());
    const user = serviceUser(ROOT);
    handOverData(user);
    const env = {
      ...process.env,
      KARYOTOME_DATA: dataDir,
      KARYOTOME_WEB: path.join(ROOT, 'web/dist'),
      LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
      KARYOTOME_PARENT: '1',
      ...(this.cluster ? { POSTGRES_PROGRAMS: this.cluster.programs } : {}),
      HOME: dataDir,
    };
    if (mode === 'demo') await this.loadDemo(user, { ...env, DATABASE_URL: databaseUrl });
    let watching = Promise.resolve();
    if (!this.ownDatabase) watching = this.watchDatabase();
    await Promise.all([this.keepServer(user, env, databaseUrl), watching]);
  }

  async openDatabase() {
    this.cluster = await startPostgres(name, say);
    return ensureDatabase(this.cluster, 'karyotome');
  }

  async loadDemo(user, env) {
    const seed = runBuilt(user, 'demo.js', env, ['ignore', 'inherit', 'inherit']);
    this.server = seed;
    const code = await ended(seed);
    this.server = null;
    if (code !== 0 && !this.isStopping) throw new Error('The demo data could not be loaded.');
  }

  async keepServer(user, env, databaseUrl) {
    let failures = 0;
    while (!this.isStopping) {
      const url = this.cluster ? this.cluster.applicationUrl('karyotome') : databaseUrl;
      const began = Date.now();
      const code = await this.serveOnce(user, { ...env, DATABASE_URL: url });
      if (this.isStopping) return;
      if (Date.now() - began > STEADY_MS) failures = 0;
      failures += 1;
      if (failures >= (this.hasListened ? MOST_ATTEMPTS : MOST_FIRST_ATTEMPTS)) {
        this.isStopping = true;
        this.wake();
        throw new Error(`The server ended ${failures} times (${code}): giving up.`);
      }
      const pause = pauseAfter(failures);
      console.error(`The server ended (${code}). It is started again in ${pause / 1000} s.`);
      await this.pause(pause);
    }
  }

  async serveOnce(user, env) {
    // The server also watches this pipe: should we be killed, it ends by itself.
    const server = runBuilt(user, 'main.js', env, ['pipe', 'pipe', 'inherit']);
    this.server = server;
    server.stdin.on('error', () => undefined);
    readline.createInterface({ input: server.stdout }).on('line', (line) => {
      const listening = /^listening (\d+)$/.exec(line);
      if (!listening) say(line);
      else if (this.hasListened) say('The server is back.');
      else this.greet(listening[1]);
    });
    const code = await ended(server);
    this.server = null;
    return code;
  }

  greet(listening) {
    this.hasListened = true;
    say(`\nKaryotome is at http://${host}:${listening}`);
    const signIn = path.join(dataDir, 'owner-sign-in.txt');
    if (mode === 'demo' && fs.existsSync(signIn)) {
      const [email, password] = fs.readFileSync(signIn, 'utf8').split('\n');
      say(`Sign in as ${email} with ${password}`);
    }
    say('Ctrl-C stops it.');
  }

  async watchDatabase() {
    let missed = 0;
    let failures = 0;
    while (!this.isStopping) {
      await this.pause(LOOK_MS);
      if (this.isStopping) return;
      missed = postmasterOf(this.cluster.dataDir) === null ? missed + 1 : 0;
      if (missed === 0) failures = 0;
      if (missed < LOOKS_MISSED) continue;
      try {
        console.error('The database has ended. It is started again.');
        const before = this.cluster.applicationUrl('karyotome');
        this.cluster = await startPostgres(name, say);
        missed = 0;
        say('The database is back.');
        // On another port the server has to begin anew.
        if (this.cluster.applicationUrl('karyotome') !== before) this.server?.kill('SIGTERM');
      } catch (error) {
        failures += 1;
        console.error(error instanceof Error ? error.message : error);
        if (failures >= MOST_ATTEMPTS) {
          this.stop();
          throw new Error('The database could not be started again: giving up.', { cause: error });
        }
        await this.pause(pauseAfter(failures));
      }
    }
  }
}

try {
  await main();
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  process.exitCode = 1;
}
// A pipe of a child that hangs must not keep us.
process.exit();
