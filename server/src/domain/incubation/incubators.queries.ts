import { withClutchName } from '../season/clutch-name.ts';
import type { IncubatorView } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';

export type LastReading = { incubatorId: string } & NonNullable<IncubatorView['last']>;

/** The last reading of each incubator. */
export function lastReadings(work: Work): Promise<LastReading[]> {
  return select<LastReading>(
    work, // One look into the index for each incubator, however many readings there are.
    `select last.incubator_id as "incubatorId", last.at, last.celsius, last.humidity, last.source
       from incubators i cross join lateral (
         select * from readings r where r.collection_id = i.collection_id and r.incubator_id = i.id
          order by r.at desc limit 1) last
      where i.collection_id = :collectionId`,
  );
}

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

/** Readings by the hour: mean, extremes, humidity. */
export function hourlyReadings(
  work: Work,
  params: { readonly days: number },
): Promise<({ incubatorId: string } & IncubatorView['series'][number])[]> {
  return select<{ incubatorId: string } & IncubatorView['series'][number]>(
    work,
    `select incubator_id as "incubatorId", date_trunc('hour', at) as at, avg(celsius) as celsius,
            min(celsius) as low, max(celsius) as high, avg(humidity) as humidity
       from readings where collection_id = :collectionId and at > now() - make_interval(days => :days)
      group by 1, 2 order by 1, 2`,
    params,
  );
}

/** Mean temperature of each incubator on each day of the farm. */
export function meansByDay(work: Work): Promise<{ incubatorId: string; days: [string, number][] }[]> {
  return select<{ incubatorId: string; days: [string, number][] }>(
    work,
    `select incubator_id as "incubatorId", json_agg(json_build_array(day, celsius)) as days from (
       select incubator_id, (at at time zone :timeZone)::date as day, avg(celsius) as celsius from readings
        where collection_id = :collectionId group by 1, 2) means
      group by incubator_id`,
    { timeZone: work.timeZone },
  );
}
