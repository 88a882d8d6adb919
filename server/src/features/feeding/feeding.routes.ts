import { newStockEntry, planInput, rulesChange, voiding } from '@karyotome/contract';
import { Router, type Request } from 'express';
import { checked, expectedVersion, idParam, type Endpoints } from '../../http/endpoint.ts';
import { addPlan, changePlan, removePlan } from '../husbandry/feeding-plans.ts';
import { changeFeedingRules, viewFeeding } from './feeding.service.ts';
import { addStock, voidStock } from './freezer.service.ts';

const keyParam = (request: Request): string => String(request.params['key']);

export function feedingRoutes({ read, write }: Endpoints): Router {
  const router = Router();
  router.get(
    '/feeding',
    read((work) => viewFeeding(work)),
  );
  router.put(
    '/feeding/rules',
    write(
      async (work, request) => ({
        status: 200,
        body: await changeFeedingRules(
          work,
          checked(rulesChange, request.body, work),
          expectedVersion(request),
        ),
      }),
      { act: 'manage' },
    ),
  );
  router.post(
    '/feeding/plans',
    write(async (work, request) => ({
      status: 201,
      body: await addPlan(work, checked(planInput, request.body, work)),
    })),
  );
  router.put(
    '/feeding/plans/:key',
    write(async (work, request) => ({
      status: 200,
      body: await changePlan(
        work,
        keyParam(request),
        checked(planInput, request.body, work),
        expectedVersion(request),
      ),
    })),
  );
  router.delete(
    '/feeding/plans/:key',
    write(async (work, request) => {
      await removePlan(work, keyParam(request), expectedVersion(request));
      return { status: 204 };
    }),
  );
  router.post(
    '/stock',
    write(async (work, request) => ({
      status: 201,
      body: await addStock(work, checked(newStockEntry, request.body, work)),
    })),
  );
  router.post(
    '/stock/:id/void',
    write(async (work, request) => {
      await voidStock(work, idParam(request), checked(voiding, request.body, work).reason);
      return { status: 204 };
    }),
  );
  return router;
}
