import type { ClaimChangeView } from '@karyotome/contract';
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

/** Why a change of claims is not published, and which change that is. */
export interface Withheld {
  readonly withheldReason: string | null;
  readonly withheldChanges: ClaimChangeView[] | null;
}

export interface ListedPublication extends Withheld {
  readonly animalId: string;
  readonly slug: string;
  readonly publishedAt: string;
}

/** What is published, the newest first. */
export function listedPublications(work: Work): Promise<ListedPublication[]> {
  return select<ListedPublication>(
    work,
    `select animal_id as "animalId", slug, published_at as "publishedAt", withheld_reason as "withheldReason",
            withheld_changes as "withheldChanges" from publications
      where collection_id = :collectionId and withdrawn_at is null order by published_at desc`,
  );
}
