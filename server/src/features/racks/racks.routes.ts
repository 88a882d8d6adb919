import {
  heatZoneInput,
  manyMoves,
  newLadder,
  newRack,
  rackChange,
  surfaceCheck,
  takenBack,
  voiding,
} from '@karyotome/contract';
import { Router } from 'express';
import { checked, expectedVersion, idParam, type Endpoints } from '../../http/endpoint.ts';
import { addSurfaceCheck, addZone, changeZone, removeZone, voidSurfaceCheck } from './heat.service.ts';
import {
  changeLadder,
  changeRack,
  createLadder,
  createRack,
  deleteRack,
  learnedMoves,
  listLadders,
  listRacks,
  moveMany,
  takeBackMany,
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
      body: await createLadder(work, checked(newLadder, request.body, work)),
    })),
  );
  router.put(
    '/ladders/:id',
    write(async (work, request) => ({
      status: 200,
      body: await changeLadder(
        work,
        idParam(request),
        checked(newLadder, request.body, work),
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
      body: await createRack(work, checked(newRack, request.body, work)),
    })),
  );
  router.delete(
    '/racks/:id',
    write(async (work, request) => {
      await deleteRack(work, idParam(request));
      return { status: 204 };
    }),
  );
  router.put(
    '/racks/:id',
    write(async (work, request) => ({
      status: 200,
      body: await changeRack(
        work,
        idParam(request),
        checked(rackChange, request.body, work),
        expectedVersion(request),
      ),
    })),
  );
  router.post(
    '/moves',
    write(async (work, request) => ({
      status: 201,
      body: await moveMany(work, checked(manyMoves, request.body, work)),
    })),
  );
  router.post(
    '/records/void',
    write(async (work, request) => {
      await takeBackMany(work, checked(takenBack, request.body, work).ids);
      return { status: 204 };
    }),
  );
  router.get(
    '/moves/learned',
    read((work) => learnedMoves(work)),
  );
  router.post(
    '/heat-zones',
    write(async (work, request) => ({
      status: 201,
      body: await addZone(work, checked(heatZoneInput, request.body, work)),
    })),
  );
  router.put(
    '/heat-zones/:id',
    write(async (work, request) => ({
      status: 200,
      body: await changeZone(
        work,
        idParam(request),
        checked(heatZoneInput, request.body, work),
        expectedVersion(request),
      ),
    })),
  );
  router.delete(
    '/heat-zones/:id',
    write(async (work, request) => {
      await removeZone(work, idParam(request));
      return { status: 204 };
    }),
  );
  router.post(
    '/heat-zones/:id/checks',
    write(async (work, request) => ({
      status: 201,
      body: await addSurfaceCheck(work, idParam(request), checked(surfaceCheck, request.body, work)),
    })),
  );
  router.post(
    '/surface-checks/:id/void',
    write(async (work, request) => {
      await voidSurfaceCheck(work, idParam(request), checked(voiding, request.body, work).reason);
      return { status: 204 };
    }),
  );
  return router;
}
