import { addDays, daysBetween, type DailyMeans } from '@karyotome/core';
import { oncePerRead } from '../../db/once-per-read.ts';
import { type Work } from '../../db/work.ts';
import { meansByDay } from './incubators.queries.ts';

/** Mean temperatures of the incubators, as a clutch sees them: by its day of incubation. */
export interface IncubatorMeans {
  of(incubatorId: string | null, laidOn: string): DailyMeans;
}

/** No clutch lies longer than this. */
const LONGEST_DAYS = 100;

export const dailyMeans = (work: Work): Promise<IncubatorMeans> =>
  oncePerRead(work, 'daily-means', () => readMeans(work));

async function readMeans(work: Work): Promise<IncubatorMeans> {
  const rows = await meansByDay(work);
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
