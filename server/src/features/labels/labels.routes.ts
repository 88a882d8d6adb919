import { labelOrder } from '@karyotome/contract';
import { Router, type Request } from 'express';
import { reading, type Database } from '../../db/work.ts';
import { actorOf, checked, idParam, type Endpoints } from '../../http/endpoint.ts';
import {
  discardSheet,
  labelContents,
  labelUrl,
  drawSheet,
  previewLabels,
  printLabels,
  readSheet,
  type DrawnSheet,
} from './labels.service.ts';

const originOf = (request: Request): string => `${request.protocol}://${request.get('host') ?? 'localhost'}`;

export function labelRoutes({ read, write }: Endpoints, database: Database, dataDir: string): Router {
  const router = Router();
  // Asked by POST, since a clutch's ids are too many for an address; it changes nothing.
  router.post(
    '/labels/preview',
    read(
      async (work, request) => {
        const order = checked(labelOrder, request.body);
        return { order, labels: await labelContents(work, order, labelUrl(originOf(request))) };
      },
      { infers: true, finish: ({ order, labels }) => previewLabels(order, labels) },
    ),
  );
  router.post(
    '/labels',
    write((work, _request, sheet: DrawnSheet) => printLabels(work, sheet), {
      prepare: (request, actor) =>
        drawSheet(database, actor, dataDir, checked(labelOrder, request.body), originOf(request)),
      discard: (sheet) => discardSheet(dataDir, sheet),
    }),
  );
  router.get('/labels/:id', async (request, response) => {
    const id = idParam(request);
    const pdf = await reading(database, actorOf(request), (work) => readSheet(work, dataDir, id));
    response.set('Cache-Control', 'no-store').type('application/pdf').attachment('labels.pdf').send(pdf);
  });
  return router;
}
