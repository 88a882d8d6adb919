import { catalogueEntry } from '@karyotome/contract';
import { Router } from 'express';
import { checked, expectedVersion, idParam, type Endpoints } from '../../http/endpoint.ts';
import { addEntry, changeEntry, removeEntry, viewCatalogue } from './catalogue.service.ts';

export function catalogueRoutes(endpoints: Endpoints): Router {
  const router = Router();
  router.get('/catalogue', endpoints.read(viewCatalogue));
  router.post(
    '/catalogue/entries',
    endpoints.write(async (work, request) => ({
      status: 201,
      body: await addEntry(work, checked(catalogueEntry, request.body, work)),
    })),
  );
  router.put(
    '/catalogue/entries/:id',
    endpoints.write(async (work, request) => ({
      status: 200,
      body: await changeEntry(
        work,
        idParam(request),
        checked(catalogueEntry, request.body, work),
        expectedVersion(request),
      ),
    })),
  );
  router.delete(
    '/catalogue/entries/:id',
    endpoints.write(async (work, request) => {
      await removeEntry(work, idParam(request));
      return { status: 204 };
    }),
  );
  return router;
}
