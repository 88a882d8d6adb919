import { randomUUID } from 'node:crypto';
import { closeSync, mkdtempSync, openSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { inject } from 'vitest';
import { restore } from '../src/backup/commands.ts';
import type { Config } from '../src/config.ts';
import { administer, databaseUrl } from './template.ts';

/* All that an installation holds, its database and its files, read independently of what makes backups. */

/** An installation on another machine: an empty database and an empty data folder. */
export async function elsewhere(
  run: (place: { url: string; dataDir: string }) => Promise<void>,
): Promise<void> {
  const name = `elsewhere_${randomUUID().replaceAll('-', '')}`;
  await administer(inject('serverUrl'), `create database ${name}`);
  const dataDir = mkdtempSync(join(tmpdir(), 'karyotome-elsewhere-'));
  try {
    await run({ url: databaseUrl(inject('serverUrl'), name), dataDir });
  } finally {
    await administer(inject('serverUrl'), `drop database ${name} with (force)`);
    rmSync(dataDir, { recursive: true, force: true });
  }
}

/** Restores an archive. */
export async function restoreTo(archive: string, place: Config): Promise<void> {
  const descriptor = openSync(archive, 'r');
  try {
    await restore(place, descriptor);
  } finally {
    closeSync(descriptor);
  }
}

/** Every row of every table, by table. */
export async function rowsOf(url: string): Promise<Record<string, string[]>> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    const { rows: tables } = await client.query<{ name: string }>(
      `select table_name as name from information_schema.tables
        where table_schema = 'public' and table_type = 'BASE TABLE' order by 1`,
    );
    const all: Record<string, string[]> = {};
    for (const { name } of tables) {
      const { rows } = await client.query<{ row: unknown }>(`select to_jsonb(t) as row from ${name} t`);
      all[name] = rows.map(({ row }) => JSON.stringify(row)).toSorted();
    }
    return all;
  } finally {
    await client.end();
  }
}

/** The bytes of every file, by path. */
export function filesIn(dataDir: string): Map<string, string> {
  return new Map(
    readdirSync(dataDir, { recursive: true, withFileTypes: true })
      .filter(
        (entry) =>
          entry.isFile() && /^(pictures|labels|cards)\b/.test(entry.parentPath.slice(dataDir.length + 1)),
      )
      .map((entry) => join(entry.parentPath, entry.name))
      .map((path) => [path.slice(dataDir.length), readFileSync(path).toString('base64')]),
  );
}
