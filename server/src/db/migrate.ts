import { Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { accountsAndCollections } from './migrations/20260101090000-accounts-and-collections.ts';
import { enclosures } from './migrations/20260101090100-enclosures.ts';
import { animalsAndBreeding } from './migrations/20260101090200-animals-and-breeding.ts';
import { recordsAndPublications } from './migrations/20260101090300-records-and-publications.ts';
import { catalogueEntries } from './migrations/20261125080000-catalogue-entries.ts';
import { bench } from './migrations/20261126090000-bench.ts';
import { husbandry } from './migrations/20261126120000-husbandry.ts';
import { seasonAndIncubation } from './migrations/20261125120000-season-and-incubation.ts';

/** One change of the schema, in SQL. Never edited once merged. */
export interface Migration {
  /** `YYYYMMDDhhmmss-what-it-does`; the order of names is the order of running. */
  readonly name: string;
  readonly up: string;
  readonly down: string;
}

/** Listed by hand, so that the bundled server carries them. */
export const MIGRATIONS: readonly Migration[] = [
  accountsAndCollections,
  enclosures,
  animalsAndBreeding,
  recordsAndPublications,
  catalogueEntries,
  seasonAndIncubation,
  bench,
  husbandry,
];

/** Any number: only one process migrates at a time. */
const LOCK = 20_260_101;

function umzug(sequelize: Sequelize, storage: SequelizeStorage): Umzug<Sequelize> {
  return new Umzug({
    migrations: MIGRATIONS.map(({ name, up, down }) => ({
      name,
      up: () => inOneTransaction(sequelize, up),
      down: () => inOneTransaction(sequelize, down),
    })),
    context: sequelize,
    storage,
    logger: undefined,
  });
}

const storageOf = (sequelize: Sequelize): SequelizeStorage =>
  new SequelizeStorage({ sequelize, tableName: 'migrations' });

async function inOneTransaction(sequelize: Sequelize, sql: string): Promise<void> {
  await sequelize.transaction((transaction) => sequelize.query(sql, { transaction }));
}

/** Brings the schema up to date. Refuses a database that has run a migration this program does not know. */
export async function migrate(sequelize: Sequelize): Promise<string[]> {
  return withLock(sequelize, async () => {
    const storage = storageOf(sequelize);
    const known = new Set(MIGRATIONS.map((migration) => migration.name));
    const strangers = (await storage.executed()).filter((name) => !known.has(name));
    if (strangers.length > 0) {
      throw new Error(`The database was migrated by a newer version: ${strangers.join(', ')}`);
    }
    return (await umzug(sequelize, storage).up()).map(({ name }) => name);
  });
}

/** Takes the whole schema down again; the tests check that it can be. */
export async function revertAll(sequelize: Sequelize): Promise<void> {
  await withLock(sequelize, () => umzug(sequelize, storageOf(sequelize)).down({ to: 0 }));
}

async function withLock<T>(sequelize: Sequelize, run: () => Promise<T>): Promise<T> {
  // An advisory lock belongs to a connection; a transaction keeps that connection for the lock alone.
  return sequelize.transaction(async (transaction) => {
    await sequelize.query('select pg_advisory_xact_lock(:lock)', {
      replacements: { lock: LOCK },
      transaction,
    });
    return run();
  });
}
