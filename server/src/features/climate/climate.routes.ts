import { ROUTES } from '@karyotome/contract';
import { isTimeZone, type TimeZone } from '@karyotome/core';
import type { Request } from 'express';
import { nowMs } from '../../clock.ts';
import { reading, type Actor, type Database } from '../../db/work.ts';
import type { ClimateKind } from '../../domain/climate/climate.queries.ts';
import { addReading, changePlace, createPlace, listRooms } from '../../domain/climate/climate.service.ts';
import { listIncubators } from '../../domain/incubation/incubators.service.ts';
import { csvOf } from '../../http/csv-body.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { startJob, type Job } from '../../http/jobs.ts';
import { invalidField } from '../../refusal.ts';
import { inThread } from '../../threads/pool.ts';
import { importReadings } from './import-readings.ts';
import type { LoggerReadings } from './read-logger.ts';

const SERIES_DAYS = 14;

interface PreparedReadings {
  readonly readings: LoggerReadings;
  readonly job: Job;
}

/** The zone a logger's clock was in: the one that is named, or else the farm's. */
async function zoneOf(database: Database, request: Request, actor: Actor): Promise<TimeZone> {
  const named = request.query['timeZone'];
  if (named === undefined) return reading(database, actor, (work) => Promise.resolve(work.timeZone));
  if (typeof named === 'string' && isTimeZone(named)) return named;
  throw invalidField('timeZone', 'must be the name of a time zone, like Europe/Berlin', 'zone.unknown');
}

/** Reads a logger's file before the unit of work begins. */
const prepareReadings =
  (database: Database) =>
  async ({ request }: { readonly request: Request }, actor: Actor): Promise<PreparedReadings> => {
    const bytes = csvOf(request);
    const timeZone = await zoneOf(database, request, actor);
    const job = startJob(request);
    const readings = await inThread(
      'read-logger',
      { bytes, timeZone, now: nowMs() },
      { signal: job.signal, onProgress: (done, of) => job.report({ step: 'reading', done, of }) },
    );
    return { readings, job };
  };

/** The routes of one kind of place. */
const KINDS = {
  incubator: {
    add: ROUTES.addIncubator,
    change: ROUTES.changeIncubator,
    addReading: ROUTES.addReading,
    importReadings: ROUTES.importReadings,
  },
  room: {
    add: ROUTES.addRoom,
    change: ROUTES.changeRoom,
    addReading: ROUTES.addRoomReading,
    importReadings: ROUTES.importRoomReadings,
  },
} as const;

export function climateRoutes({ list, write }: Endpoints, database: Database): void {
  list(ROUTES.incubators, ({ work }) => listIncubators(work, SERIES_DAYS));
  list(ROUTES.rooms, ({ work }) => listRooms(work, SERIES_DAYS));
  for (const kind of Object.keys(KINDS) as ClimateKind[]) {
    const routes = KINDS[kind];
    write(routes.add, ({ work, body }) => createPlace(work, kind, body));
    write(routes.change, ({ work, id, body, version }) =>
      changePlace(work, kind, id, { input: body, version }),
    );
    write(routes.addReading, ({ work, id, body }) => addReading(work, kind, id, body));
    write(
      routes.importReadings,
      ({ work, id }, { readings, job }: PreparedReadings) =>
        importReadings(work, { kind, id }, readings, job),
      { prepare: prepareReadings(database) },
    );
  }
}
