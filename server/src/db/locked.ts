import type { Sequelize, Transaction } from 'sequelize';

/**
 * Runs it in a transaction, once nobody else on the database runs what has the same lock: other processes, on whatever machine,
 * wait for as long as it takes.
 *
 * @param lock - any number of its own
 */
export function locked<T>(
  sequelize: Sequelize,
  lock: number,
  run: (transaction: Transaction) => Promise<T>,
): Promise<T> {
  return sequelize.transaction(async (transaction) => {
    // A large collection takes as long as it takes, and so does another process that is at it.
    await sequelize.query('set local statement_timeout = 0', { transaction });
    await sequelize.query('set local lock_timeout = 0', { transaction });
    await sequelize.query('select pg_advisory_xact_lock(:lock)', { replacements: { lock }, transaction });
    return run(transaction);
  });
}
