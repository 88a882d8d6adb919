import {
  boxChange,
  clutchChange,
  eggEventsVoiding,
  newEggEvents,
  newIncubator,
  newReading,
} from '@karyotome/contract';
import { Router, type Request, type Response } from 'express';
import { inTransaction, type Database } from '../../db/work.ts';
import { actorOf, checked, expectedVersion, idParam, type Endpoints } from '../../http/endpoint.ts';
import { csvOf, readCsvBody } from '../imports/csv-body.ts';
import { addEggEvents, changeBox, changeClutch, voidEggEvents } from './box.service.ts';
import { makeCard, readCard } from './clutch-card.ts';
import { viewClutch } from './clutch-view.service.ts';
import { doneClutches } from './hatch-rates.service.ts';
import { importReadings } from './import-readings.ts';
import { addReading, changeIncubator, createIncubator, listIncubators } from './incubators.service.ts';

const SERIES_DAYS = 14;

export function incubationRoutes(endpoints: Endpoints, database: Database, dataDir: string): Router {
  const router = Router();
  clutchRoutes(router, endpoints, dataDir);
  incubatorRoutes(router, endpoints);
  router.get('/clutch-cards/:id', async (request: Request, response: Response) => {
    const { pdf, name } = await inTransaction(database, actorOf(request), (work) =>
      readCard(work, dataDir, idParam(request)),
    );
    response.type('application/pdf').attachment(name).send(pdf);
  });
  router.get(
    '/hatch-rates',
    endpoints.read((work) => doneClutches(work)),
  );
  return router;
}

function clutchRoutes(router: Router, { read, write }: Endpoints, dataDir: string): void {
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
        checked(clutchChange, request.body),
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
        checked(boxChange, request.body),
        expectedVersion(request),
      ),
    })),
  );
  router.post(
    '/clutches/:id/egg-events',
    write(async (work, request) => ({
      status: 201,
      body: await addEggEvents(work, idParam(request), checked(newEggEvents, request.body)),
    })),
  );
  router.post(
    '/egg-events/void',
    write(async (work, request) => {
      await voidEggEvents(work, checked(eggEventsVoiding, request.body));
      return { status: 204 };
    }),
  );
  router.post(
    '/clutches/:id/cards',
    write(async (work, request) => ({
      status: 201,
      body: await makeCard(work, dataDir, idParam(request)),
    })),
  );
}

function incubatorRoutes(router: Router, { read, write }: Endpoints): void {
  router.get(
    '/incubators',
    read((work) => listIncubators(work, SERIES_DAYS)),
  );
  router.post(
    '/incubators',
    write(async (work, request) => ({
      status: 201,
      body: await createIncubator(work, checked(newIncubator, request.body)),
    })),
  );
  router.put(
    '/incubators/:id',
    write(async (work, request) => ({
      status: 200,
      body: await changeIncubator(
        work,
        idParam(request),
        checked(newIncubator, request.body),
        expectedVersion(request),
      ),
    })),
  );
  router.post(
    '/incubators/:id/readings',
    write(async (work, request) => ({
      status: 201,
      body: await addReading(work, idParam(request), checked(newReading, request.body)),
    })),
  );
  router.post(
    '/incubators/:id/readings/import',
    readCsvBody,
    write(async (work, request) => ({
      status: 201,
      body: await importReadings(work, idParam(request), csvOf(request)),
    })),
  );
}
