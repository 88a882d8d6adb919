import { select, type Work } from '../../db/work.ts';

/** Calendar addresses that were not revoked. */
export function openFeeds(
  work: Work,
): Promise<{ id: string; name: string; token: string; createdAt: string }[]> {
  return select<{ id: string; name: string; token: string; createdAt: string }>(
    work,
    `select id, name, token, created_at as "createdAt" from calendar_feeds
      where collection_id = :collectionId and revoked_at is null order by created_at`,
  );
}
