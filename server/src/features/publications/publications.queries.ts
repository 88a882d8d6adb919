import { select, type Work } from '../../db/work.ts';

/** One identification of an animal that stands, or another breeder's word of it, if there is any. */
export function standingIdentification(
  work: Work,
  params: { readonly animalId: string },
): Promise<{ id: string }[]> {
  return select<{ id: string }>(
    work,
    `select 1 from records where collection_id = :collectionId and animal_id = :animalId
        and kind = 'identification' and voided_at is null
      union all select 1 from stated_evidence where collection_id = :collectionId and animal_id = :animalId limit 1`,
    params,
  );
}
