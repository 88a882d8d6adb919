import { labelOrder } from '@karyotome/contract';
import { Router, type Request } from 'express';
import { inTransaction, type Database } from '../../db/work.ts';
import { actorOf, checked, idParam, type Endpoints } from '../../http/endpoint.ts';
import { previewLabels, printLabels, readSheet } from './labels.service.ts';

const originOf = (request: Request): string => `${request.protocol}://${request.get('host') ?? 'localhost'}`;

export function labelRoutes({ read, write }: Endpoints, database: Database, dataDir: string): Router {
  const router = Router();
  // Asked by POST, since a clutch's ids are too many for an address; it changes nothing.
  router.post(
    '/labels/preview',
    read((work, request) => previewLabels(work, checked(labelOrder, request.body), originOf(request))),
  );
  router.post(
    '/labels',
    write(async (work, request) => ({
      status: 201,
      body: await printLabels(work, dataDir, checked(labelOrder, request.body), originOf(request)),
    })),
  );
  router.get('/labels/:id', async (request, response) => {
    const id = idParam(request);
    const pdf = await inTransaction(database, actorOf(request), (work) => readSheet(work, dataDir, id));
    response.type('application/pdf').attachment('labels.pdf').send(pdf);
  });
  return router;
}
