import type { Migration } from '../migration.ts';

/*
 * Every write of a collection's rows is kept with who did it, what was and what is, by the database itself and in the same
 * transaction. What is kept cannot be changed or deleted.
 */

const PARTITIONS = 8;

/** Columns that nobody changes by hand, of whatever table. */
const ALWAYS_LEFT_OUT = ['id', 'collection_id', 'version', 'created_at', 'recorded_at', 'author_id'];

interface Kept {
  readonly subject: string;
  /** Columns that are secret, computed, or files' names. */
  readonly leftOut?: readonly string[];
  /** Data about people: which columns changed is kept, and not what they held, so that they can be erased. */
  readonly isPrivate?: true;
}

/** Table -> what its rows are called in the history. What is computed from other rows, and what sensors report, is not here. */
const KEPT: Readonly<Record<string, Kept>> = {
  access_tokens: { subject: 'token', leftOut: ['used_at'] },
  animals: { subject: 'animal', leftOut: ['records_revision'] },
  breeders: { subject: 'breeder' },
  calendar_feeds: { subject: 'calendar-address', leftOut: ['token'] },
  catalogue_entries: { subject: 'catalogue-entry' },
  clutch_cards: { subject: 'clutch-card', leftOut: ['file'] },
  clutch_sortings: { subject: 'sorting' },
  clutches: { subject: 'clutch' },
  collections: { subject: 'collection', leftOut: ['genetics_revision'] },
  egg_events: { subject: 'egg-event' },
  eggs: { subject: 'egg' },
  feeding_plans: { subject: 'feeding-plan' },
  hand_overs: { subject: 'hand-over', leftOut: ['token_digest'] },
  heat_zones: { subject: 'heat-zone' },
  incubators: { subject: 'incubator' },
  inquiries: { subject: 'inquiry', isPrivate: true },
  invitations: { subject: 'invitation' },
  label_sheets: { subject: 'label-sheet', leftOut: ['file'] },
  ladder_steps: { subject: 'ladder-step' },
  ladders: { subject: 'ladder' },
  letters: { subject: 'letter', leftOut: ['attempts', 'next_try_at', 'state_at'], isPrivate: true },
  memberships: { subject: 'member' },
  observations: { subject: 'observation', leftOut: ['seen_at'] },
  offers: { subject: 'offer' },
  opinion_links: { subject: 'opinion-link', leftOut: ['token', 'answer_key'] },
  opinions: { subject: 'opinion' },
  pairing_events: { subject: 'pairing-event' },
  pairing_sires: { subject: 'pairing-sire' },
  pairings: { subject: 'pairing' },
  persons: { subject: 'person', isPrivate: true },
  pictures: { subject: 'picture', leftOut: ['file', 'original_file', 'thumb_file', 'width', 'height'] },
  printed_labels: { subject: 'printed-label', leftOut: ['content'] },
  publications: { subject: 'publication', leftOut: ['withheld_changes'] },
  racks: { subject: 'rack' },
  records: { subject: 'record', leftOut: ['taken_id'] },
  signing_keys: { subject: 'signing-key', leftOut: ['sealed_secret', 'succession'] },
  statements: { subject: 'statement', leftOut: ['document', 'shown'] },
  status_events: { subject: 'status-event' },
  stock_entries: { subject: 'stock' },
  surface_checks: { subject: 'surface-check' },
  taken_statements: { subject: 'taken-statement', leftOut: ['document'] },
  tubs: { subject: 'tub' },
  wish_offers: { subject: 'wish-offer' },
  wishes: { subject: 'wish', isPrivate: true },
};

