import { ROUTES } from '@karyotome/contract';
import { reading, type Database } from '../../db/work.ts';
import { idParam } from '../../http/asked.ts';
import { originOf } from '../../http/origin.ts';
import { type Endpoints } from '../../http/endpoint.ts';
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
import type { FileStore } from '../../files/file-store.ts';

export function labelRoutes({ read, write, answer }: Endpoints, database: Database, files: FileStore): void {
  // Asked by POST, since a clutch's ids are too many for an address; it changes nothing.
  read(
    ROUTES.previewLabels,
    async ({ work, body: order, request }) => ({
      order,
      labels: await labelContents(work, order, labelUrl(originOf(request))),
    }),
    { infers: true, finish: ({ order, labels }) => previewLabels(order, labels) },
  );
  write(ROUTES.printLabels, ({ work }, sheet: DrawnSheet) => printLabels(work, sheet), {
    prepare: ({ body, request }, actor) => drawSheet(database, actor, files, body, originOf(request)),
    discard: (sheet) => discardSheet(files, sheet),
  });
  answer(ROUTES.labels, async (request, response, actor) => {
    const id = idParam(request);
    const pdf = await reading(database, actor, (work) => readSheet(work, files, id));
    response.set('Cache-Control', 'no-store').type('application/pdf').attachment('labels.pdf').send(pdf);
  });
}
