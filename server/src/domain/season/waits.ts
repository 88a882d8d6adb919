import {
  learnWaits,
  REFERENCE_C,
  referenceDays,
  daysBetween,
  type PastClutch,
  type Waits,
} from '@karyotome/core';
import { select, type Work } from '../../db/work.ts';
import { dailyMeans, type IncubatorMeans } from '../incubation/daily-means.ts';

interface PastRow {
  id: string;
  laidOn: string;
  incubatorId: string | null;
  incubationC: number | null;
  ovulatedOn: string | null;
  shedOn: string | null;
  pippedOn: string | null;
}

const PAST_SQL = `
  select c.id, c.laid_on as "laidOn", c.incubator_id as "incubatorId", c.incubation_c as "incubationC",
         (select max(e.on_day) from pairing_events e where e.collection_id = c.collection_id and e.pairing_id = c.pairing_id
           and e.kind = 'ovulation' and e.voided_at is null and e.on_day <= c.laid_on) as "ovulatedOn",
         (select max(e.on_day) from pairing_events e where e.collection_id = c.collection_id and e.pairing_id = c.pairing_id
           and e.kind = 'pre-lay-shed' and e.voided_at is null and e.on_day <= c.laid_on) as "shedOn",
         (select min(e.on_day) from egg_events e where e.collection_id = c.collection_id and e.clutch_id = c.id
           and e.kind in ('pip', 'out') and e.voided_at is null) as "pippedOn"
    from clutches c where c.collection_id = :collectionId`;

/**
 * The waiting times as the collection's own clutches have taught them.
 *
 * @param known - the incubators' daily means, where they were read already
 */
export async function waitsOf(work: Work, known?: IncubatorMeans): Promise<Waits> {
  const rows = await select<PastRow>(work, PAST_SQL);
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
