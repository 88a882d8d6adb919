import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { isGone, RECORD_KINDS, STATUSES } from '@karyotome/contract';
import { STATUS_EVENT_KINDS } from '@karyotome/core';
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest';
import type { Sequelize } from 'sequelize';
import { connect } from '../src/db/connection.ts';
import { migrate, MIGRATIONS, revertAll } from '../src/db/migrate.ts';
import { PROBLEMS } from '../src/http/problems.ts';
import { administer, databaseUrl } from './template.ts';

describe('migrations', () => {
  const name = `schema_${randomUUID().replaceAll('-', '')}`;
  let sequelize: Sequelize;
  beforeAll(async () => {
    await administer(inject('serverUrl'), `create database ${name}`);
    sequelize = connect(databaseUrl(inject('serverUrl'), name));
  });
  afterAll(async () => {
    await sequelize.close();
    await administer(inject('serverUrl'), `drop database ${name} with (force)`);
  });
  const describeSchema = async (): Promise<unknown[]> => {
    const [columns] = await sequelize.query(
      `select table_name, column_name, data_type, is_nullable from information_schema.columns
        where table_schema = 'public' and table_name <> 'migrations' order by 1, 2`,
    );
    const [constraints] = await sequelize.query(
      `select conrelid::regclass::text as "table", pg_get_constraintdef(oid) as rule from pg_constraint
        where connamespace = 'public'::regnamespace and conrelid::regclass::text <> 'migrations' order by 1, 2`,
    );
    return [...columns, ...constraints];
  };

  test('run up, down and up again to the same schema', async () => {
    expect(await migrate(sequelize)).toEqual(MIGRATIONS.map((m) => m.name));
    const first = await describeSchema();
    expect(first.length).toBeGreaterThan(100);
    expect(await migrate(sequelize)).toEqual([]);
    await revertAll(sequelize);
    expect(await describeSchema()).toEqual([]);
    await migrate(sequelize);
    expect(await describeSchema()).toEqual(first);
  });

  test('every table of a collection carries its id', async () => {
    const [rows] = await sequelize.query(
      `select table_name from information_schema.tables where table_schema = 'public'
          and table_name not in ('accounts', 'collections', 'sessions', 'migrations', 'rate_limits', 'computed_by', 'backups', 'second_factors', 'passkeys')
        except select table_name from information_schema.columns where column_name = 'collection_id'`,
    );
    expect(rows).toEqual([]);
  });

  test('every key of a collection’s rows begins with the collection, but for addresses', async () => {
    const [rows] = await sequelize.query(
      `select c.relname || ': ' || pg_get_constraintdef(p.oid) as rule from pg_constraint p
         join pg_class c on c.oid = p.conrelid
         join pg_attribute a on a.attrelid = c.oid and a.attname = 'collection_id'
        where c.relnamespace = 'public'::regnamespace and p.contype in ('p', 'u') and a.attnum <> all (p.conkey)
        order by 1`,
    );
    // By these a row is found before its collection is known.
    expect((rows as { rule: string }[]).map(({ rule }) => rule)).toEqual([
      'calendar_feeds: UNIQUE (token_digest)',
      'hand_overs: UNIQUE (token_digest)',
      'opinion_links: UNIQUE (token_digest)',
      'publications: UNIQUE (slug)',
      'signing_keys: UNIQUE (did)',
    ]);
  });

  test('rows of a collection refer to rows of the same collection alone', async () => {
    const [rows] = await sequelize.query(
      `select p.conrelid::regclass::text || ': ' || pg_get_constraintdef(p.oid) as rule from pg_constraint p
         join pg_attribute a on a.attrelid = p.conrelid and a.attname = 'collection_id'
         join pg_attribute b on b.attrelid = p.confrelid and b.attname = 'collection_id'
        where p.connamespace = 'public'::regnamespace and p.contype = 'f'
          and not (a.attnum = any (p.conkey) and b.attnum = any (p.confkey))`,
    );
    expect(rows).toEqual([]);
  });

  test('a collection that comes in is held against every key at its end, and brings its history along', async () => {
    const [keys] = await sequelize.query(
      `select conrelid::regclass::text || ': ' || conname as key from pg_constraint
        where connamespace = 'public'::regnamespace and contype = 'f' and not condeferrable`,
    );
    expect(keys).toEqual([]);
    const [triggers] = await sequelize.query(
      `select tgrelid::regclass::text as holder from pg_trigger
        where tgname = 'keep_history' and coalesce(pg_get_triggerdef(oid), '') not like '%karyotome.importing%'`,
    );
    expect(triggers).toEqual([]);
  });

  test('tables that grow with every day’s work are partitioned by collection', async () => {
    const [rows] = await sequelize.query(
      `select partrelid::regclass::text || ': ' || pg_get_partkeydef(partrelid) as key from pg_partitioned_table order by 1`,
    );
    expect((rows as { key: string }[]).map(({ key }) => key)).toEqual([
      'animal_states: HASH (collection_id)',
      'due_tasks: HASH (collection_id)',
      'history: HASH (collection_id)',
      'idempotent_writes: HASH (collection_id)',
      'readings: HASH (collection_id)',
      'records: HASH (collection_id)',
    ]);
  });

  test.each([
    ['records', RECORD_KINDS],
    ['status_events', STATUS_EVENT_KINDS],
  ])('%s take every kind that requests know, and no other', async (table, kinds) => {
    const [rows] = await sequelize.query(
      `select pg_get_constraintdef(oid) as rule from pg_constraint where conname = '${table}_kind_check'`,
    );
    const [{ rule }] = rows as [{ rule: string }];
    expect([...rule.matchAll(/'([\w-]+)'::text/g)].map(([, kind]) => kind).toSorted()).toEqual(
      kinds.toSorted(),
    );
  });

  test('the database and the program mean the same by an animal that is kept here', async () => {
    const [rows] = await sequelize.query(
      `select s as status, is_kept_here(s) as "isKeptHere" from unnest($1::text[]) s`,
      { bind: [[...STATUSES]] },
    );
    expect(rows).toEqual(STATUSES.map((status) => ({ status, isKeptHere: !isGone({ status }) })));
  });

  test('a database migrated by a newer version is refused', async () => {
    await sequelize.query("insert into migrations (name) values ('29990101000000-from-the-future')");
    await expect(migrate(sequelize)).rejects.toThrow('newer version');
  });
});

test('docs/errors.md lists every problem and no other', () => {
  const text = readFileSync(new URL('../../docs/errors.md', import.meta.url), 'utf8');
  const listed = [...text.matchAll(/^\| `([a-z-]+)` \| (\d{3}) \|/gm)].map(([, code, status]) => [
    code,
    Number(status),
  ]);
  const known = Object.entries(PROBLEMS).map(([code, { status }]) => [code, status]);
  expect(Object.fromEntries(listed)).toEqual(Object.fromEntries(known));
});
