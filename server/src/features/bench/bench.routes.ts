import { lookChange, newOpinion, newOpinionLink, settingUp, sortingChange } from '@karyotome/contract';
import { Router } from 'express';
import { checked, expectedVersion, idParam, type Endpoints } from '../../http/endpoint.ts';
import { viewBench } from './bench.service.ts';
import { viewCalls } from './calls.service.ts';
import { changeLook, changeSorting } from './looks.service.ts';
import { addOpinion, createLink, removeOpinion, revokeLink } from './opinions.service.ts';
import { proposeSetUp, setUp } from './set-up.service.ts';

export function benchRoutes({ read, write }: Endpoints): Router {
  const router = Router();
  router.get(
    '/clutches/:id/bench',
    read((work, request) => viewBench(work, idParam(request)), { infers: true }),
  );
  router.get(
    '/calls',
    read((work) => viewCalls(work), { infers: true }),
  );
  router.put(
    '/animals/:id/look',
    write(async (work, request) => ({
      status: 200,
      body: await changeLook(
        work,
        idParam(request),
        checked(lookChange, request.body, work),
        expectedVersion(request),
      ),
    })),
  );
  router.put(
    '/clutches/:id/sorting',
    write(async (work, request) => ({
      status: 200,
      body: await changeSorting(
        work,
        idParam(request),
        checked(sortingChange, request.body, work),
        expectedVersion(request),
      ),
    })),
  );
  router.get(
    '/clutches/:id/set-up',
    read((work, request) => proposeSetUp(work, idParam(request))),
  );
  router.post(
    '/clutches/:id/set-up',
    write(async (work, request) => ({
      status: 201,
      body: await setUp(work, idParam(request), checked(settingUp, request.body, work)),
    })),
  );
  opinionRoutes(router, write);
  return router;
}

function opinionRoutes(router: Router, write: Endpoints['write']): void {
  router.post(
    '/animals/:id/opinions',
    write(async (work, request) => ({
      status: 201,
      body: await addOpinion(work, idParam(request), checked(newOpinion, request.body, work)),
    })),
  );
  router.delete(
    '/opinions/:id',
    write(async (work, request) => {
      await removeOpinion(work, idParam(request));
      return { status: 204 };
    }),
  );
  router.post(
    '/clutches/:id/opinion-links',
    write(async (work, request) => ({
      status: 201,
      body: await createLink(work, idParam(request), checked(newOpinionLink, request.body, work)),
    })),
  );
  router.delete(
    '/opinion-links/:id',
    write(async (work, request) => {
      await revokeLink(work, idParam(request));
      return { status: 204 };
    }),
  );
}
