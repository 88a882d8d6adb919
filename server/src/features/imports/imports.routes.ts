import { ROUTES } from '@karyotome/contract';
import { reading, type Database } from '../../db/work.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { startJob, type Job } from '../../http/jobs.ts';
import type { CheckedImport, ImportGround } from './check-import.ts';
import { csvOf } from '../../http/csv-body.ts';
import { bringIn, checkFile, importGround, refuseFaults, toPreview } from './imports.service.ts';

interface Prepared {
  readonly ground: ImportGround;
  readonly file: CheckedImport;
  readonly job: Job;
}

export function importRoutes({ read, write }: Endpoints, database: Database): void {
  read(ROUTES.previewImport, ({ work }) => importGround(work), {
    finish: async (ground, { request }) => {
      const bytes = csvOf(request);
      return toPreview(await checkFile(ground, bytes, startJob(request)));
    },
  });
  write(ROUTES.runImport, ({ work }, { ground, file, job }: Prepared) => bringIn(work, ground, file, job), {
    prepare: async ({ request }, actor) => {
      const bytes = csvOf(request);
      const job = startJob(request);
      const ground = await reading(database, actor, importGround);
      const file = await checkFile(ground, bytes, job);
      refuseFaults(file);
      return { ground, file, job };
    },
  });
}
