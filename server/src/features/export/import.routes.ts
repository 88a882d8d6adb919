import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { FILE_TYPES, ROUTES } from '@karyotome/contract';
import type { Request } from 'express';
import type { Config } from '../../config.ts';
import { Turns } from '../../db/turns.ts';
import type { Database } from '../../db/work.ts';
import type { ImportJob, ImportOutcome } from '../../export/import.worker.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { bodyLimit, tooLarge } from '../../http/limits.ts';
import { Refusal } from '../../refusal.ts';
import { inOwnThread } from '../../threads/own-thread.ts';

/** One at a time in a process: each fills a file, and writes a whole collection. */
const reading = new Turns(1);

/** Takes in a collection that was exported, here or by another installation. */
export function importAllRoute(
  { answer }: Endpoints,
  database: Database,
  { directDatabaseUrl, dataDir, s3 }: Pick<Config, 'directDatabaseUrl' | 'dataDir' | 's3'>,
): void {
  answer(ROUTES.importAll, async (request, response, { accountId }) => {
    if (!request.is([...FILE_TYPES.archive]))
      throw new Refusal('wrong-media', 'Send the archive as application/zip.', [
        { field: 'file', code: 'media', message: 'must be an archive that was exported (.zip)' },
      ]);
    const account = await database.models.accounts.findByPk(accountId, { rejectOnEmpty: true });
    const file = join(tmpdir(), `karyotome-import-${randomUUID()}`);
    try {
      await save(request, file);
      const job: ImportJob = {
        config: { directDatabaseUrl, dataDir, s3 },
        file,
        ownerEmail: account.get().email,
      };
      const outcome = await reading.take(() =>
        inOwnThread<ImportOutcome>(new URL('../../export/import.worker', import.meta.url), job),
      );
      if ('refusal' in outcome)
        throw new Refusal('invalid', outcome.refusal, [
          { field: 'file', code: 'archive', message: 'cannot be taken in' },
        ]);
      const { name, rows, files, missing } = outcome.imported;
      response
        .status(ROUTES.importAll.status)
        .set('Cache-Control', 'no-store')
        .json({ name, rows, files, missing });
    } finally {
      await rm(file, { force: true });
    }
  });
}

/** Writes what comes in to a file, never into memory. */
async function save(request: Request, file: string): Promise<void> {
  const limit = bodyLimit(ROUTES.importAll.path);
  let came = 0;
  const counted = new Transform({
    transform(part: Buffer, _encoding, done) {
      came += part.length;
      done(came > limit ? tooLarge(limit) : null, part);
    },
  });
  await pipeline(request, counted, createWriteStream(file, { flags: 'wx', mode: 0o600 }));
}
