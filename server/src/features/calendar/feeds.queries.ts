import type { FeedView } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';

/** Calendar addresses that were not revoked. */
export function openFeeds(work: Work): Promise<FeedView[]> {
  return select<FeedView>(
    work,
    `select f.id, f.name, a.name as by, f.created_at as "createdAt"
       from calendar_feeds f join accounts a on a.id = f.author_id
      where f.collection_id = :collectionId and f.revoked_at is null order by f.created_at`,
  );
}
