import type { TestApp } from './test-app.ts';

/** Every row of every collection but for what is computed, what the history keeps, and the bin itself. */
export async function everyRow(of: TestApp): Promise<Map<string, string[]>> {
  const [tables] = (await of.database.sequelize.query(
    `select c.relname as name from pg_class c where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p')
        and not c.relispartition and exists (select from pg_attribute a where a.attrelid = c.oid and a.attname = 'collection_id')
        and c.relname not in ('history', 'bin', 'animal_claims', 'animal_states', 'due_tasks', 'herd_days',
          'idempotent_writes', 'hand_overs')
      order by 1`,
  )) as [{ name: string }[], unknown];
  const found = new Map<string, string[]>();
  for (const { name } of tables) {
    const [rows] = (await of.database.sequelize.query(
      `select (to_jsonb(t) - 'records_revision')::text as row from ${name} t order by 1`,
    )) as [{ row: string }[], unknown];
    found.set(
      name,
      rows.map(({ row }) => row),
    );
  }
  return found;
}
