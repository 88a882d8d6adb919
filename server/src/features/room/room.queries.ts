import { select, type Work } from '../../db/work.ts';

/** Clutches that have not hatched, with their good eggs. */
export function lyingClutches(work: Work): Promise<{ id: string; eggs: number }[]> {
  return select<{ id: string; eggs: number }>(
    work,
    `select id, eggs - coalesce(slugs, 0) as eggs from clutches
          where collection_id = :collectionId and hatched_on is null`,
  );
}
