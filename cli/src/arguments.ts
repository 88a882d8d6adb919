import { parseArgs } from 'node:util';
import { InputError } from '@karyotome/core';

/** Bad input: one line that names the field at fault; exit code 2. */
export class UsageError extends Error {}

export interface CommandResult {
  readonly output: string;
  /** 0 success, 1 the answer is "no", 2 bad input. */
  readonly code: 0 | 1 | 2;
}

export type ReadFile = (path: string) => Uint8Array;

export function options(
  args: readonly string[],
  names: readonly string[],
): { values: Record<string, string | boolean | undefined>; positionals: string[] } {
  try {
    return parseArgs({
      args: [...args],
      allowPositionals: true,
      options: {
        json: { type: 'boolean' },
        ...Object.fromEntries(names.map((name) => [name, { type: 'string' as const }])),
      },
    }) as never;
  } catch (error) {
    throw new UsageError(`options: ${(error as Error).message.split('\n')[0]}`);
  }
}

/** The file of a command that takes one, read. */
export function fileArgument(
  args: readonly string[],
  read: ReadFile,
): { readonly bytes: Uint8Array; readonly isJson: boolean } {
  const { values, positionals } = options(args, []);
  const [path] = positionals;
  if (path === undefined || positionals.length > 1)
    throw new UsageError('file: give one file, or - for standard input');
  try {
    return { bytes: read(path), isJson: values['json'] === true };
  } catch {
    throw new UsageError(`file: ${path} cannot be read`);
  }
}

/** Tells the first thing that is wrong with a document, in one line. */
export function usageErrorOf(error: unknown): unknown {
  if (!(error instanceof InputError)) return error;
  const [issue] = error.issues;
  return new UsageError(`${issue!.path}: ${issue!.message}`.replaceAll(/\s+/g, ' '));
}

/** @throws UsageError where the document is refused */
export function refusing<T>(read: () => T): T {
  try {
    return read();
  } catch (error) {
    throw usageErrorOf(error);
  }
}
