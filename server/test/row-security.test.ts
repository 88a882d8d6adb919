import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest';
import { refuseUnboundRole } from '../src/db/bound-role.ts';
import { connect } from '../src/db/connection.ts';
import { reading, select, writing, type Work } from '../src/db/work.ts';
import { OperatorError } from '../src/operator-error.ts';
import { administer, databaseUrl, startServer } from './template.ts';
import { startTestApp, type TestApp } from './test-app.ts';

/* What the database itself does where a query forgets its condition: PostgreSQL 15, "Row Security Policies". */

let app: TestApp;
let collections: string[];
beforeAll(async () => {
  app = await startTestApp();
  const other = await app.newCollection('Their own');
  for (const [client, number] of [
    [app.owner, 'OURS-1'],
    [other, 'THEIRS-1'],
  ] as const)
    expect((await client.post('/animals', { number, sex: 'female' })).status).toBe(201);
  const [rows] = await app.database.sequelize.query(
    `select collection_id as id from animals order by number = 'OURS-1' desc`,
  );
  collections = (rows as { id: string }[]).map(({ id }) => id);
});
afterAll(() => app.close());

const numbers = (work: Work): Promise<{ number: string }[]> =>
  select(work, 'select number from animals order by number');

test('every table of a collection’s rows is bound, with its partitions, and so is its owner', async () => {
  const [rows] = await app.database.sequelize.query(
    `select c.oid::regclass::text as "table" from pg_class c
       left join pg_policy p on p.polrelid = c.oid and p.polcmd = '*' and p.polpermissive
      where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p')
        and (c.relname = 'collections' or exists (
              select from pg_attribute a where a.attrelid = c.oid and a.attname = 'collection_id'))
        and (p.oid is null or not c.relrowsecurity or not c.relforcerowsecurity)`,
  );
  expect(rows).toEqual([]);
});

describe('within a unit of work, a query without its condition', () => {
  test.each([0, 1])('reads the rows of its own collection alone (%i)', async (which) => {
    const actor = { collectionId: collections[which]! };
    const own = [{ number: ['OURS-1', 'THEIRS-1'][which]! }];
    expect(await reading(app.database, actor, numbers)).toEqual(own);
    expect(await writing(app.database, actor, numbers)).toEqual(own);
    expect(await writing(app.database, actor, numbers, { beside: true })).toEqual(own);
    expect(await reading(app.database, actor, (work) => select(work, 'select id from collections'))).toEqual([
      { id: actor.collectionId },
    ]);
  });

  test('finds no row of a partition that it names', async () => {
    const counted = await reading(app.database, { collectionId: collections[0]! }, async (work) => {
      const counts = await Promise.all(
        Array.from({ length: 8 }, (_, i) =>
          select<{ count: string }>(
            work,
            `select count(*) from history_${i} where collection_id <> :collectionId`,
          ),
        ),
      );
      return counts.flat().map(({ count }) => Number(count));
    });
    expect(counted).toEqual(Array(8).fill(0));
  });

  test('changes and deletes nothing of another', async () => {
    const theirs = { collectionId: collections[1]! };
    const before = await reading(app.database, theirs, (work) => select(work, 'select * from animals'));
    const changed = await writing(app.database, { collectionId: collections[0]! }, async (work) => {
      const rows = await select<{ number: string }>(
        work,
        `update animals set name = 'Taken over' returning number`,
      );
      return rows.map(({ number }) => number);
    });
    expect(changed).toEqual(['OURS-1']);
    expect(await reading(app.database, theirs, (work) => select(work, 'select * from animals'))).toEqual(
      before,
    );
  });

  test('enters nothing for another, and gives nothing away', async () => {
    const act = (sql: string): Promise<unknown> =>
      writing(app.database, { collectionId: collections[0]! }, (work) =>
        select(work, sql, { theirs: collections[1]! }),
      );
    await expect(act("insert into ladders (collection_id, name) values (:theirs, 'Given')")).rejects.toThrow(
      'row-level security policy',
    );
    await expect(act('update ladders set collection_id = :theirs')).rejects.toThrow(
      'row-level security policy',
    );
  });
});

test('the next use of the connection is not bound by the last one', async () => {
  for (let i = 0; i < 20; i++)
    await reading(app.database, { collectionId: collections[i % 2]! }, async (work) => {
      expect(await numbers(work)).toHaveLength(1);
    });
  const [[row]] = (await app.database.sequelize.query('select count(*)::int from animals')) as [
    { count: number }[],
    unknown,
  ];
  expect(row!.count).toBe(2);
});

describe('the database’s role', () => {
  test('is bound in these tests', async () => {
    await expect(refuseUnboundRole(app.database.sequelize)).resolves.toBeUndefined();
  });

  test('is refused as a superuser, by its name', async () => {
    const { admin } = await startServer('tests');
    const sequelize = connect(databaseUrl(admin, 'postgres'));
    try {
      await expect(refuseUnboundRole(sequelize)).rejects.toThrow(OperatorError);
      await expect(refuseUnboundRole(sequelize)).rejects.toThrow(`"${new URL(admin).username}"`);
    } finally {
      await sequelize.close();
    }
  });

  test('may read no file of the machine, and run no program', async () => {
    const url = app.databaseUrl;
    await expect(administer(url, "select pg_read_file('/etc/hostname')")).rejects.toThrow(
      'permission denied',
    );
    await expect(administer(url, "copy migrations from program 'true'")).rejects.toThrow('must be superuser');
    expect(new URL(url).username).toBe(new URL(inject('serverUrl')).username);
  });
});
