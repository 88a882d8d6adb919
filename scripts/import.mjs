/*
 * npm run import -- ARCHIVE --owner E-MAIL [--demo]: takes in a collection that was exported, here or by another installation, for an
 * account that is here.
 */
import fs from 'node:fs';
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

const USAGE = 'npm run import -- ARCHIVE --owner E-MAIL [--demo]';

await runCommand(USAGE, async () => {
  const { words, options } = readWords(['--demo'], ['--owner']);
  if (words.length !== 1 || !options.owner)
    throw new UsageError('Say which archive, and whose it is from now on.');
  const name = options.demo ? 'demo' : 'main';
  const dataDir = dataDirOf(name);
  if (!fs.existsSync(dataDir))
    throw new Error(`There is no data in ${dataDir}: start the server once, and make the owner, first.`);
  const descriptor = openArchive(words[0]);
  await prepareProgram();
  const { code, output } = await withDatabase(name, (database) =>
    runAdmin(dataDir, database, ['import', options.owner], descriptor),
  );
  process.stdout.write(output);
  process.exitCode = code;
});
