import { correction, newRecord, voiding } from '@karyotome/contract';
import { Router } from 'express';
import { checked, idParam, type Endpoints } from '../../http/endpoint.ts';
import type { Database } from '../../db/work.ts';
import { insertRecord } from './insert-record.ts';
import { correctRecord, voidRecord, warningsInTime } from './records.service.ts';

export function recordRoutes({ write }: Endpoints, database: Database): Router {
  const router = Router();
  router.post(
    '/animals/:id/records',
    write(
      async (work, request) => ({
        status: 201,
        body: await insertRecord(work, idParam(request), checked(newRecord, request.body, work)),
      }),
      {
        complete: async (request, actor, answer) => {
          const record = checked(newRecord, request.body);
          const warnings = await warningsInTime(database, actor, idParam(request), record);
          const body = answer.body as { id: string };
          return {
            ...answer,
            body: { ...body, warnings: warnings ?? [], isWarningPending: warnings === null },
          };
        },
      },
    ),
  );
  router.post(
    '/records/:id/void',
    write(async (work, request) => {
      await voidRecord(work, idParam(request), checked(voiding, request.body, work).reason);
      return { status: 204 };
    }),
  );
  router.post(
    '/records/:id/correct',
    write(async (work, request) => ({
      status: 201,
      body: await correctRecord(work, idParam(request), checked(correction, request.body, work)),
    })),
  );
  return router;
}
