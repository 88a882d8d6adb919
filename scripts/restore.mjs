/*
 * npm run restore -- ARCHIVE [--passphrase-file FILE] [--demo]: fills an installation that holds no records yet with a backup.
 */
import fs from 'node:fs';
import path from 'node:path';
import readline from 'node:readline/promises';
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
import { ROOT } from './root.mjs';
import { serviceUser } from './service-user.mjs';

const USAGE = 'npm run restore -- ARCHIVE [--passphrase-file FILE] [--demo]';

await runCommand(USAGE, async () => {
  const { words, options } = readWords(['--demo'], ['--passphrase-file']);
  if (words.length !== 1) throw new UsageError('Say which archive.');
  const name = options.demo ? 'demo' : 'main';
  const descriptor = openArchive(words[0]);
  const passphrase = await passphraseFrom(options['passphrase-file']);
  await prepareProgram();
  const dataDir = dataDirOf(name);
  // Whoever the database runs as has to come through the folder above.
  fs.mkdirSync(path.dirname(dataDir), { recursive: true });
  fs.mkdirSync(dataDir, { recursive: true, mode: 0o700 });
  const user = serviceUser(ROOT);
  if (user.uid !== null) fs.chownSync(dataDir, user.uid, user.gid);
  const { code, output } = await withDatabase(name, (database) =>
    runAdmin(dataDir, database, ['restore'], descriptor, { BACKUP_PASSPHRASE: passphrase }),
  );
  process.stdout.write(output);
  if (code === 0) console.log(`Start it: npm ${name === 'demo' ? 'run demo' : 'start'}`);
  process.exitCode = code;
});

async function passphraseFrom(file) {
  if (file) return fs.readFileSync(file, 'utf8').trim();
  if (process.env.BACKUP_PASSPHRASE) return process.env.BACKUP_PASSPHRASE;
  const lines = readline.createInterface({ input: process.stdin, output: process.stderr });
  const answer = await lines.question('Passphrase of the backup: ');
  lines.close();
  return answer.trim().replace(/\s+/g, ' ');
}
