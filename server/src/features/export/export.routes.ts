import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { ROUTES } from '@karyotome/contract';
import type { Response } from 'express';

import type { Config } from '../../config.ts';
import { Turns } from '../../db/turns.ts';
import { reading, type Actor, type Database } from '../../db/work.ts';
import { collectionOf } from '../../domain/collection/collection-of.ts';
import { pedigreeDocument, plinkFiles } from '../../domain/genetics/pedigree-files.ts';
import { noteAct } from '../../domain/history/history.queries.ts';
import type { ExportJob } from '../../export/export.worker.ts';
import { exportName } from '../../export/write-export.ts';
import { zipOf } from '../../files/zip-of.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { inOwnThread } from '../../threads/own-thread.ts';

/** One at a time in a process: each reads the whole collection, and fills a file. */
const writing = new Turns(1);

export function exportRoutes(
  { answer, read }: Endpoints,
  database: Database,
  { directDatabaseUrl, dataDir, s3 }: Pick<Config, 'directDatabaseUrl' | 'dataDir' | 's3'>,
): void {
  /** Has it written aside, and answers the file. */
  const send = async (
    response: Response,
    actor: Actor,
    what: ExportJob['what'],
    { name, type }: { readonly name: string; readonly type: string },
  ): Promise<void> => {
    const { name: collection } = await reading(database, actor, collectionOf);
    const file = join(tmpdir(), `karyotome-export-${randomUUID()}`);
    const job: ExportJob = {
      config: { directDatabaseUrl, dataDir, s3 },
      collection: { collectionId: actor.collectionId, name: collection },
      what,
      file,
    };
    try {
      await writing.take(() =>
        inOwnThread<void>(new URL('../../export/export.worker', import.meta.url), job),
      );
      await noteAct(database, 'exported', actor);
      response
        .set('Cache-Control', 'no-store')
        .set('Content-Length', String((await stat(file)).size))
        .attachment(name)
        .type(type);
      // Whoever leaves before the end has what they have.
      await pipeline(createReadStream(file), response).catch(() => undefined);
    } finally {
      await rm(file, { force: true });
    }
  };
  answer(ROUTES.exportAll, (_request, response, actor) =>
    send(response, actor, 'everything', { name: `${exportName(new Date())}.zip`, type: 'zip' }),
  );
  answer(ROUTES.exportWeights, (_request, response, actor) =>
    send(response, actor, 'weights', { name: 'weights.csv', type: 'csv' }),
  );
  answer(ROUTES.exportMeals, (_request, response, actor) =>
    send(response, actor, 'meals', { name: 'meals.csv', type: 'csv' }),
  );
  answer(ROUTES.exportReadings, (_request, response, actor) =>
    send(response, actor, 'readings', { name: 'readings.csv', type: 'csv' }),
  );
  read(ROUTES.exportPedigree, ({ work }) => pedigreeDocument(work), { infers: true });
  answer(ROUTES.exportPlink, async (_request, response, actor) => {
    const files = await writing.take(() => reading(database, actor, plinkFiles));
    await noteAct(database, 'exported', actor);
    const bytes = await zipOf(
      Object.entries(files).map(([ending, text]) => [`collection.${ending}`, text as string]),
    );
    response.set('Cache-Control', 'no-store').attachment('plink.zip').type('zip').send(bytes);
  });
}
