import { Router } from 'express';
import type { Endpoints } from '../../http/endpoint.ts';
import { csvOf, readCsvBody } from './csv-body.ts';
import { previewImport, runImport } from './imports.service.ts';

export function importRoutes({ read, write }: Endpoints): Router {
  const router = Router();
  router.post(
    '/imports/preview',
    readCsvBody,
    read((work, request) => previewImport(work, csvOf(request))),
  );
  router.post(
    '/imports',
    readCsvBody,
    write(async (work, request) => ({ status: 201, body: await runImport(work, csvOf(request)) })),
  );
  return router;
}
