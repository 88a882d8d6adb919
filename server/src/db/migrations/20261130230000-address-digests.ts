import type { Migration } from '../migration.ts';

/** Table -> what its rows are called in the history, and what is left out there. */
const TABLES = {
  calendar_feeds: { subject: 'calendar-address', leftOut: '' },
  opinion_links: { subject: 'opinion-link', leftOut: ' answer_key' },
} as const;
const ALWAYS_LEFT_OUT = 'id collection_id version created_at recorded_at author_id';

const keep = (table: keyof typeof TABLES, column: string): string => `
  create trigger keep_history after insert or update or delete on ${table} for each row
    execute function keep_history('${TABLES[table].subject}', '${ALWAYS_LEFT_OUT} ${column}${TABLES[table].leftOut}', '');`;

const tables = Object.keys(TABLES) as (keyof typeof TABLES)[];

/* Addresses of calendars and for second opinions are kept as digests, as those of hand-overs are. */
export const addressDigests: Migration = {
  name: '20261130230000-address-digests',
  up: tables
    .map(
      (table) => `
    drop trigger keep_history on ${table};
    alter table ${table} add column token_digest text;
    update ${table} set token_digest = encode(sha256(convert_to(token, 'UTF8')), 'hex');
    alter table ${table} drop column token, alter column token_digest set not null, add unique (token_digest);
    ${keep(table, 'token_digest')}`,
    )
    .join(''),
  // What was digested cannot be had back: these addresses answer nobody any more.
  down: tables
    .map(
      (table) => `
    drop trigger keep_history on ${table};
    alter table ${table} add column token text;
    update ${table} set token = token_digest;
    alter table ${table} drop column token_digest, alter column token set not null, add unique (token);
    ${keep(table, 'token')}`,
    )
    .join(''),
};
