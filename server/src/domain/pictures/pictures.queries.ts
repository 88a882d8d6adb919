import { select, type Work } from '../../db/work.ts';

/** The copies that are shown of an animal's pictures, the oldest first. */
export function pictureFiles(work: Work, params: { readonly animalId: string }): Promise<{ file: string }[]> {
  return select<{ file: string }>(
    work,
    `select file from pictures where collection_id = :collectionId and animal_id = :animalId order by created_at, id`,
    params,
  );
}
