/*
 * npm run backup [-- --to FOLDER]: one archive of all records, files and keys of one moment, while the server runs or without
 * it. npm run backup -- --verify ARCHIVE: restores one aside and compares it. With --demo of the demo's data.
 */
import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { ensureDatabase } from './application-database.mjs';
import {
  dataDirOf,
  openArchive,
  prepareProgram,
  readWords,
  runAdmin,
  runCommand,
  UsageError,
  withDatabase,
} from './beside.mjs';
import { destroyPostgres, startPostgres } from './postgres.mjs';

const USAGE = `npm run backup [-- --to FOLDER] [--demo]
npm run backup -- --verify ARCHIVE [--demo]`;

await runCommand(USAGE, async () => {
  const { words, options } = readWords(['--demo'], ['--to', '--verify']);
  if (words.length > 0) throw new UsageError(`What is ${words[0]}?`);
  if (options.to && options.verify) throw new UsageError('Either --to or --verify.');
  const name = options.demo ? 'demo' : 'main';
  if (options.verify) return verify(name, options.verify);
  if (!fs.existsSync(dataDirOf(name))) throw new Error(`There is no data in ${dataDirOf(name)}.`);
  await prepareProgram();
  await (options.to ? backUpTo(name, path.resolve(options.to)) : backUp(name));
});

/** To where the nightly ones go. */
async function backUp(name) {
  const { code, output } = await withDatabase(name, (database) =>
    runAdmin(dataDirOf(name), database, ['backup']),
  );
  process.exitCode = code;
  if (code === 0) told(JSON.parse(output).file);
}

/** To a folder of whoever asks: the server's user need not be allowed to write there. */
async function backUpTo(name, folder) {
  fs.mkdirSync(folder, { recursive: true, mode: 0o700 });
  const unfinished = path.join(folder, `karyotome-${randomUUID()}.zip.part`);
  const descriptor = fs.openSync(unfinished, 'wx', 0o600);
  try {
    const { code, output } = await withDatabase(name, (database) =>
      runAdmin(dataDirOf(name), database, ['backup'], descriptor),
    );
    process.exitCode = code;
    if (code !== 0) return;
    fs.fsyncSync(descriptor);
    const file = path.join(folder, JSON.parse(output).name);
    fs.renameSync(unfinished, file);
    told(file);
  } finally {
    fs.closeSync(descriptor);
    fs.rmSync(unfinished, { force: true });
  }
}

function told(file) {
  console.log(`Backed up to ${file}`);
  console.log(
    'To restore its keys needs its passphrase: npm run admin -- backup-passphrase shows it. Keep it elsewhere.',
  );
}

/** In a database that is made for it, beside all others, and removed again. */
async function verify(name, archive) {
  const descriptor = openArchive(archive);
  await prepareProgram();
  const aside = `verify-${process.pid}`;
  try {
    const cluster = await startPostgres('tests', () => undefined, aside);
    const database = { url: await ensureDatabase(cluster, 'karyotome'), programs: cluster.programs };
    const { code, output } = await runAdmin(dataDirOf(name), database, ['verify'], descriptor);
    process.stdout.write(output);
    process.exitCode = code;
  } finally {
    fs.closeSync(descriptor);
    await destroyPostgres(aside);
  }
}
