import { writing, type Database, type Work } from '../../db/work.ts';
import { notifyChanged } from '../changes/notify.ts';
import { happen } from './status-events.ts';
import { collectionsWithReservations, lapsedReservations } from './sales.queries.ts';

/** Takes up for sale again what was reserved until a day that is over. @returns the animals */
export async function lapseReservations(work: Work): Promise<string[]> {
  const lapsed = await lapsedReservations(work, { today: work.today });
  for (const { animalId, until } of lapsed)
    await happen(work, animalId, { kind: 'lapsed', on: work.today, details: { until } }, 'animalId', null);
  return lapsed.map(({ animalId }) => animalId);
}

/** Ends, in every collection, what was reserved until a day that is over where the farm lies. */
export async function lapseEverywhere(database: Database): Promise<void> {
  for (const collectionId of await collectionsWithReservations(database)) {
    const lapsed = await writing(database, { collectionId }, lapseReservations);
    if (lapsed.length > 0) notifyChanged(collectionId, { tags: ['animals', 'sales', 'persons'], page: null });
  }
}
