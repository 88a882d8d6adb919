import {
  boxChange,
  clutchChange,
  eggEventsVoiding,
  newEggEvents,
  newIncubator,
  newReading,
} from '@karyotome/contract';
import { Router, type Request, type Response } from 'express';
import { isTimeZone, type TimeZone } from '@karyotome/core';
import { reading, type Actor, type Database } from '../../db/work.ts';
import { localeOf } from '../../http/locale.ts';
import { actorOf, checked, expectedVersion, idParam, type Endpoints } from '../../http/endpoint.ts';
import { csvOf, readCsvBody } from '../imports/csv-body.ts';
import { addEggEvents, changeBox, changeClutch, voidEggEvents } from './box.service.ts';
import {
  cardOrder,
  discardCard,
  drawAndStoreCard,
  keepCard,
  readCard,
  type DrawnCard,
} from './clutch-card.ts';
import { viewClutch } from './clutch-view.service.ts';
import { doneClutches } from './hatch-rates.service.ts';
import { invalidField } from '../../http/problems.ts';
import { startJob, type Job } from '../../threads/jobs.ts';
import { inThread } from '../../threads/pool.ts';
import { importReadings } from './import-readings.ts';
import type { LoggerReadings } from './read-logger.ts';
import { addReading, changeIncubator, createIncubator, listIncubators } from './incubators.service.ts';

const SERIES_DAYS = 14;

export function incubationRoutes(endpoints: Endpoints, database: Database, dataDir: string): Router {
  const router = Router();
  clutchRoutes(router, endpoints, database, dataDir);
  incubatorRoutes(router, endpoints, database);
  router.get('/clutch-cards/:id', async (request: Request, response: Response) => {
    const { pdf, name } = await reading(database, actorOf(request), (work) =>
      readCard(work, dataDir, idParam(request)),
    );
    response.set('Cache-Control', 'no-store').type('application/pdf').attachment(name).send(pdf);
  });
  router.get(
    '/hatch-rates',
    endpoints.read((work) => doneClutches(work)),
  );
  return router;
}

function clutchRoutes(router: Router, { read, write }: Endpoints, database: Database, dataDir: string): void {
  router.get(
    '/clutches/:id',
    read((work, request) => viewClutch(work, idParam(request))),
  );
  router.patch(
    '/clutches/:id',
    write(async (work, request) => ({
      status: 200,
      body: await changeClutch(
        work,
        idParam(request),
        checked(clutchChange, request.body, work),
        expectedVersion(request),
      ),
    })),
  );
  router.put(
    '/clutches/:id/eggs',
    write(async (work, request) => ({
      status: 200,
      body: await changeBox(
        work,
        idParam(request),
        checked(boxChange, request.body, work),
        expectedVersion(request),
      ),
    })),
  );
  router.post(
    '/clutches/:id/egg-events',
    write(async (work, request) => ({
      status: 201,
      body: await addEggEvents(work, idParam(request), checked(newEggEvents, request.body, work)),
    })),
  );
  router.post(
    '/egg-events/void',
    write(async (work, request) => {
      await voidEggEvents(work, checked(eggEventsVoiding, request.body, work));
      return { status: 204 };
    }),
  );
  router.post(
    '/clutches/:id/cards',
    write(
      async (work, request, card: DrawnCard) => ({
        status: 201,
        body: await keepCard(work, idParam(request), card),
      }),
      {
        prepare: async (request, actor) =>
          drawAndStoreCard(
            dataDir,
            await reading(database, actor, (work) => cardOrder(work, idParam(request), localeOf(request))),
          ),
        discard: (card) => discardCard(dataDir, card),
      },
    ),
  );
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

function incubatorRoutes(router: Router, { read, write }: Endpoints, database: Database): void {
  router.get(
    '/incubators',
    read((work) => listIncubators(work, SERIES_DAYS)),
  );
  router.post(
    '/incubators',
    write(async (work, request) => ({
      status: 201,
      body: await createIncubator(work, checked(newIncubator, request.body, work)),
    })),
  );
  router.put(
    '/incubators/:id',
    write(async (work, request) => ({
      status: 200,
      body: await changeIncubator(
        work,
        idParam(request),
        checked(newIncubator, request.body, work),
        expectedVersion(request),
      ),
    })),
  );
  router.post(
    '/incubators/:id/readings',
    write(async (work, request) => ({
      status: 201,
      body: await addReading(work, idParam(request), checked(newReading, request.body, work)),
    })),
  );
  router.post(
    '/incubators/:id/readings/import',
    readCsvBody('/incubators/id/readings/import'),
    write(
      async (work, request, { readings, job }: PreparedReadings) => ({
        status: 201,
        body: await importReadings(work, idParam(request), readings, job),
      }),
      {
        prepare: async (request, actor) => {
          const bytes = csvOf(request);
          const timeZone = await zoneOf(database, request, actor);
          const job = startJob(request);
          const readings = await inThread(
            'read-logger',
            { bytes, timeZone, now: Date.now() },
            { signal: job.signal, onProgress: (done, of) => job.tell({ step: 'reading', done, of }) },
          );
          return { readings, job };
        },
      },
    ),
  );
}
