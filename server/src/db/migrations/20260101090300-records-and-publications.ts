import type { Migration } from '../migration.ts';

/* Records are never changed: a correction voids one and points to its replacement. */
export const recordsAndPublications: Migration = {
  name: '20260101090300-records-and-publications',
  up: `
    create table records (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      animal_id uuid not null,
      kind text not null check (kind in
        ('weight', 'feeding', 'shed', 'sex', 'identification', 'move', 'note')),
      on_day date not null check (on_day >= '1950-01-01'),
      body jsonb not null check (jsonb_typeof(body) = 'object'),
      note text check (length(note) <= 2000),
      author_id uuid not null references accounts (id),
      recorded_at timestamptz not null default clock_timestamp(),
      voided_at timestamptz,
      voided_by uuid references accounts (id),
      void_reason text,
      replaced_by uuid references records (id) deferrable initially deferred,
      foreign key (collection_id, animal_id) references animals (collection_id, id) on delete cascade,
      check (kind <> 'weight' or (body ->> 'massG')::double precision between 1 and 20000),
      check (kind <> 'feeding' or jsonb_typeof(body -> 'taken') = 'boolean'),
      check (kind <> 'sex' or body ->> 'sex' in ('female', 'male')),
      check (kind <> 'shed' or body ->> 'stage' in ('dull', 'blue', 'clear', 'shed')),
      check ((voided_at is null) = (voided_by is null) and (voided_at is null) = (void_reason is null)),
      check (replaced_by is null or voided_at is not null)
    );
    create index records_animal on records (collection_id, animal_id, kind, on_day desc, recorded_at desc)
      where voided_at is null;
    create index records_day on records (collection_id, on_day) where voided_at is null;

    create table pictures (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      animal_id uuid not null,
      caption text not null default '' check (length(caption) <= 200),
      is_drawing boolean not null default false,
      taken_on date,
      width integer not null check (width > 0),
      height integer not null check (height > 0),
      file text not null,
      author_id uuid not null references accounts (id),
      created_at timestamptz not null default clock_timestamp(),
      foreign key (collection_id, animal_id) references animals (collection_id, id) on delete cascade
    );
    create index pictures_animal on pictures (collection_id, animal_id);

    create table publications (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      animal_id uuid not null,
      slug text not null unique check (length(slug) between 16 and 64),
      text text check (length(text) <= 2000),
      published_at timestamptz not null default now(),
      withdrawn_at timestamptz,
      author_id uuid not null references accounts (id),
      foreign key (collection_id, animal_id) references animals (collection_id, id)
    );
    create unique index publications_live on publications (collection_id, animal_id) where withdrawn_at is null;
  `,
  down: `
    drop table publications;
    drop table pictures;
    drop table records;
  `,
};
