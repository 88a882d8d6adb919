import pg from 'pg';

const PATIENCE_MS = 2_000;

/** Whether an address answers well. */
export async function answers(url: string): Promise<boolean> {
  try {
    const answer = await fetch(url, { signal: AbortSignal.timeout(PATIENCE_MS) });
    await answer.arrayBuffer();
    return answer.ok;
  } catch {
    return false;
  }
}

/** Asks a database one question. @throws Error where it does not answer in time */
export async function ask<Row extends object>(url: string, sql: string): Promise<Row[]> {
  const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: PATIENCE_MS });
  client.on('error', () => undefined);
  try {
    await client.connect();
    return (await client.query<Row>(sql)).rows;
  } finally {
    await client.end().catch(() => undefined);
  }
}

/** Whether a database takes a question. */
export const isOpen = (url: string): Promise<boolean> =>
  ask(url, 'select 1').then(
    () => true,
    () => false,
  );

/** Whether a database takes writes: it is no standby, and being restored no more. */
export const isWritable = (url: string): Promise<boolean> =>
  ask<{ isReadOnly: boolean }>(url, 'select pg_is_in_recovery() as "isReadOnly"').then(
    ([row]) => row?.isReadOnly === false,
    () => false,
  );
