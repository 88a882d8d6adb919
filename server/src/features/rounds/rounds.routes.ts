import { roundEntries } from '@karyotome/contract';
import { Router } from 'express';
import { checked, type Endpoints } from '../../http/endpoint.ts';
import { viewRound } from './round-view.ts';
import { takeEntries } from './take-entries.ts';

export function roundRoutes({ read, write }: Endpoints): Router {
  const router = Router();
  router.get(
    '/rounds',
    read((work) => viewRound(work)),
  );
  router.post(
    '/rounds/entries',
    write(async (work, request) => ({
      status: 200,
      // Each entry is checked by itself: what is wrong with one is not the others' fault.
      body: await takeEntries(work, checked(roundEntries, request.body, { looseList: 'entries' })),
    })),
  );
  return router;
}
