import { withClutchName } from './clutch-name.ts';
import { select, type Work } from '../../db/work.ts';

/** No female lays twice within so many days: it is one clutch, entered by two. Common practice, no source. */
export const SAME_CLUTCH_DAYS = 40;

/** The highest number of a clutch in a season; 0 before the first. */
export function lastOrdinal(work: Work, params: { readonly season: number }): Promise<{ ordinal: number }[]> {
  return select<{ ordinal: number }>(
    work,
    'select coalesce(max(ordinal), 0)::int as ordinal from clutches where collection_id = :collectionId and season = :season',
    params,
  );
}

/** A clutch of the pairing that was laid within a few days of one. */
export async function clutchesNear(
  work: Work,
  params: { readonly pairingId: string; readonly laidOn: string },
): Promise<{ laidOn: string; name: string }[]> {
  const rows = await select<{ laidOn: string; season: number; ordinal: number }>(
    work,
    `select laid_on as "laidOn", season, ordinal from clutches
      where collection_id = :collectionId and pairing_id = :pairingId
        and abs(laid_on - cast(:laidOn as date)) < ${SAME_CLUTCH_DAYS} limit 1`,
    params,
  );
  return rows.map(withClutchName);
}
