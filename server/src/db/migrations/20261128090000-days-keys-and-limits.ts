import type { Migration } from '../migration.ts';

/* The farm's own day, keys that belong to the person who made them, and how often strangers may ask. */
export const daysKeysAndLimits: Migration = {
  name: '20261128090000-days-keys-and-limits',
  up: `
    -- Null until the keeper has said which it is: then the server's own zone counts.
    alter table collections add column time_zone text check (length(time_zone) between 1 and 64);

    alter table idempotent_writes add column account_id uuid references accounts (id) on delete cascade;
    update idempotent_writes w set account_id = (
      select m.account_id from memberships m where m.collection_id = w.collection_id
       order by m.role = 'owner' desc, m.account_id limit 1);
    delete from idempotent_writes where account_id is null;
    alter table idempotent_writes drop constraint idempotent_writes_pkey;
    alter table idempotent_writes alter column account_id set not null;
    alter table idempotent_writes add primary key (collection_id, account_id, key);

    alter table animals drop constraint animals_status_check;
    alter table animals add constraint animals_status_check check (status in
      ('undecided', 'held-back', 'for-sale', 'reserved', 'sold', 'breeder', 'died', 'mistaken'));

    create table rate_limits (
      key varchar(255) primary key,
      points integer not null default 0,
      expire bigint
    );
    create index rate_limits_expire on rate_limits (expire);
  `,
  down: `
    drop table rate_limits;
    update animals set status = 'died' where status = 'mistaken';
    alter table animals drop constraint animals_status_check;
    alter table animals add constraint animals_status_check check (status in
      ('undecided', 'held-back', 'for-sale', 'reserved', 'sold', 'breeder', 'died'));
    alter table idempotent_writes drop constraint idempotent_writes_pkey;
    delete from idempotent_writes w using idempotent_writes other
     where w.collection_id = other.collection_id and w.key = other.key and w.account_id > other.account_id;
    alter table idempotent_writes drop column account_id;
    alter table idempotent_writes add primary key (collection_id, key);
    alter table collections drop column time_zone;
  `,
};
