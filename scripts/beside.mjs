/* Programs of the built server that run beside it, or without it: npm run admin, backup and restore. */
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { ensureDatabase } from './application-database.mjs';
import { installPackages } from './install.mjs';
import { postmasterOf, startPostgres, stopPostgres } from './postgres.mjs';
import { ROOT } from './root.mjs';
import { asServiceUser, serviceUser } from './service-user.mjs';

/** What is wrong with how it was called. */
export class UsageError extends Error {}

/**
 * Reads the words of a command line.
 *
 * @param {readonly string[]} flags - options without a value
 * @param {readonly string[]} valued - options with one
 */
export function readWords(flags, valued = []) {
  const words = [];
  const options = {};
  const rest = process.argv.slice(2);
  while (rest.length > 0) {
    const word = rest.shift();
    if (flags.includes(word)) options[word.slice(2)] = true;
    else if (valued.includes(word)) {
      if (rest.length === 0) throw new UsageError(`${word} needs a value.`);
      options[word.slice(2)] = rest.shift();
    } else if (word.startsWith('--')) throw new UsageError(`There is no option ${word}.`);
    else words.push(word);
  }
  return { words, options };
}

/** The folder under .data/ that a command is about. */
export const dataDirOf = (name) => path.join(ROOT, '.data', name);

export async function prepareProgram() {
  installPackages();
  const { build } = await import('./build.mjs');
  await build();
}

/**
 * Runs it with the database of a data folder, which is started for it where it does not run.
 *
 * @param {string} name - of the data folder
 * @param {(database: { url: string, programs: string | null }) => Promise<T>} run
 * @template T
 */
export async function withDatabase(name, run) {
  const own = name === 'main' ? process.env.DATABASE_URL || null : null;
  if (own) return run({ url: own, programs: process.env.POSTGRES_PROGRAMS || null });
  const wasRunning = postmasterOf(path.join(dataDirOf(name), 'pg')) !== null;
  const cluster = await startPostgres(name === 'demo' ? 'demo' : 'main', () => undefined, name);
  try {
    return await run({ url: await ensureDatabase(cluster, 'karyotome'), programs: cluster.programs });
  } finally {
    if (!wasRunning) await stopPostgres(name);
  }
}

/**
 * Runs the built server's program for whoever runs the server, as the server's own user.
 *
 * @param {string} dataDir
 * @param {{ url: string, programs: string | null }} database
 * @param {readonly string[]} words
 * @param {number | null} descriptor - of a file that this user may open and that one may not; null for none
 * @param {Record<string, string>} env - what it is told besides
 * @returns {Promise<{ code: number, output: string }>} what it wrote to its standard output
 */
export async function runAdmin(dataDir, database, words, descriptor = null, env = {}) {
  const [command, args, options] = asServiceUser(serviceUser(ROOT), process.execPath, [
    path.join(ROOT, 'server/dist/admin.js'),
    ...words,
  ]);
  const child = spawn(command, args, {
    ...options,
    env: {
      ...process.env,
      DATABASE_URL: database.url,
      ...(database.programs ? { POSTGRES_PROGRAMS: database.programs } : {}),
      KARYOTOME_DATA: dataDir,
      HOME: dataDir,
      ...env,
    },
    stdio: ['inherit', 'pipe', 'inherit', ...(descriptor === null ? [] : [descriptor])],
  });
  let output = '';
  child.stdout.setEncoding('utf8').on('data', (text) => (output += text));
  const code = await new Promise((resolve, reject) => {
    child.once('error', reject);
    child.once('close', (status) => resolve(status ?? 1));
  });
  return { code, output };
}

/** Runs a command's main function, and says what went wrong in a line. @param {() => Promise<void>} main */
export async function runCommand(usage, main) {
  try {
    await main();
  } catch (error) {
    console.error(error instanceof Error ? error.message : String(error));
    if (error instanceof UsageError) console.error(usage);
    process.exitCode = error instanceof UsageError ? 2 : 1;
  }
}

export function openArchive(file) {
  try {
    return fs.openSync(path.resolve(file), 'r');
  } catch (error) {
    throw new Error(`${file} cannot be read: ${error.code}`, { cause: error });
  }
}
