import { forecastSeason, type SeasonForecast } from '@karyotome/core';
import { type Work } from '../../db/work.ts';
import { seasonEvents, toSeasonEvents } from './season-events.ts';
import { waitsOf } from './waits.ts';
import { openPairings } from './season-state.queries.ts';

/** Where the pairings without eggs stand. */
export async function openForecasts(
  work: Work,
): Promise<
  { pairingId: string; damId: string; dam: string; isDamHere: boolean; forecast: SeasonForecast }[]
> {
  const rows = await openPairings(work);
  if (rows.length === 0) return [];
  const events = await seasonEvents(
    work,
    rows.map(({ id }) => id),
  );
  const waits = await waitsOf(work);
  return rows.map(({ id, damId, dam, isDamHere }) => ({
    pairingId: id,
    damId,
    dam,
    isDamHere,
    forecast: forecastSeason(toSeasonEvents(events.get(id) ?? []), null, waits, work.today),
  }));
}
