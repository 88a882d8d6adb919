import type pg from 'pg';
import { batchesOf, type TextRow } from './tables.queries.ts';

/* Records of one kind in long format, one a row, as statistics programs take them. Those that were voided are left out. */

export type LongTable = 'weights' | 'meals';

/** What stands of each record's body in which column. */
const FIELDS: Readonly<Record<LongTable, { readonly kind: string; readonly columns: string }>> = {
  weights: { kind: 'weight', columns: `r.body ->> 'massG' as mass_g` },
  meals: {
    kind: 'feeding',
    columns: `r.body ->> 'species' as species, r.body ->> 'size' as size, r.body ->> 'preyG' as prey_g,
              r.body ->> 'state' as state, r.body ->> 'taken' as taken`,
  },
};

export const LONG_COLUMNS: Readonly<Record<LongTable, readonly string[]>> = {
  weights: ['animal_id', 'number', 'sex', 'hatched_on', 'on', 'mass_g', 'note'],
  meals: [
    'animal_id',
    'number',
    'sex',
    'hatched_on',
    'on',
    'species',
    'size',
    'prey_g',
    'state',
    'taken',
    'note',
  ],
};

/** By animal and day, in batches. */
export function longRows(
  client: pg.Client,
  table: LongTable,
  collectionId: string,
): AsyncGenerator<TextRow[]> {
  const { kind, columns } = FIELDS[table];
  return batchesOf(
    client,
    `select a.id::text as animal_id, a.number, a.sex, a.hatched_on::text, r.on_day::text as "on", ${columns}, r.note
       from records r join animals a on a.collection_id = r.collection_id and a.id = r.animal_id
      where r.collection_id = ${client.escapeLiteral(collectionId)}::uuid and r.kind = '${kind}' and r.voided_at is null
      order by a.number, r.on_day, r.recorded_at`,
  );
}
