/* The collections that the load is put on, and what is asked of them. */
import pg from 'pg';
import { migrate } from '../server/src/db/migrate.ts';
import { openDatabase } from '../server/src/db/open.ts';
import { machineToday } from '../server/src/db/work.ts';
import { administer, databaseUrl } from '../server/test/template.ts';
import { fillCollection } from './collection.ts';
import { PASSWORD, type Client } from './launch.ts';
import { time } from './report.ts';

export interface Farm {
  readonly url: string;
  readonly ids: readonly string[];
  readonly racks: readonly string[];
  readonly collectionId: string;
}

let turn = 0;
export const next = (list: readonly string[]): string => list[(turn++ * 37) % list.length]!;

/** What is shown, by the name of its screen. */
export const screens = ({ ids, racks }: Farm): Readonly<Record<string, () => string>> => ({
  'one animal’s page': () => `/animals/${next(ids)}`,
  'Today’s first screen': () => '/today',
  'racks’ first screen': () => '/racks',
  'one rack': () => `/racks/${next(racks)}`,
  'a rack of the round': () => `/rounds/racks/${next(racks)}`,
  'animals’ first page': () => '/animals',
  season: () => '/season',
  'females of the season': () => '/season/females',
});

const meal = () => ({
  kind: 'feeding',
  on: machineToday(),
  body: { species: 'rat', size: 'small', state: 'frozen-thawed', taken: true },
});
const weight = () => ({ kind: 'weight', on: machineToday(), body: { massG: 1400 + (turn % 60) } });
export const write = (farm: Farm, client: Client) =>
  client.post(`/animals/${next(farm.ids)}/records`, turn % 2 === 0 ? meal() : weight());

/** The rows of a screen by plain SQL: of a collection, and of one animal or rack where there is one. */
const PLAIN_SQL: Readonly<Record<string, { readonly sql: string; readonly of: 'ids' | 'racks' | null }>> = {
  'one animal’s page': {
    sql: `select *, (select json_agg(r.*) from records r where r.collection_id = a.collection_id and r.animal_id = a.id)
            from animals a where a.collection_id = $1 and a.id = $2`,
    of: 'ids',
  },
  'Today’s first screen': {
    sql: `select d.*, a.* from due_tasks d join animals a on a.collection_id = d.collection_id and a.id = d.animal_id
           where d.collection_id = $1 and d.day = current_date order by d.urgency, d.place_key limit 50`,
    of: null,
  },
  'a rack of the round': {
    sql: `select a.*, s.facts from animals a join tubs t on t.collection_id = a.collection_id and t.id = a.tub_id
            join animal_states s on s.collection_id = a.collection_id and s.animal_id = a.id and s.day = current_date
           where a.collection_id = $1 and t.rack_id = $2`,
    of: 'racks',
  },
};

export async function plainSql(farm: Farm): Promise<ReadonlyMap<string, number>> {
  const client = new pg.Client(farm.url);
  await client.connect();
  const found = new Map<string, number>();
  for (const [name, { sql, of }] of Object.entries(PLAIN_SQL)) {
    const { median } = await time(60, () =>
      client.query(sql, [farm.collectionId, ...(of === null ? [] : [next(farm[of])])]),
    );
    found.set(name, median);
  }
  await client.end();
  return found;
}

/** With REUSE=1: the collection as an earlier run left it. */
async function reused(url: string): Promise<Farm> {
  const client = new pg.Client(url);
  await client.connect();
  const idsOf = async (sql: string): Promise<string[]> =>
    (await client.query<{ id: string }>(sql)).rows.map(({ id }) => id);
  const ids = await idsOf('select id from animals order by number');
  const racks = await idsOf('select id from racks order by name');
  const [collectionId] = await idsOf('select id from collections');
  await client.end();
  return { url, ids, racks, collectionId: collectionId! };
}

export async function fill(
  size: { readonly animals: number; readonly events: number },
  server: string,
): Promise<Farm> {
  const name = `bench_${size.animals}`;
  if (process.env['REUSE']) return reused(databaseUrl(server, name));
  await administer(server, `drop database if exists ${name} with (force)`, `create database ${name}`);
  const url = databaseUrl(server, name);
  const database = openDatabase(url, (error) => console.error(error));
  await migrate(database.sequelize);
  const { actor, ids, racks } = await fillCollection(database, size.animals, size.events, PASSWORD);
  await database.sequelize.close();
  return { url, ids, racks, collectionId: actor.collectionId };
}
