import { correction, newRecord, voiding } from '@karyotome/contract';
import { Router } from 'express';
import { checked, idParam, type Endpoints } from '../../http/endpoint.ts';
import { addRecord, correctRecord, voidRecord } from './records.service.ts';

export function recordRoutes({ write }: Endpoints): Router {
  const router = Router();
  router.post(
    '/animals/:id/records',
    write(async (work, request) => ({
      status: 201,
      body: await addRecord(work, idParam(request), checked(newRecord, request.body)),
    })),
  );
  router.post(
    '/records/:id/void',
    write(async (work, request) => {
      await voidRecord(work, idParam(request), checked(voiding, request.body).reason);
      return { status: 204 };
    }),
  );
  router.post(
    '/records/:id/correct',
    write(async (work, request) => ({
      status: 201,
      body: await correctRecord(work, idParam(request), checked(correction, request.body)),
    })),
  );
  return router;
}
