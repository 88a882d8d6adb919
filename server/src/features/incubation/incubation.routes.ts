import { ROUTES } from '@karyotome/contract';
import { isTimeZone, type TimeZone } from '@karyotome/core';
import type { Request } from 'express';
import { nowMs } from '../../clock.ts';
import { reading, type Actor, type Database } from '../../db/work.ts';
import { idParam } from '../../http/asked.ts';
import { type Endpoints } from '../../http/endpoint.ts';
import { localeOf } from '../../http/locale.ts';
import { invalidField } from '../../refusal.ts';
import { startJob, type Job } from '../../http/jobs.ts';
import { inThread } from '../../threads/pool.ts';
import { csvOf } from '../../http/csv-body.ts';
import { addEggEvents, changeBox, changeClutch, voidEggEvents } from '../../domain/incubation/box.service.ts';
import {
  cardOrder,
  discardCard,
  drawAndStoreCard,
  keepCard,
  readCard,
  type DrawnCard,
} from './clutch-card.ts';
import { viewClutch } from '../../domain/incubation/clutch-view.service.ts';
import { doneClutches } from '../../domain/incubation/hatch-rates.queries.ts';
import { importReadings } from './import-readings.ts';
import {
  addReading,
  changeIncubator,
  createIncubator,
  listIncubators,
} from '../../domain/incubation/incubators.service.ts';
import type { LoggerReadings } from './read-logger.ts';
import type { FileStore } from '../../files/file-store.ts';

const SERIES_DAYS = 14;

export function incubationRoutes(endpoints: Endpoints, database: Database, files: FileStore): void {
  const { list, read, write, answer } = endpoints;
  read(ROUTES.clutch, ({ work, id }) => viewClutch(work, id));
  write(ROUTES.changeClutch, ({ work, id, body, version }) => changeClutch(work, id, body, version));
  write(ROUTES.changeBox, ({ work, id, body, version }) => changeBox(work, id, body, version));
  write(ROUTES.addEggEvents, ({ work, id, body }) => addEggEvents(work, id, body));
  write(ROUTES.voidEggEvents, ({ work, body }) => voidEggEvents(work, body));
  write(ROUTES.makeClutchCard, ({ work, id }, card: DrawnCard) => keepCard(work, id, card), {
    prepare: async ({ id, request }, actor) =>
      drawAndStoreCard(
        files,
        await reading(database, actor, (work) => cardOrder(work, id, localeOf(request))),
      ),
    discard: (card) => discardCard(files, card),
  });
  answer(ROUTES.clutchCard, async (request, response, actor) => {
    const id = idParam(request);
    const { pdf, name } = await reading(database, actor, (work) => readCard(work, files, id));
    response.set('Cache-Control', 'no-store').type('application/pdf').attachment(name).send(pdf);
  });
  list(ROUTES.hatchRates, ({ work }) => doneClutches(work));
  incubatorRoutes(endpoints, database);
}

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

function incubatorRoutes({ list, write }: Endpoints, database: Database): void {
  list(ROUTES.incubators, ({ work }) => listIncubators(work, SERIES_DAYS));
  write(ROUTES.addIncubator, ({ work, body }) => createIncubator(work, body));
  write(ROUTES.changeIncubator, ({ work, id, body, version }) => changeIncubator(work, id, body, version));
  write(ROUTES.addReading, ({ work, id, body }) => addReading(work, id, body));
  write(
    ROUTES.importReadings,
    ({ work, id }, { readings, job }: PreparedReadings) => importReadings(work, id, readings, job),
    {
      prepare: async ({ request }, actor) => {
        const bytes = csvOf(request);
        const timeZone = await zoneOf(database, request, actor);
        const job = startJob(request);
        const readings = await inThread(
          'read-logger',
          { bytes, timeZone, now: nowMs() },
          { signal: job.signal, onProgress: (done, of) => job.report({ step: 'reading', done, of }) },
        );
        return { readings, job };
      },
    },
  );
}
