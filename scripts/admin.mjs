/*
 * npm run admin: what whoever runs the server does beside it, or without it; with --demo on the demo's data.
 */
import fs from 'node:fs';
import {
  dataDirOf,
  prepareProgram,
  readWords,
  runAdmin,
  runCommand,
  UsageError,
  withDatabase,
} from './beside.mjs';

const USAGE = `npm run admin -- reset-password E-MAIL [--demo]
npm run admin -- remove-second-factor E-MAIL [--demo]
npm run admin -- backup-passphrase [--demo]`;

await runCommand(USAGE, async () => {
  const { words, options } = readWords(['--demo']);
  if (words.length === 0) throw new UsageError('Say what to do.');
  const name = options.demo ? 'demo' : 'main';
  const dataDir = dataDirOf(name);
  if (!fs.existsSync(dataDir))
    throw new Error(`There is no data in ${dataDir}: start the server once first.`);
  await prepareProgram();
  const { code, output } = await withDatabase(name, (database) => runAdmin(dataDir, database, words));
  process.stdout.write(output);
  process.exitCode = code;
});
