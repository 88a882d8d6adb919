import { select, type Work } from '../../db/work.ts';

export interface DatedPicture {
  readonly pictureId: string;
  readonly animalId: string;
  readonly number: string;
  readonly sex: 'female' | 'male' | 'unknown';
  readonly isDrawing: boolean;
  readonly ageDays: number;
}

/** Pictures of animals that were at least so old when they were taken: the last photograph of each, else the last drawing. @param fromDays - of age */
export function picturesFromAge(
  work: Work,
  params: { readonly animalIds: readonly string[]; readonly fromDays: number },
): Promise<DatedPicture[]> {
  if (params.animalIds.length === 0) return Promise.resolve([]);
  return select<DatedPicture>(
    work,
    `select distinct on (a.id) p.id as "pictureId", a.id as "animalId", a.number, a.sex, p.is_drawing as "isDrawing",
            p.taken_on - a.hatched_on as "ageDays"
       from pictures p join animals a on a.collection_id = p.collection_id and a.id = p.animal_id
      where p.collection_id = :collectionId and a.id in (:animalIds)
        and p.taken_on - a.hatched_on >= :fromDays
      order by a.id, p.is_drawing, p.taken_on desc, p.created_at desc`,
    params,
  );
}
