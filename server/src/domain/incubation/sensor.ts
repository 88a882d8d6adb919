import { simulatedReading } from '@karyotome/core';
import type { Transaction } from 'sequelize';
import { now } from '../../clock.ts';
import type { Models } from '../../db/models.ts';
import type { IncubatorRow } from '../../db/breeding-rows.ts';
import type { Database } from '../../db/work.ts';

/** How often the simulated sensor speaks. */
const EVERY_MS = 10 * 60_000;

/** Writes what the simulated sensor of an incubator says at a moment; nothing where it has none. */
export async function readSensor(
  models: Models,
  incubator: Omit<IncubatorRow, 'version'>,
  at: Date,
  transaction?: Transaction,
): Promise<void> {
  if (incubator.sensor === 'none') return;
  const play = incubator.sensor === 'simulated-failing' ? 'heater-fails' : 'steady';
  const { celsius, humidity } = simulatedReading(
    at.getTime(),
    incubator.setC,
    play,
    new Date(incubator.sensorSince).getTime(),
  );
  const row = {
    collectionId: incubator.collectionId,
    incubatorId: incubator.id,
    at,
    source: 'simulated' as const,
    celsius,
    humidity,
  };
  await models.readings.bulkCreate([row], {
    ignoreDuplicates: true,
    ...(transaction ? { transaction } : {}),
  });
}

/** Lets all simulated sensors speak at a moment. */
export async function readSensors({ models }: Database, at: Date): Promise<void> {
  const rows = await models.incubators.findAll();
  for (const row of rows) await readSensor(models, row.get(), at);
}

/**
 * Runs the simulated sensors for as long as the server runs; while it does not, they are silent, as a real one would be.
 *
 * @param onFailure - called with what went wrong; the next turn is tried all the same
 * @returns ends it
 */
export function startSensors(database: Database, onFailure: (error: unknown) => void): () => void {
  const speak = (): void => void readSensors(database, now()).catch(onFailure);
  speak();
  const timer = setInterval(speak, EVERY_MS);
  timer.unref();
  return () => clearInterval(timer);
}
