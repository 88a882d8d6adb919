import { randomUUID } from 'node:crypto';
import type { ClimateView, NewIncubator, NewReading, NewRoom, RoomClimateView } from '@karyotome/contract';
import { climateAlarms } from '@karyotome/core';
import { now, nowMs } from '../../clock.ts';
import { changeRow } from '../../db/change-rows.ts';
import type { ClimatePlaceRow } from '../../db/breeding-rows.ts';
import type { Work } from '../../db/work.ts';
import { notFound } from '../../refusal.ts';
import { hourlyReadings, lastReadings, type ClimateKind } from './climate.queries.ts';
import { keepHandReading } from './readings.repository.ts';
import { readSensor } from './sensor.ts';

/* Places whose temperature and humidity are watched: incubators, and rooms. */

/** What is entered of a place. */
type PlaceInput = NewRoom & Partial<Pick<NewIncubator, 'setC'>>;

/** @returns null where this collection has none of that kind */
export async function placeOf(work: Work, kind: ClimateKind, id: string): Promise<ClimatePlaceRow | null> {
  const row = await work.models.climatePlaces.findOne({
    where: { collectionId: work.actor.collectionId, kind, id },
    transaction: work.transaction,
  });
  return row?.get() ?? null;
}

/** @throws Refusal `not-found` */
export async function findPlace(work: Work, kind: ClimateKind, id: string): Promise<ClimatePlaceRow> {
  const place = await placeOf(work, kind, id);
  if (!place) throw notFound(`This ${kind}`);
  return place;
}

export async function createPlace(work: Work, kind: ClimateKind, input: PlaceInput): Promise<{ id: string }> {
  const id = randomUUID();
  const { collectionId } = work.actor;
  const row = { setC: null, ...input, collectionId, id, kind, sensorSince: now(), version: 1 };
  await work.models.climatePlaces.create(row, { transaction: work.transaction });
  await readSensor(work.models, row, now(), work.transaction);
  return { id };
}

export async function changePlace(
  work: Work,
  kind: ClimateKind,
  id: string,
  { input, version }: { readonly input: PlaceInput; readonly version: number },
): Promise<{ id: string; version: number }> {
  const old = await findPlace(work, kind, id);
  const sensorSince = input.sensor === old.sensor ? old.sensorSince : now();
  const changed = await changeRow(
    work,
    work.models.climatePlaces,
    `The ${kind}`,
    { id, version },
    { ...input, sensorSince },
  );
  await readSensor(work.models, { ...old, ...input, sensorSince }, now(), work.transaction);
  return changed;
}

export async function addReading(
  work: Work,
  kind: ClimateKind,
  id: string,
  reading: NewReading,
): Promise<{ at: string }> {
  await findPlace(work, kind, id);
  await keepHandReading(work, id, { ...reading, humidity: reading.humidity ?? null });
  return { at: reading.at };
}

/** A place with how it is there. */
export type PlaceView = Omit<ClimatePlaceRow, 'collectionId' | 'kind' | 'sensorSince'> & ClimateView;

/**
 * The places of a kind, by name, with what is wrong in them now.
 *
 * @param days - of which hourly means are returned; 0 for none
 */
export async function listPlaces(work: Work, kind: ClimateKind, days: number): Promise<PlaceView[]> {
  const rows = (
    await work.models.climatePlaces.findAll({
      where: { collectionId: work.actor.collectionId, kind },
      order: [['name', 'ASC']],
      transaction: work.transaction,
    })
  ).map((row) => row.get());
  if (rows.length === 0) return [];
  const lasts = await lastReadings(work, { kind });
  const series = days > 0 ? await hourlyReadings(work, { kind, days }) : [];
  return rows.map((row) => {
    const last = lasts.find(({ placeId }) => placeId === row.id) ?? null;
    const { collectionId: _c, kind: _k, sensorSince: _s, ...shown } = row;
    return {
      ...shown,
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
      series: series.filter(({ placeId }) => placeId === row.id).map(({ placeId: _, ...one }) => one),
    };
  });
}

/** The rooms whose climate is watched. @param days - as of `listPlaces` */
export async function listRooms(work: Work, days: number): Promise<RoomClimateView[]> {
  const places = await listPlaces(work, 'room', days);
  return places.map(({ setC: _, ...room }) => room);
}
