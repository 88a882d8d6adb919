import { select, type Work } from '../../db/work.ts';

/** Changes with whatever a published claim rests on. */
export function publicationStamp(work: Work): Promise<{ stamp: string }[]> {
  return select<{ stamp: string }>(
    work,
    `select c.genetics_revision || ' ' || coalesce((
       select string_agg(p.animal_id::text, ',' order by p.animal_id) from publications p
        where p.collection_id = c.id and p.withdrawn_at is null), '') as stamp
       from collections c where c.id = :collectionId`,
  );
}
