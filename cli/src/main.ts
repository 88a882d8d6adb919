import { readFileSync } from 'node:fs';
import { UsageError } from './arguments.ts';
import { runCommand } from './commands.ts';

/** `-` reads standard input; anything else is a file's path. */
const read = (path: string): Uint8Array => readFileSync(path === '-' ? 0 : path);

try {
  const { output, code } = await runCommand(process.argv.slice(2), read);
  process.stdout.write(`${output}\n`);
  process.exitCode = code;
} catch (error) {
  if (!(error instanceof UsageError)) throw error;
  process.stderr.write(`${error.message}\n`);
  process.exitCode = 2;
}
