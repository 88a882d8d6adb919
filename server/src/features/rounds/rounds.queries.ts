import type { RecordFact, RoundView } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';

/** The record, where it stands. */
export function standingRecord(work: Work, params: { readonly id: string }): Promise<{ id: string }[]> {
  return select<{ id: string }>(
    work,
    'select 1 from records where collection_id = :collectionId and id = :id and voided_at is null',
    params,
  );
}

/** Standing records of the same kind, animal and day but another id, the oldest first. */
export function recordsOfDay(
  work: Work,
  params: { readonly animalId: string; readonly kind: string; readonly on: string; readonly id: string },
): Promise<{ id: string; body: Record<string, unknown>; author: string; at: Date }[]> {
  return select<{ id: string; body: Record<string, unknown>; author: string; at: Date }>(
    work,
    `select r.id, r.body, a.name as author, r.recorded_at as at from records r join accounts a on a.id = r.author_id
      where r.collection_id = :collectionId and r.animal_id = :animalId and r.kind = :kind and r.on_day = :on
        and r.voided_at is null and r.id <> :id order by r.recorded_at`,
    params,
  );
}

/** What a round shows as done of these animals, the oldest first. */
export function recordedToday(
  work: Work,
  { ids }: { readonly ids: readonly string[] },
): Promise<(RecordFact & { id: string; animalId: string })[]> {
  if (ids.length === 0) return Promise.resolve([]);
  return select<RecordFact & { id: string; animalId: string }>(
    work,
    `select id, animal_id as "animalId", kind, body from records
      where collection_id = :collectionId and voided_at is null and on_day = :today and animal_id in (:ids)
        and kind in ('weight', 'feeding', 'shed', 'care', 'note') order by recorded_at`,
    { today: work.today, ids },
  );
}

type RackOfRound = Omit<RoundView['racks'][number], 'id' | 'room'> & {
  id: string | null;
  room: string | null;
};

/** Racks that animals live in, in walking order; the last one is no rack: those without a tub. */
export function racksOfRound(work: Work): Promise<RackOfRound[]> {
  return select<RackOfRound>(
    work,
    `select k.id, k.room, k.name, count(*)::int as animals,
            md5(string_agg(a.id::text || s.changes, ' ' order by a.id) || :today || (
              select genetics_revision from collections where id = :collectionId)) as stamp
       from animals a
       join animal_states s on s.collection_id = a.collection_id and s.animal_id = a.id and s.day = :today
       left join tubs t on t.collection_id = a.collection_id and t.id = a.tub_id
       left join racks k on k.collection_id = t.collection_id and k.id = t.rack_id
      where a.collection_id = :collectionId and is_kept_here(a.status)
      group by k.id, k.room, k.name order by k.id is null, k.room, k.name`,
    { today: work.today },
  );
}

const idsOf = (rows: readonly { id: string }[]): string[] => rows.map(({ id }) => id);

export async function animalsInRack(work: Work, params: { readonly rackId: string }): Promise<string[]> {
  return idsOf(
    await select<{ id: string }>(
      work,
      `select a.id from animals a join tubs t on t.collection_id = a.collection_id and t.id = a.tub_id
        where a.collection_id = :collectionId and t.rack_id = :rackId and is_kept_here(a.status)`,
      params,
    ),
  );
}

export async function animalsWithoutTub(work: Work): Promise<string[]> {
  return idsOf(
    await select<{ id: string }>(
      work,
      'select id from animals where collection_id = :collectionId and tub_id is null and is_kept_here(status)',
    ),
  );
}

/** Animals in shed, with a rest of one, or waiting for their first. @param except - whose stored state does not stand */
export async function animalsShedding(
  work: Work,
  { except }: { readonly except: readonly string[] },
): Promise<string[]> {
  return idsOf(
    await select<{ id: string }>(
      work,
      `select animal_id as id from animal_states
        where collection_id = :collectionId and day = :today and is_shedding and animal_id not in (:except)`,
      { today: work.today, except },
    ),
  );
}
