import {
  closeSync,
  mkdtempSync,
  openSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { lastBackups, noteBackup } from '../src/backup/backups.queries.ts';
import { keptDuringBackups } from '../src/backup/kept-during-backups.ts';
import { makeBackup } from '../src/backup/make-backup.ts';
import { backUpBeforeMigration, backUpNightly } from '../src/backup/nightly.ts';
import { openBackup } from '../src/backup/open-backup.ts';
import { takeBackupLock, withClient } from '../src/backup/snapshot.queries.ts';
import { readConfig, type Config } from '../src/config.ts';
import { openDatabase } from '../src/db/open.ts';
import { writing } from '../src/db/work.ts';
import { signingKeyViews } from '../src/domain/statements/signing-keys.ts';
import { loadDemo } from '../src/demo/demo.ts';
import { startTestApp, type TestApp } from './test-app.ts';
import { elsewhere, filesIn, restoreTo, rowsOf } from './whole-installation.ts';

let app: TestApp;
let folder: string;
let config: Config;

const configOf = (url: string, dataDir: string, more: NodeJS.ProcessEnv = {}): Config =>
  readConfig({ DATABASE_URL: url, KARYOTOME_DATA: dataDir, BACKUP_FOLDER: folder, ...more });

beforeAll(async () => {
  app = await startTestApp({ isEmpty: true });
  folder = mkdtempSync(join(tmpdir(), 'karyotome-backups-'));
  config = configOf(app.databaseUrl, app.dataDir);
  await loadDemo(app.database, app.files, config);
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true, force: true });
});

describe('the drill', () => {
  test('filled, backed up while somebody writes, destroyed and restored: every row and every file is back', async () => {
    const before = await rowsOf(app.databaseUrl);
    const made = await makeBackup(config, folder, 'regular');
    expect(made.missing).toEqual([]);
    expect(made.files).toBeGreaterThan(100);
    // What is written from now on is not in it.
    await app.database.sequelize.query("update animals set name = 'Later'");
    await elsewhere(async ({ url, dataDir }) => {
      await restoreTo(
        join(folder, made.file),
        configOf(url, dataDir, { BACKUP_PASSPHRASE: config.backupPassphrase }),
      );
      expect(await rowsOf(url)).toEqual({ ...before, sessions: [], rate_limits: [], backups: [] });
      expect(filesIn(dataDir)).toEqual(filesIn(app.dataDir));
      // The keys open with what was restored, without anything from outside.
      const restored = configOf(url, dataDir);
      expect(restored.signingSecret).toBe(config.signingSecret);
      expect(restored.backupPassphrase).toBe(config.backupPassphrase);
      const database = openDatabase(url, () => undefined);
      const [member] = await database.models.memberships.findAll({ limit: 1 });
      const { accountId, collectionId } = member!.get();
      const actor = { accountId, collectionId, name: '', role: 'owner' as const };
      const keys = await writing(database, actor, (work) => signingKeyViews(work, restored.signingSecret));
      expect(keys.map(({ isUsable }) => isUsable)).toEqual([true]);
      await database.sequelize.close();
      // A second time there are records already.
      await expect(restoreTo(join(folder, made.file), restored)).rejects.toThrow('There are records already');
    });
  });

  test('shows one moment, however much is written meanwhile', async () => {
    const { sequelize } = app.database;
    await sequelize.query('create table twins (a int, b int)');
    await sequelize.query('insert into twins values (0, 0)');
    let isRunning = true;
    const writer = (async () => {
      while (isRunning) await sequelize.query('update twins set a = a + 1, b = b + 1');
    })();
    const made = await makeBackup(config, folder, 'regular');
    isRunning = false;
    await writer;
    await elsewhere(async ({ url, dataDir }) => {
      await restoreTo(
        join(folder, made.file),
        configOf(url, dataDir, { BACKUP_PASSPHRASE: config.backupPassphrase }),
      );
      const { twins } = await rowsOf(url);
      const { a, b } = JSON.parse(twins![0]!) as { a: number; b: number };
      expect(a).toBe(b);
    });
    await sequelize.query('drop table twins');
  });
});

describe('an archive that is not what was written', () => {
  let archive: string;
  let bytes: Buffer;
  beforeAll(async () => {
    archive = join(folder, (await makeBackup(config, folder, 'regular')).file);
    bytes = readFileSync(archive);
  });
  const opened = async (changed: Buffer): Promise<unknown> => {
    const file = join(folder, 'changed.zip');
    writeFileSync(file, changed);
    const descriptor = openSync(file, 'r');
    try {
      return await openBackup(descriptor);
    } finally {
      closeSync(descriptor);
      rmSync(file);
    }
  };

  test('is private', () => {
    expect(statSync(archive).mode & 0o077).toBe(0);
  });

  test('is refused wherever a byte is another one', async () => {
    await expect(opened(bytes)).resolves.toBeDefined();
    for (let i = 1; i <= 12; i++) {
      const changed = Buffer.from(bytes);
      const place = Math.floor((bytes.length * i) / 13);
      changed[place] = changed[place]! ^ 0xff;
      await expect(opened(changed), `byte ${place}`).rejects.toThrow('This archive cannot be used');
    }
  });

  test('is refused where it was cut off, is something else or lacks a part', async () => {
    for (const part of [0, 100, bytes.length / 2, bytes.length - 1])
      await expect(opened(bytes.subarray(0, part)), `${part} bytes`).rejects.toThrow(
        'it is no zip, or not all',
      );
    await expect(opened(Buffer.from('no archive'))).rejects.toThrow('it is no zip');
  });

  test('does not open with another passphrase, and nothing is changed then', async () => {
    await elsewhere(async ({ url, dataDir }) => {
      const place = configOf(url, dataDir, { BACKUP_PASSPHRASE: 'another' });
      await expect(restoreTo(archive, place)).rejects.toThrow('The passphrase is not the one of this backup');
      expect(await rowsOf(url)).toEqual({});
    });
  });

  test('of a newer version is refused', async () => {
    await app.database.sequelize.query("insert into migrations values ('29990101000000-from-the-future')");
    const newer = join(folder, (await makeBackup(config, folder, 'before-migration')).file);
    await app.database.sequelize.query("delete from migrations where name like '2999%'");
    await elsewhere(async ({ url, dataDir }) => {
      const place = configOf(url, dataDir, { BACKUP_PASSPHRASE: config.backupPassphrase });
      await expect(restoreTo(newer, place)).rejects.toThrow('a newer version of this program');
    });
  });
});

