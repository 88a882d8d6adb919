import { select, type Work } from '../../db/work.ts';

/** One moment at a place. */
export interface Reading {
  /** RFC 3339. */
  readonly at: string;
  readonly celsius: number;
  /** Percent; null where it was not measured. */
  readonly humidity: number | null;
}

/** Adds readings of a logger, in one statement; those that are known already stay as they are. @returns how many were new */
export async function addLoggerReadings(
  work: Work,
  placeId: string,
  readings: readonly Reading[],
): Promise<number> {
  const [added] = await select<{ count: number }>(
    work,
    `with written as (
       insert into readings (collection_id, place_id, at, source, celsius, humidity)
       select :collectionId, :placeId, r.at, 'logger', r.celsius, r.humidity
         from jsonb_to_recordset(cast(:readings as jsonb)) as r (at timestamptz, celsius float8, humidity float8)
       on conflict do nothing returning 1)
     select count(*)::int as count from written`,
    { placeId, readings: JSON.stringify(readings) },
  );
  return added!.count;
}

/** Keeps a reading by hand; another one of the same moment takes the place of the first. */
export async function keepHandReading(work: Work, placeId: string, reading: Reading): Promise<void> {
  await work.models.readings.upsert(
    {
      collectionId: work.actor.collectionId,
      placeId,
      source: 'hand',
      ...reading,
      at: new Date(reading.at),
    },
    {
      transaction: work.transaction,
    },
  );
}
