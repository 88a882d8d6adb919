import { addDays, daysBetween, type DailyMeans } from '@karyotome/core';
import { select, type Work } from '../../db/work.ts';

/** Mean temperatures of the incubators, as a clutch sees them: by its day of incubation. */
export interface IncubatorMeans {
  of(incubatorId: string | null, laidOn: string): DailyMeans;
}

/** No clutch lies longer than this. */
const LONGEST_DAYS = 100;

export async function dailyMeans(work: Work): Promise<IncubatorMeans> {
  const rows = await select<{ incubatorId: string; days: [string, number][] }>(
    work,
    `select incubator_id as "incubatorId", json_agg(json_build_array(day, celsius)) as days from (
       select incubator_id, (at at time zone :timeZone)::date as day, avg(celsius) as celsius from readings
        where collection_id = :collectionId group by 1, 2) means
      group by incubator_id`,
    { timeZone: work.timeZone },
  );
  const byIncubator = new Map(rows.map(({ incubatorId, days }) => [incubatorId, days]));
  return {
    of(incubatorId, laidOn) {
      const last = addDays(laidOn, LONGEST_DAYS);
      const days = (incubatorId && byIncubator.get(incubatorId)) || [];
      return new Map(
        days
          .filter(([day]) => day >= laidOn && day <= last)
          .map(([day, celsius]) => [daysBetween(laidOn, day), celsius]),
      );
    },
  };
}
