import { select, type Work } from '../../db/work.ts';

/**
 * SQL for a picture, by `slug` and `id`, that everybody may see: its animal's page is open, and the offer shows the picture,
 * or shows all. Yields its file and the words that are stamped on it.
 */
export const PUBLISHED_PICTURE = `
  select pic.file, a.number, c.name as collection from pictures pic
    join publications p on p.collection_id = pic.collection_id and p.animal_id = pic.animal_id
    join animals a on a.collection_id = pic.collection_id and a.id = pic.animal_id
    join collections c on c.id = pic.collection_id
    left join offers o on o.collection_id = p.collection_id and o.animal_id = p.animal_id
   where p.slug = :slug and p.withdrawn_at is null and pic.id = :id
     and (o.picture_ids is null or o.picture_ids ? :id::text)`;

export interface PictureOf {
  readonly id: string;
  readonly animalId: string;
  /** Of the copy that is shown, within the pictures' folder. */
  readonly file: string;
  readonly takenOn: string | null;
}

/** Pictures of animals, the newest of each first. */
export function picturesOf(
  work: Work,
  params: { readonly animalIds: readonly string[] },
): Promise<PictureOf[]> {
  return select<PictureOf>(
    work,
    `select id, animal_id as "animalId", file, taken_on as "takenOn" from pictures
      where collection_id = :collectionId and animal_id = any(:animalIds::uuid[])
      order by created_at desc, id`,
    params,
  );
}
