import { select, type Work } from '../../db/work.ts';
import { withClutchName } from '../season/clutch-name.ts';

/** Clutches that lie in an incubator. */
export async function clutchesByIncubator(
  work: Work,
): Promise<{ id: string; name: string; laidOn: string; incubatorId: string }[]> {
  const rows = await select<{
    id: string;
    laidOn: string;
    incubatorId: string;
    season: number;
    ordinal: number;
  }>(
    work,
    `select id, season, ordinal, laid_on as "laidOn",
            incubator_id as "incubatorId"
       from clutches where collection_id = :collectionId and hatched_on is null and incubator_id is not null
      order by laid_on`,
  );
  return rows.map(withClutchName);
}

/** Mean temperature of each incubator on each day of the farm. */
export function meansByDay(work: Work): Promise<{ incubatorId: string; days: [string, number][] }[]> {
  return select<{ incubatorId: string; days: [string, number][] }>(
    work,
    `select place_id as "incubatorId", json_agg(json_build_array(day, celsius)) as days from (
       select place_id, (at at time zone :timeZone)::date as day, avg(celsius) as celsius from readings
        where collection_id = :collectionId group by 1, 2) means
      group by place_id`,
    { timeZone: work.timeZone },
  );
}
