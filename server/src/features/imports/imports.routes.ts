import { ROUTES, type ImportPlan } from '@karyotome/contract';
import type { Request } from 'express';
import { reading, type Database } from '../../db/work.ts';
import { actorOf } from '../../http/allow.ts';
import { csvOf } from '../../http/csv-body.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { startJob, type Job } from '../../http/jobs.ts';
import type { CheckedImport } from './check-import.ts';
import {
  addImport,
  changePlan,
  checkFile,
  discardImport,
  draftOf,
  habitsOf,
  listImports,
  proposalFor,
  refuseFaults,
  runImport,
  undoImport,
  viewOf,
  type Draft,
} from './imports.service.ts';

const MOST_NAME = 120;
const nameOf = ({ query }: Request): string =>
  (typeof query['name'] === 'string' ? query['name'].trim().slice(0, MOST_NAME) : '') || 'file.csv';

/** A draft, read and checked. */
interface Checked {
  readonly draft: Draft;
  readonly file: CheckedImport;
  readonly job: Job;
}

/** Files of animals, records and clutches: brought, looked at, taken, and taken back. */
export function importRoutes({ list, read, write }: Endpoints, database: Database): void {
  list(ROUTES.imports, ({ work }) => listImports(work));
  write(
    ROUTES.addImport,
    ({ work, request }, { bytes, plan }: { bytes: Buffer; plan: ImportPlan }) =>
      addImport(work, nameOf(request), bytes, plan),
    {
      prepare: async ({ request }, actor) => {
        const bytes = csvOf(request);
        const job = startJob(request);
        const habits = await reading(database, actor, habitsOf);
        return { bytes, plan: await proposalFor(habits, bytes, job) };
      },
    },
  );
  read(ROUTES.import, ({ work, id }) => draftOf(work, id), {
    finish: async (draft, { request }) => {
      const file = await checkFile(draft.ground, draft.bytes, draft.plan, startJob(request));
      return reading(database, actorOf(request), (work) => viewOf(work, draft.summary, file));
    },
  });
  write(
    ROUTES.planImport,
    async ({ work, id }, { draft, file }: Checked) => {
      await changePlan(work, id, file.seen.plan);
      return viewOf(work, draft.summary, file);
    },
    {
      prepare: async ({ id, body, request }, actor) => {
        const job = startJob(request);
        const draft = await reading(database, actor, (work) => draftOf(work, id));
        return { draft, file: await checkFile(draft.ground, draft.bytes, body, job), job };
      },
    },
  );
  write(
    ROUTES.runImport,
    ({ work, id }, { draft, file, job }: Checked) => runImport(work, id, draft.ground, file, job),
    {
      prepare: async ({ id, body, request }, actor) => {
        const job = startJob(request);
        const draft = await reading(database, actor, (work) => draftOf(work, id));
        const file = await checkFile(draft.ground, draft.bytes, draft.plan, job);
        refuseFaults(file, body.leaveOutBad ?? false);
        return { draft, file, job };
      },
    },
  );
  write(ROUTES.undoImport, ({ work, id }) => undoImport(work, id));
  write(ROUTES.discardImport, ({ work, id }) => discardImport(work, id));
}
