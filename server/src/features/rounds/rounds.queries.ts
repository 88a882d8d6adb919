import {
  IN_QUARANTINE,
  WITHOUT_TUB,
  type RecordFact,
  type RecordKind,
  type RoundView,
} from '@karyotome/contract';
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

type RackOfRound = Omit<RoundView['racks'][number], 'room'> & { room: string | null };

/** Animals whose stored state does not stand any more, which of them are in quarantine, and which lent to somebody else. */
export interface Unstored {
  readonly unstored: readonly string[];
  readonly apart: readonly string[];
  readonly away: readonly string[];
}

/** SQL: in quarantine. Needs `s`, an animal's state of today. */
/** SQL: not lent to somebody else. Needs `s`. */
const HERE = '(a.id not in (:away) and (a.id in (:unstored) or not coalesce(s.is_away, false)))';
const APART = '(a.id in (:apart) or (a.id not in (:unstored) and coalesce(s.in_quarantine, false)))';

/** Racks that animals live in, in walking order; then those without a tub, and last those in quarantine. */
export function racksOfRound(work: Work, unstored: Unstored): Promise<RackOfRound[]> {
  return select<RackOfRound>(
    work,
    `select case when ${APART} then '${IN_QUARANTINE}' else coalesce(p.id::text, '${WITHOUT_TUB}') end as id,
            p.room, p.name, count(*)::int as animals,
            md5(string_agg(a.id::text || s.changes, ' ' order by a.id) || :today || (
              select genetics_revision from collections where id = :collectionId)) as stamp
       from animals a
       join animal_states s on s.collection_id = a.collection_id and s.animal_id = a.id and s.day = :today
       ${HOUSING}
       left join racks p on p.collection_id = k.collection_id and p.id = k.id and not ${APART}
      where a.collection_id = :collectionId and ${livingSql('a.status')} and ${HERE}
      group by ${APART}, p.id, p.walk_order, p.room, p.name
      order by ${APART}, p.id is null, p.walk_order, p.room, p.name`,
    { ...unstored, today: work.today },
  );
}

const idsOf = (rows: readonly { id: string }[]): string[] => rows.map(({ id }) => id);

/** @param rackId - a rack's, `WITHOUT_TUB` or `IN_QUARANTINE` */
export async function animalsOfRound(work: Work, rackId: string, unstored: Unstored): Promise<string[]> {
  const isThere =
    rackId === IN_QUARANTINE
      ? APART
      : `not ${APART} and ${rackId === WITHOUT_TUB ? 'a.tub_id is null' : 't.rack_id = :rackId'}`;
  return idsOf(
    await select<{ id: string }>(
      work,
      `select a.id from animals a
         left join tubs t on t.collection_id = a.collection_id and t.id = a.tub_id
         left join animal_states s on s.collection_id = a.collection_id and s.animal_id = a.id and s.day = :today
        where a.collection_id = :collectionId and ${livingSql('a.status')} and ${HERE} and ${isThere}`,
      { ...unstored, rackId, today: work.today },
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
