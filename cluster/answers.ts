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

/** Whether a database takes a question. */
export async function isOpen(url: string): Promise<boolean> {
  const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: PATIENCE_MS });
  client.on('error', () => undefined);
  try {
    await client.connect();
    await client.query('select 1');
    return true;
  } catch {
    return false;
  } finally {
    await client.end().catch(() => undefined);
  }
}
