import { newLadder, newRack } from '@karyotome/contract';
import { Router } from 'express';
import { checked, expectedVersion, idParam, type Endpoints } from '../../http/endpoint.ts';
import {
  changeLadder,
  createLadder,
  createRack,
  deleteRack,
  listLadders,
  listRacks,
} from './racks.service.ts';

export function rackRoutes({ read, write }: Endpoints): Router {
  const router = Router();
  router.get(
    '/ladders',
    read((work) => listLadders(work)),
  );
  router.post(
    '/ladders',
    write(async (work, request) => ({
      status: 201,
      body: await createLadder(work, checked(newLadder, request.body)),
    })),
  );
  router.put(
    '/ladders/:id',
    write(async (work, request) => ({
      status: 200,
      body: await changeLadder(
        work,
        idParam(request),
        checked(newLadder, request.body),
        expectedVersion(request),
      ),
    })),
  );
  router.get(
    '/racks',
    read((work) => listRacks(work)),
  );
  router.post(
    '/racks',
    write(async (work, request) => ({
      status: 201,
      body: await createRack(work, checked(newRack, request.body)),
    })),
  );
  router.delete(
    '/racks/:id',
    write(async (work, request) => {
      await deleteRack(work, idParam(request));
      return { status: 204 };
    }),
  );
  return router;
}
