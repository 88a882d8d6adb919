import type { Migration } from '../migration.ts';

/*
 * What happens to an animal's status is a dated event that is taken back, never changed; what buyers are told of it is its
 * offer. The text of a page moves there from the page. A person who is erased leaves an empty row, so that events that name
 * them keep their history.
 */
export const sales: Migration = {
  name: '20261129150000-sales',
  up: `
    alter table collections add column sale_rules jsonb not null default '{}';

    create table persons (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      name text check (length(name) between 1 and 120),
      email text check (length(email) <= 200),
      phone text check (length(phone) <= 40),
      note text check (length(note) <= 2000),
      consent_on date,
      erased_at timestamptz,
      version integer not null default 1,
      created_at timestamptz not null default clock_timestamp(),
      unique (collection_id, id),
      constraint persons_erased check (
        case when erased_at is null then name is not null
             else num_nonnulls(name, email, phone, note, consent_on) = 0 end)
    );

    create table status_events (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      animal_id uuid not null,
      kind text not null check (kind in ('undecided', 'held-back', 'offered', 'reserved', 'lapsed', 'sold',
        'gone-back', 'withdrawn', 'breeder', 'died', 'mistaken')),
      before text not null,
      details jsonb not null default '{}',
      person_id uuid,
      on_day date not null,
      note text check (length(note) <= 500),
      author_id uuid references accounts (id),
      recorded_at timestamptz not null default clock_timestamp(),
      voided_at timestamptz,
      voided_by uuid references accounts (id),
      void_reason text,
      foreign key (collection_id, animal_id) references animals (collection_id, id),
      foreign key (collection_id, person_id) references persons (collection_id, id),
      constraint status_events_author check (author_id is not null or kind = 'lapsed')
    );
    create index status_events_animal on status_events (collection_id, animal_id, recorded_at);
    create index status_events_person on status_events (collection_id, person_id) where person_id is not null;

    create table offers (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      animal_id uuid not null,
      price double precision check (price >= 0),
      currency text,
      text text check (length(text) <= 2000),
      picture_ids jsonb,
      ancestors jsonb not null default '{}',
      version integer not null default 1,
      unique (collection_id, animal_id),
      foreign key (collection_id, animal_id) references animals (collection_id, id) on delete cascade
    );
    insert into offers (collection_id, id, animal_id, text)
      select distinct on (collection_id, animal_id) collection_id, id, animal_id, text from publications
       where text is not null order by collection_id, animal_id, published_at desc;
    alter table publications drop column text;
  `,
  down: `
    alter table publications add column text text check (length(text) <= 2000);
    update publications p set text = o.text from offers o
     where o.collection_id = p.collection_id and o.animal_id = p.animal_id;
    drop table offers;
    drop table status_events;
    drop table persons;
    alter table collections drop column sale_rules;
  `,
};
