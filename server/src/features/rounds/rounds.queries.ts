import type { RecordFact, RecordKind, RoundView } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';
import { HOUSING } from '../../domain/enclosures/enclosures.queries.ts';
import { STANDING } from '../../domain/states/states.queries.ts';
import { livingSql } from '../../domain/animals/living-sql.ts';

/** The record, where it stands. */
export function standingRecord(work: Work, params: { readonly id: string }): Promise<{ id: string }[]> {
  return select<{ id: string }>(
    work,
    'select 1 from records where collection_id = :collectionId and id = :id and voided_at is null',
    params,
  );
}

/** An earlier standing record of the same kind, animal and day as one that was written. */
export interface AlikeRow {
  readonly of: string;
  readonly id: string;
  readonly kind: RecordKind;
  readonly body: Record<string, unknown>;
  readonly author: string;
  readonly at: Date;
}

/** Of records that were written, those that are like them and came before, the oldest first. */
export function recordsAlike(work: Work, ids: readonly string[]): Promise<AlikeRow[]> {
  return select<AlikeRow>(
    work,
    `select n.id as of, r.id, r.kind, r.body, a.name as author, r.recorded_at as at
       from records n
       join records r on r.collection_id = n.collection_id and r.animal_id = n.animal_id and r.kind = n.kind
        and r.on_day = n.on_day and r.voided_at is null and r.id <> n.id and r.recorded_at <= n.recorded_at
       join accounts a on a.id = r.author_id
      where n.collection_id = :collectionId and n.id in (:ids) order by r.recorded_at`,
    { ids },
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
       ${HOUSING}
      where a.collection_id = :collectionId and ${livingSql('a.status')}
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
        where a.collection_id = :collectionId and t.rack_id = :rackId and ${livingSql('a.status')}`,
      params,
    ),
  );
}

export async function animalsWithoutTub(work: Work): Promise<string[]> {
  return idsOf(
    await select<{ id: string }>(
      work,
      `select id from animals where collection_id = :collectionId and tub_id is null and ${livingSql()}`,
    ),
  );
}

/** Animals in shed, with a rest of one, or waiting for their first, of those whose stored state stands. */
export async function animalsShedding(work: Work): Promise<string[]> {
  return idsOf(
    await select<{ id: string }>(
      work,
      `select animal_id as id from animal_states where ${STANDING} and is_shedding`,
      { today: work.today },
    ),
  );
}
