import type { ReadingsImport } from '@karyotome/contract';
import type { Work } from '../../db/work.ts';
import { invalidField } from '../../http/problems.ts';
import { findIncubator } from './incubators.service.ts';
import { readLogger } from './read-logger.ts';

/** Takes over a logger's file. The same file again, or one that overlaps, adds only what is new. */
export async function importReadings(work: Work, incubatorId: string, csv: string): Promise<ReadingsImport> {
  await findIncubator(work, incubatorId);
  const readings = readLogger(csv);
  const late = readings.findIndex(({ at }) => Date.parse(at) > Date.now() + 3_600_000);
  if (late >= 0) throw invalidField(`line ${late + 2}`, 'lies in the future', 'future');
  const byMoment = new Map(readings.map((reading) => [reading.at, reading]));
  const { collectionId } = work.actor;
  const before = await work.models.readings.count({
    where: { collectionId, incubatorId },
    transaction: work.transaction,
  });
  await work.models.readings.bulkCreate(
    [...byMoment.values()].map(({ at, celsius, humidity }) => ({
      collectionId,
      incubatorId,
      at: new Date(at),
      source: 'logger' as const,
      celsius,
      humidity: humidity ?? null,
    })),
    { ignoreDuplicates: true, transaction: work.transaction },
  );
  const after = await work.models.readings.count({
    where: { collectionId, incubatorId },
    transaction: work.transaction,
  });
  const moments = [...byMoment.keys()].toSorted();
  return {
    taken: after - before,
    known: byMoment.size - (after - before),
    from: moments[0]!,
    to: moments.at(-1)!,
  };
}
