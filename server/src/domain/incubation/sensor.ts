import { simulatedReading } from '@karyotome/core';
import type { Transaction } from 'sequelize';
import type { Models } from '../../db/models.ts';
import type { IncubatorRow } from '../../db/breeding-rows.ts';
import type { Database } from '../../db/work.ts';

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

/** Lets all simulated sensors speak at a moment; while no process runs they are silent, as a real one would be. */
export async function readSensors({ models }: Database, at: Date): Promise<void> {
  const rows = await models.incubators.findAll();
  for (const row of rows) await readSensor(models, row.get(), at);
}
