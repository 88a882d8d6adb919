import { MITE_WATCH_DAYS } from '@karyotome/core';
import type { TubPlace } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';
import { STANDING } from '../states/states.queries.ts';
import { livingSql } from '../animals/living-sql.ts';

/** A course of an animal as it stands: how many doses in all, on which day it begins, whether it was ended. */
export interface CourseRow {
  readonly doses: number | null;
  readonly from: string;
  readonly isEnded: boolean;
}

export async function courseOf(
  work: Work,
  params: { readonly animalId: string; readonly courseId: string },
): Promise<CourseRow | null> {
  const [row] = await select<CourseRow>(
    work,
    `select (r.body ->> 'doses')::int as doses, r.body ->> 'from' as "from",
            exists (select 1 from records e where e.collection_id = r.collection_id and e.animal_id = r.animal_id
                       and e.kind = 'treatment-end' and e.voided_at is null and e.body ->> 'courseId' = :courseId) as "isEnded"
       from records r
      where r.collection_id = :collectionId and r.animal_id = :animalId and r.kind = 'treatment' and r.voided_at is null
        and r.body ->> 'courseId' = :courseId`,
    params,
  );
  return row ?? null;
}

/** Standing doses of a course, by number. */
export function dosesOf(
  work: Work,
  params: { readonly animalId: string; readonly courseId: string },
): Promise<{ ordinal: number; author: string }[]> {
  return select<{ ordinal: number; author: string }>(
    work,
    `select (r.body ->> 'ordinal')::int as ordinal, a.name as author
       from records r join accounts a on a.id = r.author_id
      where r.collection_id = :collectionId and r.animal_id = :animalId and r.kind = 'dose' and r.voided_at is null
        and r.body ->> 'courseId' = :courseId
      order by ordinal`,
    params,
  );
}

/** Animals that need care for their health, of those whose stored state stands. */
export async function storedHealthCases(work: Work): Promise<string[]> {
  const rows = await select<{ id: string }>(
    work,
    `select animal_id as id from animal_states where ${STANDING} and is_health_case`,
    { today: work.today },
  );
  return rows.map(({ id }) => id);
}

/** The rack that an animal lives in. */
export async function rackOfTub(work: Work, tubId: string): Promise<string | null> {
  const [row] = await select<{ rackId: string }>(
    work,
    'select rack_id as "rackId" from tubs where collection_id = :collectionId and id = :tubId',
    { tubId },
  );
  return row?.rackId ?? null;
}

export interface MiteSighting {
  readonly rackId: string;
  readonly rack: string;
  readonly lastSeenOn: string;
}

/** Racks in which mites were seen lately, by their name. */
export function miteSightings(work: Work): Promise<MiteSighting[]> {
  return select<MiteSighting>(
    work,
    `select k.id as "rackId", k.name as rack, max(r.on_day)::text as "lastSeenOn"
       from records r
       join racks k on k.collection_id = r.collection_id and k.id = (r.body ->> 'rackId')::uuid
      where r.collection_id = :collectionId and r.kind = 'health-check' and r.voided_at is null
        and r.body -> 'signs' ? 'mites' and r.on_day <= :today
        and r.on_day >= cast(:today as date) - ${MITE_WATCH_DAYS}
      group by k.id, k.name order by k.name`,
    { today: work.today },
  );
}

export interface Resident {
  readonly rackId: string;
  readonly id: string;
  readonly number: string;
  readonly place: TubPlace;
  /** When it was last looked at. */
  readonly checkedOn: string | null;
}

/** Who lives in racks, tub by tub. */
export function residentsOf(work: Work, rackIds: readonly string[]): Promise<Resident[]> {
  if (rackIds.length === 0) return Promise.resolve([]);
  return select<Resident>(
    work,
    `select t.rack_id as "rackId", a.id, a.number,
            json_build_object('tubId', t.id, 'rackId', k.id, 'room', k.room, 'rack', k.name, 'level', t.level, 'slot', t.slot) as place,
            (select max(r.on_day)::text from records r
              where r.collection_id = a.collection_id and r.animal_id = a.id and r.kind = 'health-check'
                and r.voided_at is null and r.on_day <= :today) as "checkedOn"
       from animals a
       join tubs t on t.collection_id = a.collection_id and t.id = a.tub_id
       join racks k on k.collection_id = t.collection_id and k.id = t.rack_id
      where a.collection_id = :collectionId and t.rack_id in (:rackIds) and ${livingSql('a.status')}
      order by t.level, t.slot, a.number`,
    { rackIds, today: work.today },
  );
}
