import pg from 'pg';
import type { Load } from './load.ts';

/** What is wrong with what was entered. */
export interface Counted {
  readonly answered: number;
  /** Answered entries that are not there. */
  readonly lost: number;
  /** Weights that stand more than once, or that nobody entered. */
  readonly doubled: number;
}

/** Holds what is in the database against what was answered. @param url - of the primary */
export async function count(url: string, { entries, givenUp }: Load, since: Date): Promise<Counted> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    const { rows } = await client.query<{ id: string; massG: number }>(
      `select id, (body ->> 'massG')::double precision as "massG" from records
        where kind = 'weight' and recorded_at >= $1`,
      [since],
    );
    const there = new Map(rows.map(({ id, massG }) => [id, massG]));
    const times = new Map<number, number>();
    for (const { massG } of rows) times.set(massG, (times.get(massG) ?? 0) + 1);
    const known = new Set([...entries.map(({ massG }) => massG), ...givenUp]);
    return {
      answered: entries.length,
      lost: entries.filter(({ id, massG }) => there.get(id) !== massG).length,
      doubled: [...times].filter(([massG, n]) => n > 1 || !known.has(massG)).length,
    };
  } finally {
    await client.end();
  }
}
