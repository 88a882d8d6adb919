import type { Sex, Status } from '@karyotome/contract';
import type { SeasonEvent } from '@karyotome/core';
import { select, type Work } from '../../db/work.ts';
import { COUNTING_EVIDENCE } from '../genetics/genetics.queries.ts';
import { livingSql } from '../animals/living-sql.ts';

interface PlaceRow {
  readonly ladderId: string;
  readonly step: number;
}

/** A pairing with what came of it. */
export interface KeptPairing {
  readonly id: string;
  readonly season: number;
  readonly startedOn: string;
  readonly damId: string;
  /** The first laid first. */
  readonly clutches: readonly { readonly laidOn: string; readonly hatchedOn: string | null }[];
  /** The valid ones. */
  readonly events: readonly SeasonEvent[];
}

/** One animal with all that its state is computed from besides the collection's rules. */
export interface KeptRow {
  readonly id: string;
  readonly number: string;
  readonly sex: Sex;
  readonly hatchedOn: string | null;
  readonly clutchId: string | null;
  readonly status: Status;
  /** As a dam or a candidate sire, the oldest first. */
  readonly pairings: readonly KeptPairing[];
  readonly isStated: boolean;
  readonly place:
    (PlaceRow & { walkOrder: number; room: string; rack: string; level: number; slot: number }) | null;
  /** Where it lived before its last move. */
  readonly from: (PlaceRow & { tubId: string }) | null;
  /** Changes so far of what its state is computed from; null where it has no row. */
  readonly changes: string | null;
  /** Its records as JSON text: `PackedRecords`. */
  readonly records: string;
}

/** Records in date order, column by column; null where there is none. */
export interface PackedRecords {
  readonly ids: readonly string[] | null;
  readonly kinds: readonly string[];
  readonly days: readonly string[];
  readonly bodies: readonly Record<string, unknown>[];
}

const KINDS = `('weight', 'feeding', 'shed', 'move', 'sex', 'plan', 'care', 'own-way', 'identification',
   'health-check', 'vet-visit', 'treatment', 'dose', 'treatment-end', 'quarantine', 'loan', 'loan-end')`;

const RECORDS = `
         (select json_build_object('ids', array_agg(id), 'kinds', array_agg(kind), 'days', array_agg(on_day),
                   'bodies', array_agg(body))::text
            from (
              select r.id, r.kind, r.on_day,
                     -- Of an identification only how sure it was: its markers and odds would weigh more than all the rest.
                     case r.kind when 'identification' then jsonb_build_object('sure', r.body -> 'sure')
                            -- Of a visit not what was said, which is long.
                            when 'vet-visit' then r.body - 'words' else r.body end as body
                from records r
               where r.collection_id = a.collection_id and r.animal_id = a.id and r.voided_at is null and r.kind in ${KINDS}
               order by r.on_day, r.recorded_at) standing)`;

const keptSql = (records: string): string => `
  select a.id, a.number, a.sex, a.hatched_on as "hatchedOn", a.clutch_id as "clutchId", a.status,
         (select coalesce(json_agg(json_build_object('id', p.id, 'season', p.season, 'startedOn', p.started_on,
                   'damId', p.dam_id,
                   'clutches', (select coalesce(json_agg(json_build_object('laidOn', c.laid_on, 'hatchedOn', c.hatched_on)
                       order by c.laid_on), '[]')
                      from clutches c where c.collection_id = p.collection_id and c.pairing_id = p.id),
                   'events', (select coalesce(json_agg(json_build_object('id', e.id, 'kind', e.kind, 'on', e.on_day,
                       'sireId', e.sire_id) order by e.on_day, e.recorded_at), '[]')
                      from pairing_events e
                     where e.collection_id = p.collection_id and e.pairing_id = p.id and e.voided_at is null))
                   order by p.started_on, p.id), '[]')
            from pairings p
           where p.collection_id = a.collection_id and p.id = any (array(
             select d.id from pairings d where d.collection_id = a.collection_id and d.dam_id = a.id
             union
             select m.pairing_id from pairing_sires m where m.collection_id = a.collection_id and m.sire_id = a.id))
         ) as pairings,
         e.id is not null as "isStated",
         (select json_build_object('ladderId', k.ladder_id, 'step', k.step_position, 'walkOrder', k.walk_order,
                   'room', k.room, 'rack', k.name, 'level', t.level, 'slot', t.slot)
            from tubs t join racks k on k.collection_id = t.collection_id and k.id = t.rack_id
           where t.collection_id = a.collection_id and t.id = a.tub_id) as place,
         (select json_build_object('ladderId', k.ladder_id, 'step', k.step_position, 'tubId', t.id)
            from (select r.body ->> 'fromTubId' as tub_id from records r
                   where r.collection_id = a.collection_id and r.animal_id = a.id and r.kind = 'move' and r.voided_at is null
                   order by r.on_day desc, r.recorded_at desc limit 1) last
            join tubs t on t.collection_id = a.collection_id and t.id = last.tub_id::uuid
            join racks k on k.collection_id = t.collection_id and k.id = t.rack_id) as "from",
         s.changes,
         ${records} as records
    from animals a
    left join animal_states s on s.collection_id = a.collection_id and s.animal_id = a.id and s.day = :day
    left join lateral (${COUNTING_EVIDENCE}) e on true
   where a.collection_id = :collectionId and a.id in (:ids)`;

/** Animals with their records. @param day - whose state's changes are told */
export function keptRows(work: Work, ids: readonly string[], day: string): Promise<KeptRow[]> {
  if (ids.length === 0) return Promise.resolve([]);
  return select<KeptRow>(work, keptSql(RECORDS), { ids, day });
}

/** So many animals are read, or go to a thread, at once. */
export const BATCH = 100;

/** The same of many, batch by batch. */
export async function* keptBatches(
  work: Work,
  ids: readonly string[],
  day: string,
): AsyncGenerator<KeptRow[]> {
  for (let from = 0; from < ids.length; from += BATCH)
    yield await keptRows(work, ids.slice(from, from + BATCH), day);
}

/** One animal without its records, where those are read for something else too. */
export async function keptRowAlone(work: Work, id: string): Promise<Omit<KeptRow, 'records'> | null> {
  const [row] = await select<Omit<KeptRow, 'records'>>(work, keptSql('null'), { ids: [id], day: work.today });
  return row ?? null;
}

/** So many animals settle what a collection has in common; more would only take time. */
const FITTED_ANIMALS = 1000;

/** Animals that what the collection has in common is fitted to: all, or of a large collection every so many. */
export async function fittedIds(work: Work): Promise<string[]> {
  const rows = await select<{ id: string }>(
    work,
    `select id from (
       select id, row_number() over (order by id) - 1 as n, count(*) over () as total
         from animals where collection_id = :collectionId and ${livingSql()}) every
      where n % greatest(1, ceil(total::numeric / ${FITTED_ANIMALS})::int) = 0 order by id`,
  );
  return rows.map(({ id }) => id);
}

/** The animals that are kept here, by number. */
export async function livingIds(work: Work): Promise<string[]> {
  const rows = await select<{ id: string }>(
    work,
    `select id from animals where collection_id = :collectionId and ${livingSql()} order by number`,
  );
  return rows.map(({ id }) => id);
}
