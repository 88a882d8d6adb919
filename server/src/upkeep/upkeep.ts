import type { Database } from '../db/work.ts';

/*
 * What is kept for a while and then goes: keys of writes, as long as a device may be without a connection; sessions and
 * counts that have run out. What else ends by itself is done with it.
 */

/** A device that was off line for longer sends entries that may count twice: it is told so on the device. */
export const KEYS_KEPT_DAYS = 90;

/** A file that somebody brought and never took up. */
const DRAFT_KEPT_DAYS = 30;
/** What programs were told, for looking into what went wrong. */
const MESSAGES_KEPT_DAYS = 14;

export async function tidy({ sequelize }: Database): Promise<void> {
  await sequelize.query(
    `delete from idempotent_writes where created_at < now() - make_interval(days => ${KEYS_KEPT_DAYS})`,
  );
  await sequelize.query(
    `delete from imports where state = 'draft' and created_at < now() - make_interval(days => ${DRAFT_KEPT_DAYS})`,
  );
  await sequelize.query(
    `delete from webhook_messages where state <> 'waiting' and created_at < now() - make_interval(days => ${MESSAGES_KEPT_DAYS})`,
  );
  await sequelize.query('delete from sessions where expire < now()');
  await sequelize.query('delete from rate_limits where expire < extract(epoch from now()) * 1000');
}
