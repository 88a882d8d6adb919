import { randomUUID } from 'node:crypto';
import type { IncubatorView, NewIncubator, NewReading } from '@karyotome/contract';
import { climateAlarms, daysBetween } from '@karyotome/core';
import { now, nowMs } from '../../clock.ts';
import { changeRow } from '../../db/change-rows.ts';
import type { IncubatorRow } from '../../db/breeding-rows.ts';
import type { Work } from '../../db/work.ts';
import { invalidField, notFound } from '../../refusal.ts';
import { keepHandReading } from './readings.repository.ts';
import { readSensor } from './sensor.ts';
import { clutchesByIncubator, hourlyReadings, lastReadings } from './incubators.queries.ts';

export async function findIncubator(work: Work, id: string, field?: string): Promise<IncubatorRow> {
  const row = await work.models.incubators.findOne({
    where: { collectionId: work.actor.collectionId, id },
    transaction: work.transaction,
  });
  if (row) return row.get();
  throw field ? invalidField(field, 'names no incubator of this collection') : notFound('This incubator');
}

export async function createIncubator(work: Work, input: NewIncubator): Promise<{ id: string }> {
  const id = randomUUID();
  const row = { collectionId: work.actor.collectionId, id, ...input, sensorSince: now(), version: 1 };
  await work.models.incubators.create(row, { transaction: work.transaction });
  await readSensor(work.models, row, now(), work.transaction);
  return { id };
}

export async function changeIncubator(
  work: Work,
  id: string,
  input: NewIncubator,
  version: number,
): Promise<{ id: string; version: number }> {
  const old = await findIncubator(work, id);
  const sensorSince = input.sensor === old.sensor ? old.sensorSince : now();
  const changed = await changeRow(
    work,
    work.models.incubators,
    'The incubator',
    { id, version },
    { ...input, sensorSince },
  );
  await readSensor(work.models, { ...old, ...input, sensorSince }, now(), work.transaction);
  return changed;
}

export async function addReading(work: Work, id: string, reading: NewReading): Promise<{ at: string }> {
  await findIncubator(work, id);
  await keepHandReading(work, id, { ...reading, humidity: reading.humidity ?? null });
  return { at: reading.at };
}

/**
 * The incubators with what is wrong in them now.
 *
 * @param days - of which hourly means are returned; 0 for none
 */
export async function listIncubators(work: Work, days: number): Promise<IncubatorView[]> {
  const rows = (
    await work.models.incubators.findAll({
      where: { collectionId: work.actor.collectionId },
      order: [['name', 'ASC']],
      transaction: work.transaction,
    })
  ).map((row) => row.get());
  const lasts = await lastReadings(work);
  const series = days > 0 ? await hourlyReadings(work, { days: days }) : [];
  const clutches = await clutchesByIncubator(work);
  return rows.map((row) => {
    const last = lasts.find(({ incubatorId }) => incubatorId === row.id) ?? null;
    const { collectionId: _c, sensorSince: _s, ...shown } = row;
    return {
      ...shown,
      clutches: clutches
        .filter(({ incubatorId }) => incubatorId === row.id)
        .map(({ id, name, laidOn }) => ({ id, name, day: daysBetween(laidOn, work.today) })),
      last: last && {
        at: new Date(last.at).toISOString(),
        celsius: last.celsius,
        humidity: last.humidity,
        source: last.source,
      },
      alarms: climateAlarms(
        last && { atMs: new Date(last.at).getTime(), celsius: last.celsius, humidity: last.humidity },
        row,
        nowMs(),
      ),
      series: series
        .filter(({ incubatorId }) => incubatorId === row.id)
        .map(({ incubatorId: _, ...one }) => one),
    };
  });
}
