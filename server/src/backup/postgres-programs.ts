import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { join } from 'node:path';
import type { Readable } from 'node:stream';

/* PostgreSQL's own programs. The password reaches them by their environment, where no list of processes shows it. */

type Environment = Readonly<Record<string, string>>;

function connectionOf(url: string): Environment {
  const { hostname, port, username, password, pathname, searchParams } = new URL(url);
  const sslMode = searchParams.get('sslmode');
  return {
    PGHOST: hostname,
    PGPORT: port || '5432',
    PGUSER: decodeURIComponent(username),
    PGPASSWORD: decodeURIComponent(password),
    PGDATABASE: decodeURIComponent(pathname.slice(1)),
    ...(sslMode === null ? {} : { PGSSLMODE: sslMode }),
  };
}

/** What it said when it failed, without the rest. */
const MOST_SAID = 2_000;

export interface Program {
  readonly child: ChildProcess;
  /** Resolves when it has ended well. Rejects with what it said where it has not. */
  readonly ended: Promise<void>;
}

function start(folder: string | null, name: string, args: readonly string[], url: string): Program {
  const command = folder === null ? name : join(folder, name);
  const child = spawn(command, args, {
    // Nothing of this process's environment concerns it but where programs are.
    env: { ...connectionOf(url), PATH: '/usr/local/bin:/usr/bin:/bin', LC_ALL: 'C.UTF-8' },
    stdio: ['pipe', 'pipe', 'pipe'],
  });
  let said = '';
  child.stderr.setEncoding('utf8').on('data', (text: string) => (said = (said + text).slice(-MOST_SAID)));
  const ended = once(child, 'close').then(([code]) => {
    if (code !== 0) throw new Error(`${name} failed (${code}): ${said.trim()}`);
  });
  // Whoever asks for it is told; nobody may ask where something else failed before.
  ended.catch(() => undefined);
  return { child, ended };
}

/**
 * Dumps a database as another connection sees it.
 *
 * @param folder - where PostgreSQL's programs are; null where the system finds them
 */
export function dumpDatabase(
  folder: string | null,
  url: string,
  snapshot: string,
  withoutRows: readonly string[],
): Program & { readonly output: Readable } {
  const program = start(
    folder,
    'pg_dump',
    [
      '--format=custom',
      '--no-owner',
      '--no-privileges',
      '--schema=public',
      // The policies bind a collection's work alone: without this, a table that has one is refused.
      '--enable-row-security',
      `--snapshot=${snapshot}`,
      ...withoutRows.map((table) => `--exclude-table-data=public.${table}`),
    ],
    url,
  );
  program.child.stdin!.end();
  return { ...program, output: program.child.stdout! };
}

/** Restores a dump that it reads from its input: all of it, or nothing. */
export function restoreDatabase(folder: string | null, url: string): Program {
  const program = start(
    folder,
    'pg_restore',
    [
      '--no-owner',
      '--no-privileges',
      '--schema=public',
      '--single-transaction',
      '--exit-on-error',
      `--dbname=${new URL(url).pathname.slice(1)}`,
    ],
    url,
  );
  program.child.stdout!.resume();
  return program;
}
