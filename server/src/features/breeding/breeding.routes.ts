import { hatching, newClutch, newPairing } from '@karyotome/contract';
import { Router } from 'express';
import { checked, expectedVersion, idParam, type Endpoints } from '../../http/endpoint.ts';
import { createClutch, hatch } from './clutches.service.ts';
import { createPairing, deletePairing, listPairings } from './pairings.service.ts';

export function breedingRoutes({ read, write }: Endpoints): Router {
  const router = Router();
  router.get(
    '/pairings',
    read((work) => listPairings(work)),
  );
  router.post(
    '/pairings',
    write(async (work, request) => ({
      status: 201,
      body: await createPairing(work, checked(newPairing, request.body, work)),
    })),
  );
  router.delete(
    '/pairings/:id',
    write(async (work, request) => {
      await deletePairing(work, idParam(request));
      return { status: 204 };
    }),
  );
  router.post(
    '/clutches',
    write(async (work, request) => ({
      status: 201,
      body: await createClutch(work, checked(newClutch, request.body, work)),
    })),
  );
  router.post(
    '/clutches/:id/hatchlings',
    write(async (work, request) => ({
      status: 201,
      body: await hatch(
        work,
        idParam(request),
        checked(hatching, request.body, work),
        expectedVersion(request),
      ),
    })),
  );
  return router;
}
