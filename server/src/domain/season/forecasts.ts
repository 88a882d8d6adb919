import { forecastSeason, type SeasonForecast } from '@karyotome/core';
import { select, type Work } from '../../db/work.ts';
import { OPEN_DAYS } from './introductions.ts';
import { seasonEvents, toSeasonEvents } from './season-events.ts';
import { waitsOf } from './waits.ts';

/** Where the pairings without eggs stand. */
export async function openForecasts(
  work: Work,
): Promise<{ pairingId: string; damId: string; dam: string; forecast: SeasonForecast }[]> {
  const rows = await select<{ id: string; damId: string; dam: string }>(
    work,
    `select p.id, p.dam_id as "damId", a.number as dam from pairings p
       join animals a on a.collection_id = p.collection_id and a.id = p.dam_id
      where p.collection_id = :collectionId and p.started_on > cast(:today as date) - ${OPEN_DAYS}
        and not exists (select 1 from clutches c where c.collection_id = p.collection_id and c.pairing_id = p.id)
      order by a.number`,
    { today: work.today },
  );
  if (rows.length === 0) return [];
  const events = await seasonEvents(work);
  const waits = await waitsOf(work);
  return rows.map(({ id, damId, dam }) => ({
    pairingId: id,
    damId,
    dam,
    forecast: forecastSeason(toSeasonEvents(events.get(id) ?? []), null, waits, work.today),
  }));
}
