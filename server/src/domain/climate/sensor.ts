import { simulatedReading, steadyClimate } from '@karyotome/core';
import type { Transaction } from 'sequelize';
import type { Models } from '../../db/models.ts';
import type { ClimatePlaceRow } from '../../db/breeding-rows.ts';
import type { Database } from '../../db/work.ts';

/** Writes what the simulated sensor of a place says at a moment; nothing where it has none. */
export async function readSensor(
  models: Models,
  place: Omit<ClimatePlaceRow, 'version'>,
  at: Date,
  transaction?: Transaction,
): Promise<void> {
  if (place.sensor === 'none') return;
  const play = place.sensor === 'simulated-failing' ? 'heater-fails' : 'steady';
  const { celsius, humidity } = simulatedReading(
    at.getTime(),
    steadyClimate(place),
    play,
    new Date(place.sensorSince).getTime(),
  );
  const row = {
    collectionId: place.collectionId,
    placeId: place.id,
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

/** Lets all simulated sensors speak at a moment; while no process runs they are silent, as a real one would be. */
export async function readSensors({ models }: Database, at: Date): Promise<void> {
  const rows = await models.climatePlaces.findAll();
  for (const row of rows) await readSensor(models, row.get(), at);
}
