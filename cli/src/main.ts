import { readFileSync } from 'node:fs';
import { runCommand, UsageError } from './commands.ts';

/** `-` reads standard input; anything else is a file's path. */
const read = (path: string): string => readFileSync(path === '-' ? 0 : path, 'utf8');

try {
  const { output, code } = runCommand(process.argv.slice(2), read);
  process.stdout.write(`${output}\n`);
  process.exitCode = code;
} catch (error) {
  if (!(error instanceof UsageError)) throw error;
  process.stderr.write(`${error.message}\n`);
  process.exitCode = 2;
}
