import type { ReadingsImport } from '@karyotome/contract';
import type { Work } from '../../db/work.ts';
import { Refusal } from '../../refusal.ts';
import type { Job } from '../../http/jobs.ts';
import type { ClimateKind } from '../../domain/climate/climate.queries.ts';
import { findPlace } from '../../domain/climate/climate.service.ts';
import { addLoggerReadings } from '../../domain/climate/readings.repository.ts';
import type { LoggerReadings } from './read-logger.ts';

/** Readings in one statement. */
const CHUNK = 5_000;

/** Takes over the readings of a logger's file. The same file again, or one that overlaps, adds only what is new. */
export async function importReadings(
  work: Work,
  { kind, id }: { readonly kind: ClimateKind; readonly id: string },
  { at, celsius, humidity }: LoggerReadings,
  job: Job,
): Promise<ReadingsImport> {
  await findPlace(work, kind, id);
  let taken = 0;
  for (let from = 0; from < at.length; from += CHUNK) {
    if (job.signal.aborted)
      throw new Refusal('conflict', 'The import was cancelled. Nothing was taken over.');
    const rows = Array.from(at.subarray(from, from + CHUNK), (ms, i) => ({
      at: new Date(ms).toISOString(),
      celsius: celsius[from + i]!,
      humidity: Number.isNaN(humidity[from + i]) ? null : humidity[from + i]!,
    }));
    taken += await addLoggerReadings(work, id, rows);
    job.report({ step: 'writing', done: Math.min(from + CHUNK, at.length), of: at.length });
  }
  const [first, last] = at.reduce(
    ([low, high], ms) => [Math.min(low, ms), Math.max(high, ms)],
    [Infinity, -Infinity],
  );
  const moments = new Set(at).size;
  return {
    taken,
    known: moments - taken,
    from: new Date(first).toISOString(),
    to: new Date(last).toISOString(),
  };
}
