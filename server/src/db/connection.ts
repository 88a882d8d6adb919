import pg from 'pg';
import { Sequelize, type Transaction } from 'sequelize';
import { DRIVER, Pool } from './client.ts';
import { isDatabaseAway } from './faults.ts';

// A `date` stays the text it is: no time zone can move it over midnight. 1082 is PostgreSQL's type id of date.
pg.types.setTypeParser(1082, (text) => text);

/** PostgreSQL's settings for each connection, milliseconds. */
export const CONNECTION_LIMITS_MS = {
  /** Longest wait for somebody else's lock, and longest statement: then whoever asks is told to come back. */
  lock_timeout: 15_000,
  statement_timeout: 60_000,
  /** A transaction in which nothing is asked for so long was forgotten, or waits for what it should not. */
  idle_in_transaction_session_timeout: 120_000,
};
const CONNECTIONS = 12;

/** What stands in quotes is somebody's record. */
const withoutValues = (sql: string): string => sql.replace(/'(?:[^']|'')*'/g, "'…'").slice(0, 2000);

/** Opens a pool of connections. Queries reach `log` at debug level, without their values. */
export function connect(url: string, log?: (sql: string) => void): Sequelize {
  const sequelize = new Sequelize(url, {
    dialect: 'postgres',
    dialectModule: DRIVER,
    logging: log ? (sql) => log(withoutValues(sql)) : false,
    pool: { max: CONNECTIONS, idle: 10_000, acquire: 15_000 },
    dialectOptions: {
      ...CONNECTION_LIMITS_MS,
      connectionTimeoutMillis: 5_000,
      keepAlive: true,
    },
    // A kept connection that is dead is replaced; within a transaction it is the whole that is done again (work.ts).
    retry: { max: 3, match: [(error: Error) => isDatabaseAway(error)] },
    define: { underscored: true, timestamps: false, freezeTableName: true },
  });
  const generator = (sequelize.getQueryInterface() as unknown as { queryGenerator: TransactionQueries })
    .queryGenerator;
  const start = generator.startTransactionQuery.bind(generator);
  // A read says with its beginning what it is: a statement of its own would be one more way there and back.
  generator.startTransactionQuery = (transaction) =>
    transaction.options.readOnly
      ? 'start transaction isolation level repeatable read, read only;'
      : start(transaction);
  return sequelize;
}

interface TransactionQueries {
  startTransactionQuery(
    transaction: Transaction & { readonly options: { readonly readOnly?: boolean } },
  ): string;
}

/** A few connections beside the records': sessions, rates and health have them even when all others are taken. */
export function sidePool(url: string, onFault: (error: unknown) => void): pg.Pool {
  const pool = new Pool({
    connectionString: url,
    max: 4,
    connectionTimeoutMillis: 5_000,
    statement_timeout: 10_000,
    keepAlive: true,
  });
  // A connection that breaks while nobody uses it is replaced by the next one: not a reason to end.
  pool.on('error', onFault);
  return pool;
}