const KEEP = `
  create function keep_history() returns trigger language plpgsql as $$
  declare
    hidden text[] := string_to_array(tg_argv[1], ' ');
    is_private boolean := tg_argv[2] = 'private';
    actor jsonb := nullif(current_setting('karyotome.actor', true), '')::jsonb;
    whole jsonb := case tg_op when 'DELETE' then to_jsonb(old) else to_jsonb(new) end;
    before jsonb := case tg_op when 'INSERT' then '{}' else jsonb_strip_nulls(to_jsonb(old)) end;
    after jsonb := case tg_op when 'DELETE' then '{}' else jsonb_strip_nulls(to_jsonb(new)) end;
    changed text[];
  begin
    select coalesce(array_agg(key order by key), '{}') into changed from jsonb_object_keys(before || after) key
     where key <> all (hidden) and before -> key is distinct from after -> key;
    if tg_op = 'UPDATE' and changed = '{}' then return null; end if;
    insert into history (collection_id, account_id, token_id, device, action, subject, subject_id, animal_id, clutch_id,
      rack_id, fields, was, becomes)
    values (
      (whole ->> case tg_argv[0] when 'collection' then 'id' else 'collection_id' end)::uuid,
      (actor ->> 'account')::uuid, (actor ->> 'token')::uuid, actor ->> 'device',
      case tg_op when 'INSERT' then 'added' when 'UPDATE' then 'changed' else 'removed' end,
      tg_argv[0], coalesce(whole ->> 'id', whole ->> 'key', whole ->> 'account_id'),
      (whole ->> case tg_argv[0] when 'animal' then 'id' else 'animal_id' end)::uuid,
      (whole ->> case tg_argv[0] when 'clutch' then 'id' else 'clutch_id' end)::uuid,
      (whole ->> case tg_argv[0] when 'rack' then 'id' else 'rack_id' end)::uuid,
      changed,
      case when not is_private then (select jsonb_object_agg(key, before -> key) from unnest(changed) key where before ? key) end,
      case when not is_private then (select jsonb_object_agg(key, after -> key) from unnest(changed) key where after ? key) end);
    return null;
  end $$;`;

const STAYS = `
  create function history_stays() returns trigger language plpgsql as $$
  begin
    raise exception 'The history cannot be changed or deleted.' using errcode = 'restrict_violation';
  end $$;
  create trigger history_stays before update or delete on history for each row execute function history_stays();
  create trigger history_is_whole before truncate on history for each statement execute function history_stays();`;

const parts = Array.from({ length: PARTITIONS }, (_, i) => i);

export const history: Migration = {
  name: '20261130220000-history',
  up: `
    create sequence history_ids;
    create table history (
      collection_id uuid not null references collections (id),
      id bigint not null default nextval('history_ids'),
      at timestamptz not null default clock_timestamp(),
      account_id uuid references accounts (id),
      token_id uuid,
      device text,
      action text not null check (action in ('added', 'changed', 'removed', 'signed-in', 'signed-out', 'sign-in-failed',
        'password-changed', 'exported')),
      subject text,
      subject_id text,
      animal_id uuid,
      clutch_id uuid,
      rack_id uuid,
      fields text[] not null default '{}',
      was jsonb,
      becomes jsonb,
      primary key (collection_id, id)
    ) partition by hash (collection_id);
    ${parts.map((i) => `create table history_${i} partition of history for values with (modulus ${PARTITIONS}, remainder ${i});`).join('\n')}
    create index history_animal on history (collection_id, animal_id, id) where animal_id is not null;
    create index history_clutch on history (collection_id, clutch_id, id) where clutch_id is not null;
    create index history_rack on history (collection_id, rack_id, id) where rack_id is not null;
    ${KEEP}
    ${STAYS}
    ${parts.map((i) => `create trigger history_is_whole before truncate on history_${i} for each statement execute function history_stays();`).join('\n')}
    ${Object.entries(KEPT)
      .map(
        ([table, { subject, leftOut = [], isPrivate }]) => `
    create trigger keep_history after insert or update or delete on ${table} for each row
      execute function keep_history('${subject}', '${[...ALWAYS_LEFT_OUT, ...leftOut].join(' ')}', '${isPrivate ? 'private' : ''}');`,
      )
      .join('')}
  `,
  down: `
    ${Object.keys(KEPT)
      .map((table) => `drop trigger keep_history on ${table};`)
      .join('\n')}
    drop table history;
    drop sequence history_ids;
    drop function keep_history;
    drop function history_stays;
  `,
};