describe('by itself', () => {
  const last = () => lastBackups(app.database.sequelize);

  test('every night one is made, in a thread, and not a second one', async () => {
    await app.database.sequelize.query('delete from backups');
    await backUpNightly(app.database, app.files, config);
    const { last: first } = await last();
    expect(readdirSync(folder)).toContain(first!.file);
    expect(first!.bytes).toBe(statSync(join(folder, first!.file)).size);
    await backUpNightly(app.database, app.files, config);
    expect((await last()).last).toEqual(first);
  });

  test('a night that failed is told of until one succeeds', async () => {
    await app.database.sequelize.query('delete from backups');
    const blocked = { ...config, backupFolder: join(app.dataDir, 'signing-secret', 'no-folder') };
    await expect(backUpNightly(app.database, app.files, blocked)).rejects.toThrow('could not be made');
    expect((await last()).failed).toMatchObject({ fault: 'folder-not-writable' });
    const missing = { ...config, postgresPrograms: '/nowhere' };
    await expect(backUpNightly(app.database, app.files, missing)).rejects.toThrow('could not be made');
    expect((await last()).failed).toMatchObject({ fault: 'program-missing' });
    expect(readdirSync(folder).filter((name) => name.endsWith('.part'))).toEqual([]);
    await backUpNightly(app.database, app.files, config);
    expect(await last()).toMatchObject({ failed: null });
  });

  test('files that go meanwhile stay until it is done', async () => {
    const file = { folder: 'pictures', name: 'gone.webp' } as const;
    await app.files.write(file, Buffer.from('x'));
    const store = keptDuringBackups(app.files, app.database);
    await withClient(app.databaseUrl, async (client) => {
      expect(await takeBackupLock(client)).toBe(true);
      await expect(makeBackup(config, folder, 'regular')).rejects.toThrow('Another backup is being made');
      await store.remove([file]);
      expect(await app.files.has(file)).toBe(true);
    });
    await store.remove([file]);
    expect(await app.files.has(file)).toBe(false);
  });

  test('a file that is missing already is told of, and the rest is backed up', async () => {
    const [picture] = await app.database.models.pictures.findAll({ limit: 1 });
    const { file } = picture!.get();
    const kept = await app.files.read({ folder: 'pictures', name: file });
    await app.files.remove([{ folder: 'pictures', name: file }]);
    const made = await makeBackup(config, folder, 'regular');
    expect(made.missing).toEqual([`pictures/${file}`]);
    await app.files.write({ folder: 'pictures', name: file }, kept);
  });

  test('before the schema changes one is made, where there is something to lose', async () => {
    expect(await backUpBeforeMigration(app.database, config)).toBeNull();
    const [newest] = (await rowsOf(app.databaseUrl))['migrations']!.slice(-1);
    const { name } = JSON.parse(newest!) as { name: string };
    await app.database.sequelize.query('delete from migrations where name = $1', { bind: [name] });
    try {
      expect((await backUpBeforeMigration(app.database, config))!.file).toMatch(
        /^karyotome-before-migration-/,
      );
      const broken = { ...config, postgresPrograms: '/nowhere' };
      await expect(backUpBeforeMigration(app.database, broken)).rejects.toThrow('nothing was changed');
    } finally {
      await app.database.sequelize.query('insert into migrations values ($1)', { bind: [name] });
    }
  });

  test('an owner is told when the last one was made, others are not', async () => {
    const other = await startTestApp();
    try {
      expect((await other.owner.get('/backup')).body).toEqual({
        isNightly: false,
        last: null,
        failed: null,
        isLate: true,
      });
      const madeAt = new Date(Date.now() - 3 * 86_400_000).toISOString();
      const made = { file: 'a.zip', bytes: 10, rows: 1, files: 0, missing: [], madeAt };
      await noteBackup(other.database.sequelize, 'regular', '/b', made);
      expect((await other.owner.get('/backup')).body).toMatchObject({
        isLate: true,
        last: { file: 'a.zip', folder: '/b', bytes: 10, madeAt: `${madeAt.slice(0, 19)}Z` },
      });
      await noteBackup(other.database.sequelize, 'regular', '/b', {
        ...made,
        madeAt: new Date().toISOString(),
      });
      expect((await other.owner.get('/backup')).body).toMatchObject({ isLate: false });
      const keeper = await other.newCollection('Beside', 'keeper');
      expect((await keeper.get('/backup')).status).toBe(403);
      expect((await other.anonymous.get('/backup')).status).toBe(401);
    } finally {
      await other.close();
    }
  });
});
