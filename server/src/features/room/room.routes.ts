import { roomAssumptions } from '@karyotome/contract';
import { Router } from 'express';
import { checked, expectedVersion, type Endpoints } from '../../http/endpoint.ts';
import { changeAssumptions, viewRoom } from './room.service.ts';

export function roomRoutes({ read, write }: Endpoints): Router {
  const router = Router();
  router.get(
    '/room',
    read((work) => viewRoom(work)),
  );
  router.put(
    '/room/assumptions',
    write(
      async (work, request) => ({
        status: 200,
        body: await changeAssumptions(
          work,
          checked(roomAssumptions, request.body, work),
          expectedVersion(request),
        ),
      }),
      { act: 'manage' },
    ),
  );
  return router;
}
