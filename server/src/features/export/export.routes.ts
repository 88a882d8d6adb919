import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { ROUTES } from '@karyotome/contract';
import type { Config } from '../../config.ts';
import { Turns } from '../../db/turns.ts';
import { reading, type Database } from '../../db/work.ts';
import { collectionOf } from '../../domain/collection/collection-of.ts';
import { noteAct } from '../../domain/history/history.queries.ts';
import type { ExportJob } from '../../export/export.worker.ts';
import { exportName } from '../../export/write-export.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { inOwnThread } from '../../threads/own-thread.ts';

/** One at a time in a process: each reads the whole collection, and fills a file. */
const writing = new Turns(1);

export function exportRoutes(
  { answer }: Endpoints,
  database: Database,
  { directDatabaseUrl, dataDir, s3 }: Pick<Config, 'directDatabaseUrl' | 'dataDir' | 's3'>,
): void {
  answer(ROUTES.exportAll, async (_request, response, actor) => {
    const { name } = await reading(database, actor, collectionOf);
    const file = join(tmpdir(), `karyotome-export-${randomUUID()}.zip`);
    const job: ExportJob = {
      config: { directDatabaseUrl, dataDir, s3 },
      collection: { collectionId: actor.collectionId, name },
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
        .attachment(`${exportName(new Date())}.zip`)
        .type('zip');
      // Whoever leaves before the end has what they have.
      await pipeline(createReadStream(file), response).catch(() => undefined);
    } finally {
      await rm(file, { force: true });
    }
  });
}
