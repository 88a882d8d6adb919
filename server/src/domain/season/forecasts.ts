import { forecastSeason, type SeasonForecast } from '@karyotome/core';
import { type Work } from '../../db/work.ts';
import { seasonEvents, toSeasonEvents } from './season-events.ts';
import { waitsOf } from './waits.ts';
import { openPairings } from './season-state.queries.ts';

/** Where the pairings without eggs stand. */
export async function openForecasts(
  work: Work,
): Promise<{ pairingId: string; damId: string; dam: string; forecast: SeasonForecast }[]> {
  const rows = await openPairings(work);
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
