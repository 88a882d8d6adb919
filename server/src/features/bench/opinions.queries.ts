import type { OpinionLinkView, OpinionView } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';

/** Second opinions on animals, the oldest first. */
export function opinionRows(
  work: Work,
  params: { readonly animalIds: readonly string[] },
): Promise<(OpinionView & { animalId: string })[]> {
  return select<OpinionView & { animalId: string }>(
    work,
    `select id, animal_id as "animalId", by_name as by, genes, sure, note, on_day as "on",
            link_id is not null as "isOutside"
       from opinions where collection_id = :collectionId and animal_id in (:animalIds) order by created_at`,
    params,
  );
}

/** Animals of a clutch and how many pictures each has. */
export function picturesInClutch(
  work: Work,
  params: { readonly clutchId: string },
): Promise<{ id: string; pictures: number }[]> {
  return select<{ id: string; pictures: number }>(
    work,
    `select a.id, (select count(*)::int from pictures p where p.collection_id = a.collection_id and p.animal_id = a.id) as pictures
       from animals a where a.collection_id = :collectionId and a.clutch_id = :clutchId`,
    params,
  );
}

/** Addresses for second opinions that are still good. */
export function openLinkRows(work: Work, params: { readonly clutchId: string }): Promise<OpinionLinkView[]> {
  return select<OpinionLinkView>(
    work,
    `select l.id, l.created_at as "createdAt", l.expires_on as "expiresOn",
            (select json_agg(a.number order by a.number) from animals a
              where a.collection_id = l.collection_id and l.animal_ids ? a.id::text) as numbers
       from opinion_links l
      where l.collection_id = :collectionId and l.clutch_id = :clutchId and l.used_at is null
        and l.revoked_at is null and l.expires_on >= :today order by l.created_at`,
    { ...params, today: work.today },
  );
}
