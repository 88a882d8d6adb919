import { select, type Work } from '../../db/work.ts';

/** One identification of an animal that stands, if there is any. */
export function standingIdentification(
  work: Work,
  params: { readonly animalId: string },
): Promise<{ id: string }[]> {
  return select<{ id: string }>(
    work,
    `select 1 from records where collection_id = :collectionId and animal_id = :animalId
        and kind = 'identification' and voided_at is null limit 1`,
    params,
  );
}

/** What is published, the newest first. */
export function listedPublications(
  work: Work,
): Promise<{ animalId: string; slug: string; publishedAt: string }[]> {
  return select<{ animalId: string; slug: string; publishedAt: string }>(
    work,
    `select animal_id as "animalId", slug, published_at as "publishedAt" from publications
      where collection_id = :collectionId and withdrawn_at is null order by published_at desc`,
  );
}
