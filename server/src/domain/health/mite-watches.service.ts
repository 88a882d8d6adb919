import type { MiteWatchView } from '@karyotome/contract';
import { miteWatch } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { groupBy } from '../../group-by.ts';
import { miteSightings, residentsOf } from './health.queries.ts';

/** Racks that are watched for mites, with everybody who lives there. */
export async function miteWatches(work: Work): Promise<MiteWatchView[]> {
  const sightings = await miteSightings(work);
  const residents = groupBy(
    await residentsOf(
      work,
      sightings.map(({ rackId }) => rackId),
    ),
    ({ rackId }) => rackId,
  );
  return sightings.flatMap(({ rackId, rack, lastSeenOn }) => {
    const own = residents.get(rackId) ?? [];
    const watch = miteWatch(lastSeenOn, own, work.today);
    if (watch === null) return [];
    const due = new Set(watch.toCheck);
    return [
      {
        ...watch,
        id: rackId,
        name: rack,
        animals: own.map(({ rackId: _, ...animal }) => ({ ...animal, isDue: due.has(animal.id) })),
      },
    ];
  });
}
