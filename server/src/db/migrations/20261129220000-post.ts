import type { Migration } from '../migration.ts';

/*
 * Letters are drafted, looked at and sent; what was sent to whom and when is kept. `sent_key` names what a letter is about, so
 * that nobody is written to twice for the same reason. What the simulated post office took is kept whole.
 */
export const post: Migration = {
  name: '20261129220000-post',
  up: `
    create table letters (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      kind text not null,
      sent_key text not null,
      person_id uuid,
      animal_id uuid,
      to_address text,
      subject text not null,
      paragraphs jsonb not null,
      state text not null check (state in ('draft', 'waiting', 'sending', 'sent', 'failed', 'unknown', 'discarded')),
      attempts integer not null default 0,
      next_try_at timestamptz not null default clock_timestamp(),
      state_at timestamptz not null default clock_timestamp(),
      error text,
      created_at timestamptz not null default clock_timestamp(),
      unique (collection_id, sent_key),
      unique (collection_id, id),
      foreign key (collection_id, person_id) references persons (collection_id, id),
      foreign key (collection_id, animal_id) references animals (collection_id, id)
    );
    create index letters_waiting on letters (next_try_at) where state = 'waiting';

    create table simulated_mail (
      id uuid primary key,
      collection_id uuid not null,
      letter_id uuid not null,
      message text not null,
      received_at timestamptz not null default clock_timestamp(),
      foreign key (collection_id, letter_id) references letters (collection_id, id) on delete cascade
    );
  `,
  down: `
    drop table simulated_mail;
    drop table letters;
  `,
};
