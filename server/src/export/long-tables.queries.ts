import type pg from 'pg';
import { batchesOf, type TextRow } from './tables.queries.ts';

/* Records of one kind, or readings, in long format, one a row, as statistics programs take them. */

export type LongTable = 'weights' | 'meals' | 'readings';

/** Of each animal, before what was recorded of it. */
const ANIMAL = ['animal_id', 'number', 'sex', 'hatched_on', 'on'];

export const LONG_COLUMNS: Readonly<Record<LongTable, readonly string[]>> = {
  weights: [...ANIMAL, 'mass_g', 'note'],
  meals: [...ANIMAL, 'species', 'size', 'prey_g', 'state', 'taken', 'note'],
  readings: ['place_id', 'place', 'kind', 'at', 'celsius', 'humidity', 'source'],
};

/** Records that stand, by animal and day. */
const records = (kind: string, columns: string, collection: string): string => `
  select a.id::text as animal_id, a.number, a.sex, a.hatched_on::text, r.on_day::text as "on", ${columns}, r.note
    from records r join animals a on a.collection_id = r.collection_id and a.id = r.animal_id
   where r.collection_id = ${collection} and r.kind = '${kind}' and r.voided_at is null
   order by a.number, r.on_day, r.recorded_at`;

const SQL: Readonly<Record<LongTable, (collection: string) => string>> = {
  weights: (collection) => records('weight', `r.body ->> 'massG' as mass_g`, collection),
  meals: (collection) =>
    records(
      'feeding',
      `r.body ->> 'species' as species, r.body ->> 'size' as size, r.body ->> 'preyG' as prey_g,
       r.body ->> 'state' as state, r.body ->> 'taken' as taken`,
      collection,
    ),
  // By place and moment, in UTC.
  readings: (collection) => `
    select p.id::text as place_id, p.name as place, p.kind,
           to_char(r.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as at, r.celsius::text as celsius,
           r.humidity::text as humidity, r.source
      from readings r join climate_places p on p.collection_id = r.collection_id and p.id = r.place_id
     where r.collection_id = ${collection} order by p.kind, p.name, r.at, r.source`,
};

/** Rows of a table, in batches. */
export const longRows = (
  client: pg.Client,
  table: LongTable,
  collectionId: string,
): AsyncGenerator<TextRow[]> => batchesOf(client, SQL[table](`${client.escapeLiteral(collectionId)}::uuid`));
