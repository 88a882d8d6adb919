import type { Migration } from '../migration.ts';

const OUTSIDE_IMPORTS = "current_setting('karyotome.importing', true) is distinct from 'on'";

/** What is told of a new row: who it is about, and what happened. Nothing of people. */
const RECORD =
  "jsonb_build_object('recordId', new.id, 'kind', new.kind, 'on', new.on_day, 'body', new.body - 'by')";
const STATUS = "jsonb_build_object('kind', new.kind, 'on', new.on_day, 'before', new.before)";
const CLAIMS = "jsonb_build_object('was', told_claims(old.claims), 'becomes', told_claims(new.claims))";

const TELL = (name: string, event: string, data: string): string => `
    create function ${name}() returns trigger language plpgsql as $$
    begin
      insert into webhook_messages (collection_id, webhook_id, event, body)
      select new.collection_id, w.id, '${event}', jsonb_build_object('type', '${event}',
               'timestamp', to_char(clock_timestamp() at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'),
               'data', jsonb_build_object('animal', jsonb_build_object('id', a.id, 'number', a.number)) || ${data})
        from webhooks w join animals a on a.collection_id = w.collection_id and a.id = new.animal_id
       where w.collection_id = new.collection_id and '${event}' = any (w.events);
      return null;
    end $$;`;

/*
 * Programs that are told of changes. The database notes what there is to tell in the transaction that changes it, so that nothing
 * is told that did not happen, and nothing is left out.
 */
export const webhooks: Migration = {
  name: '20261201030000-webhooks',
  up: `
    create table webhooks (
      collection_id uuid not null references collections (id) deferrable,
      id uuid not null default gen_random_uuid(),
      address text not null,
      events text[] not null,
      author_id uuid not null references accounts (id) deferrable,
      created_at timestamptz not null default now(),
      primary key (collection_id, id)
    );
    create trigger keep_history after insert or update or delete on webhooks for each row
      when (${OUTSIDE_IMPORTS})
      execute function keep_history('webhook', 'id collection_id version created_at recorded_at author_id', '');
    create table webhook_messages (
      collection_id uuid not null,
      id uuid not null default gen_random_uuid(),
      webhook_id uuid not null,
      event text not null,
      body jsonb not null,
      created_at timestamptz not null default clock_timestamp(),
      state text not null default 'waiting' check (state in ('waiting', 'sent', 'failed')),
      attempts integer not null default 0,
      next_try_at timestamptz not null default clock_timestamp(),
      last_status integer,
      last_at timestamptz,
      primary key (collection_id, id),
      foreign key (collection_id, webhook_id) references webhooks (collection_id, id) on delete cascade deferrable
    );
    create index webhook_messages_waiting on webhook_messages (next_try_at) where state = 'waiting';
    create index webhook_messages_webhook on webhook_messages (collection_id, webhook_id, last_at);
    create function told_claims(claims json) returns jsonb language sql immutable as $$
      select coalesce(jsonb_agg(jsonb_build_object('label', one #>> '{claim,label}', 'kind', one #>> '{claim,kind}')
               order by one #>> '{claim,label}'), '[]')
        from json_array_elements(claims) one
    $$;
    ${TELL('tell_of_record', 'record.added', RECORD)}
    ${TELL('tell_of_status', 'status.changed', STATUS)}
    ${TELL('tell_of_claims', 'claims.changed', CLAIMS)}
    create trigger tell_webhooks after insert on records for each row when (${OUTSIDE_IMPORTS})
      execute function tell_of_record();
    create trigger tell_webhooks after insert on status_events for each row when (${OUTSIDE_IMPORTS})
      execute function tell_of_status();
    create trigger tell_webhooks after update on animal_claims for each row
      when (told_claims(old.claims) is distinct from told_claims(new.claims)) execute function tell_of_claims();
  `,
  down: `
    drop trigger tell_webhooks on records;
    drop trigger tell_webhooks on status_events;
    drop trigger tell_webhooks on animal_claims;
    drop function tell_of_record;
    drop function tell_of_status;
    drop function tell_of_claims;
    drop function told_claims;
    drop table webhook_messages;
    drop table webhooks;
  `,
};
