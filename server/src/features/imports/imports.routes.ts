import express, { Router, type Request } from 'express';
import type { Endpoints } from '../../http/endpoint.ts';
import { invalidField, Refusal } from '../../http/problems.ts';
import { previewImport, runImport } from './imports.service.ts';
import { decodeCsv } from './read-csv.ts';

const readBody = express.raw({ type: ['text/csv', 'application/vnd.ms-excel'], limit: '4mb' });

function csvOf(request: Request): string {
  if (!Buffer.isBuffer(request.body)) {
    throw new Refusal('wrong-media', 'Send the file as text/csv.', [
      { field: 'file', code: 'media', message: 'must be a CSV file' },
    ]);
  }
  if (request.body.length === 0) throw invalidField('file', 'is empty', 'empty');
  return decodeCsv(request.body);
}

export function importRoutes({ read, write }: Endpoints): Router {
  const router = Router();
  router.post(
    '/imports/preview',
    readBody,
    read((work, request) => previewImport(work, csvOf(request))),
  );
  router.post(
    '/imports',
    readBody,
    write(async (work, request) => ({ status: 201, body: await runImport(work, csvOf(request)) })),
  );
  return router;
}
