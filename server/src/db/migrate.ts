import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { locked } from './locked.ts';
import type { Migration } from './migration.ts';
import { accountsAndCollections } from './migrations/20260101090000-accounts-and-collections.ts';
import { enclosures } from './migrations/20260101090100-enclosures.ts';
import { animalsAndBreeding } from './migrations/20260101090200-animals-and-breeding.ts';
import { recordsAndPublications } from './migrations/20260101090300-records-and-publications.ts';
import { catalogueEntries } from './migrations/20261125080000-catalogue-entries.ts';
import { bench } from './migrations/20261126090000-bench.ts';
import { husbandry } from './migrations/20261126120000-husbandry.ts';
import { seasonAndIncubation } from './migrations/20261125120000-season-and-incubation.ts';
import { daysKeysAndLimits } from './migrations/20261128090000-days-keys-and-limits.ts';
import { fieldWords } from './migrations/20261128150000-field-words.ts';
import { waiting } from './migrations/20261129233000-waiting.ts';
import { post } from './migrations/20261129220000-post.ts';
import { publicPages } from './migrations/20261129180000-public-pages.ts';
import { sales } from './migrations/20261129150000-sales.ts';
import { takingIn } from './migrations/20261129200000-taking-in.ts';
import { keysAndAmendments } from './migrations/20261129234500-keys-and-amendments.ts';
import { statements } from './migrations/20261129090000-statements.ts';
import { animalStates } from './migrations/20261130090000-animal-states.ts';
import { animalClaims } from './migrations/20261130100000-animal-claims.ts';
import { computedBy } from './migrations/20261130110000-computed-by.ts';
import { computedKeepsItsOrder } from './migrations/20261130120000-computed-keeps-its-order.ts';
import { keysBeginWithTheCollection } from './migrations/20261130130000-keys-begin-with-the-collection.ts';
import { partitions } from './migrations/20261130140000-partitions.ts';
import { boardCounts } from './migrations/20261130150000-board-counts.ts';
import { catalogueKinds } from './migrations/20261130160000-catalogue-kinds.ts';
import { catalogueVersion } from './migrations/20261130170000-catalogue-version.ts';
import { people } from './migrations/20261130180000-people.ts';
import { accessTokens } from './migrations/20261130190000-access-tokens.ts';
import { backups } from './migrations/20261130200000-backups.ts';
import { grants } from './migrations/20261130210000-grants.ts';
import { history } from './migrations/20261130220000-history.ts';
import { addressDigests } from './migrations/20261130230000-address-digests.ts';
import { secondFactors } from './migrations/20261130235000-second-factors.ts';
import { imports } from './migrations/20261201000000-imports.ts';
import { bin } from './migrations/20261201010000-bin.ts';
import { webhooks } from './migrations/20261201030000-webhooks.ts';
import { rowsOfOneCollection } from './migrations/20261202010000-rows-of-one-collection.ts';
import { rooms } from './migrations/20261202020000-rooms.ts';
import { binOfRacksAndPairings } from './migrations/20261202030000-bin-of-racks-and-pairings.ts';
import { tubsFollowTheirRack } from './migrations/20261202040000-tubs-follow-their-rack.ts';
import { stayingIsNoTask } from './migrations/20261203010000-staying-is-no-task.ts';
import { healthRecords } from './migrations/20261204010000-health-records.ts';
import { animalLists } from './migrations/20261204020000-animal-lists.ts';
import { walkingOrder } from './migrations/20261205010000-walking-order.ts';
import { projects } from './migrations/20261205020000-projects.ts';
import { pictureEdits } from './migrations/20261205030000-picture-edits.ts';
import { importsOfFiles } from './migrations/20261201020000-imports-of-files.ts';

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
  daysKeysAndLimits,
  fieldWords,
  statements,
  sales,
  publicPages,
  takingIn,
  post,
  waiting,
  keysAndAmendments,
  animalStates,
  animalClaims,
  computedBy,
  computedKeepsItsOrder,
  keysBeginWithTheCollection,
  partitions,
  boardCounts,
  catalogueKinds,
  catalogueVersion,
  people,
  accessTokens,
  backups,
  grants,
  history,
  addressDigests,
  secondFactors,
  imports,
  bin,
  importsOfFiles,
  webhooks,
  rowsOfOneCollection,
  rooms,
  binOfRacksAndPairings,
  tubsFollowTheirRack,
  stayingIsNoTask,
  healthRecords,
  animalLists,
  walkingOrder,
  projects,
  pictureEdits,
];

/** Any number: only one process migrates at a time. */
const LOCK = 20_260_101;

/**
 * Brings the schema up to date. Each migration and the note that it ran are one transaction: cut off at any moment, the next
 * start finds it either done and noted, or not begun. Refuses a database that has run a migration this program does not know.
 *
 * @returns the names of those that ran
 */
export async function migrate(
  sequelize: Sequelize,
  migrations: readonly Migration[] = MIGRATIONS,
): Promise<string[]> {
  const ran: string[] = [];
  for (const migration of migrations) {
    const isNew = await locked(sequelize, LOCK, async (transaction) => {
      const executed = await executedNames(sequelize, transaction);
      refuseStrangers(executed, migrations);
      if (executed.has(migration.name)) return false;
      await sequelize.query(migration.up, { transaction });
      await sequelize.query('insert into migrations (name) values (:name)', {
        replacements: { name: migration.name },
        transaction,
      });
      return true;
    });
    if (isNew) ran.push(migration.name);
  }
  return ran;
}

/** @returns the names of those that the database has not run yet; nothing is changed */
export async function pendingMigrations(sequelize: Sequelize): Promise<string[]> {
  const executed = await sequelize.transaction((transaction) => executedNames(sequelize, transaction));
  return MIGRATIONS.map(({ name }) => name).filter((name) => !executed.has(name));
}

/** Takes the whole schema down again; the tests check that it can be. */
export async function revertAll(sequelize: Sequelize): Promise<void> {
  for (const { name, down } of MIGRATIONS.toReversed()) {
    await locked(sequelize, LOCK, async (transaction) => {
      if (!(await executedNames(sequelize, transaction)).has(name)) return;
      await sequelize.query(down, { transaction });
      await sequelize.query('delete from migrations where name = :name', {
        replacements: { name },
        transaction,
      });
    });
  }
}

function refuseStrangers(executed: ReadonlySet<string>, migrations: readonly Migration[]): void {
  const known = new Set(migrations.map(({ name }) => name));
  const strangers = [...executed].filter((name) => !known.has(name));
  if (strangers.length > 0)
    throw new Error(`The database was migrated by a newer version: ${strangers.join(', ')}`);
}

async function executedNames(sequelize: Sequelize, transaction: Transaction): Promise<Set<string>> {
  await sequelize.query('create table if not exists migrations (name varchar(255) not null primary key)', {
    transaction,
  });
  const rows = await sequelize.query<{ name: string }>('select name from migrations', {
    transaction,
    type: QueryTypes.SELECT,
  });
  return new Set(rows.map(({ name }) => name));
}
