import type { RecordFact } from '@karyotome/contract';
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

/** What a round shows as done, the oldest first. */
export function recordedToday(work: Work): Promise<(RecordFact & { id: string; animalId: string })[]> {
  return select<RecordFact & { id: string; animalId: string }>(
    work,
    `select id, animal_id as "animalId", kind, body from records
      where collection_id = :collectionId and voided_at is null and on_day = :today
        and kind in ('weight', 'feeding', 'shed', 'care', 'note') order by recorded_at`,
    { today: work.today },
  );
}
