import {
  learnWaits,
  REFERENCE_C,
  referenceDays,
  daysBetween,
  type PastClutch,
  type Waits,
} from '@karyotome/core';
import { oncePerRead } from '../../db/once-per-read.ts';
import { type Work } from '../../db/work.ts';
import { dailyMeans, type IncubatorMeans } from '../incubation/daily-means.ts';
import { pastClutches } from './season-state.queries.ts';

/**
 * The waiting times as the collection's own clutches have taught them.
 *
 * @param known - the incubators' daily means, where they were read already
 */
export const waitsOf = (work: Work, known?: IncubatorMeans): Promise<Waits> =>
  oncePerRead(work, 'waits', () => readWaits(work, known));

async function readWaits(work: Work, known?: IncubatorMeans): Promise<Waits> {
  const rows = await pastClutches(work);
  const means = known ?? (await dailyMeans(work));
  return learnWaits(
    rows.map((row): PastClutch => {
      const setC = row.incubationC ?? REFERENCE_C;
      return {
        ovulatedOn: row.ovulatedOn,
        shedOn: row.shedOn,
        laidOn: row.laidOn,
        pipDays:
          row.pippedOn === null
            ? null
            : referenceDays(
                daysBetween(row.laidOn, row.pippedOn),
                means.of(row.incubatorId, row.laidOn),
                setC,
              ),
      };
    }),
  );
}
