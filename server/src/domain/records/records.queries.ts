import type { ValidRecord } from './history.ts';
import { select, type Work } from '../../db/work.ts';
import { livingSql } from '../animals/living-sql.ts';

/** Numbers of the other living animals in a tub. */
export function othersInTub(
  work: Work,
  params: { readonly tubId: string; readonly except: string },
): Promise<{ number: string }[]> {
  return select<{ number: string }>(
    work,
    `select number from animals where collection_id = :collectionId and tub_id = :tubId and id <> :except
        and ${livingSql()} order by number`,
    params,
  );
}

export function namesOfTubs(
  work: Work,
  params: { readonly wanted: string[] },
): Promise<{ id: string; name: string }[]> {
  return select<{ id: string; name: string }>(
    work,
    `select t.id, k.name || ' ' || t.level || '-' || t.slot as name
       from tubs t join racks k on k.collection_id = t.collection_id and k.id = t.rack_id
      where t.collection_id = :collectionId and t.id in (:wanted)`,
    params,
  );
}

/** The newest standing record of a kind. */
export function latestOfKind(
  work: Work,
  params: { readonly animalId: string; readonly kind: string },
): Promise<{ body: Record<string, unknown> }[]> {
  return select<{ body: Record<string, unknown> }>(
    work,
    `select body from records where collection_id = :collectionId and animal_id = :animalId and kind = :kind
            and voided_at is null order by on_day desc, recorded_at desc limit 1`,
    params,
  );
}

/** Whether a loan of the animal runs on a day: the last one begun, not ended since. */
export async function isLent(work: Work, animalId: string, on: string): Promise<boolean> {
  const [row] = await select<{ isLent: boolean }>(
    work,
    `select exists (
       select from (
         select on_day from records where collection_id = :collectionId and animal_id = :animalId and kind = 'loan'
            and voided_at is null and on_day <= :on order by on_day desc limit 1) loan
        where not exists (
          select from records e where e.collection_id = :collectionId and e.animal_id = :animalId and e.kind = 'loan-end'
             and e.voided_at is null and e.on_day >= loan.on_day and e.on_day <= :on)) as "isLent"`,
    { animalId, on },
  );
  return row!.isLent;
}

/** The standing records of animals, in date order. */
export function recordsOfAnimals(work: Work, animalIds: readonly string[]): Promise<ValidRecord[]> {
  if (animalIds.length === 0) return Promise.resolve([]);
  return select<ValidRecord>(
    work,
    `select id, animal_id as "animalId", kind, on_day as "onDay", body from records
      where collection_id = :collectionId and animal_id in (:animalIds) and voided_at is null
      order by on_day, recorded_at`,
    { animalIds },
  );
}

/** Animals of these ids, locked until the transaction ends, in one order for whoever locks several. */
export function lockedAnimals(
  work: Work,
  ids: readonly string[],
): Promise<{ id: string; hatchedOn: string | null }[]> {
  return select<{ id: string; hatchedOn: string | null }>(
    work,
    `select id, hatched_on as "hatchedOn" from animals where collection_id = :collectionId and id in (:ids)
      order by id for update`,
    { ids },
  );
}
