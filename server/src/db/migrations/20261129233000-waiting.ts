import type { Migration } from '../migration.ts';

/* Who waits for what, in the order of joining, and to whom which animal was offered until when. */
export const waiting: Migration = {
  name: '20261129233000-waiting',
  up: `
    create table wishes (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      person_id uuid not null,
      must text not null check (length(must) between 1 and 300),
      must_not text check (length(must_not) <= 300),
      sex text check (sex in ('female', 'male')),
      price_limit double precision check (price_limit >= 0),
      currency text,
      pairing_id uuid,
      joined_on date not null,
      note text check (length(note) <= 500),
      closed_on date,
      version integer not null default 1,
      created_at timestamptz not null default clock_timestamp(),
      unique (collection_id, id),
      foreign key (collection_id, person_id) references persons (collection_id, id),
      foreign key (collection_id, pairing_id) references pairings (collection_id, id) on delete set null (pairing_id)
    );

    create table wish_offers (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      wish_id uuid not null,
      animal_id uuid not null,
      offered_on date not null,
      answer_until date not null,
      answer text check (answer in ('accepted', 'declined', 'lapsed')),
      answered_on date,
      created_at timestamptz not null default clock_timestamp(),
      unique (collection_id, wish_id, animal_id),
      foreign key (collection_id, wish_id) references wishes (collection_id, id),
      foreign key (collection_id, animal_id) references animals (collection_id, id)
    );
    create unique index wish_offers_open on wish_offers (collection_id, animal_id) where answer is null;
  `,
  down: `
    drop table wish_offers;
    drop table wishes;
  `,
};
