import { addDays, hourIn } from '@karyotome/core';
import { nowMs } from '../../clock.ts';
import { reading, type Database, type Reader } from '../../db/work.ts';
import { beginDay } from './begin-day.ts';
import { catchUp } from './catch-up.ts';
import { fitRevision } from './states.queries.ts';
import { collectionsAtWork, removeDaysBefore } from './states.repository.ts';

/** From this hour of the farm's day on, the next is prepared. */
const FROM_HOUR = 18;

/** Longer than the largest collection takes. */
const LONGEST_MS = 3_600_000;

/**
 * Prepares, where the farm's evening has come, what tomorrow is read from, so that nobody waits for it after midnight; and
 * removes the days that are over. What changes until midnight is computed anew by the next run. A fault in one collection
 * leaves the others alone.
 *
 * @param fromHour - of the farm's day, 0 to 23
 */
export async function rollOver(database: Database, fromHour = FROM_HOUR): Promise<void> {
  for (const collectionId of await collectionsAtWork(database))
    await rollOverOne(database, { collectionId }, fromHour).catch(database.onFault);
}

async function rollOverOne(database: Database, reader: Reader, fromHour: number): Promise<void> {
  const { today, hour, isBegun } = await reading(database, reader, async (work) => ({
    today: work.today,
    hour: hourIn(work.timeZone, nowMs()),
    isBegun: (await fitRevision(work, addDays(work.today, 1))).length > 0,
  }));
  await removeDaysBefore(database, reader.collectionId, today);
  if (hour < fromHour) return;
  const tomorrow = addDays(today, 1);
  if (!isBegun) await beginDay(database, reader, tomorrow, { isFitted: true });
  await catchUp(database, reader, tomorrow, { patienceMs: LONGEST_MS });
}
