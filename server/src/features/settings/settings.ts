import { collectionSettings } from '@karyotome/contract';
import { Router } from 'express';
import type { Work } from '../../db/work.ts';
import { checked, expectedVersion, type Endpoints } from '../../http/endpoint.ts';
import { invalidField } from '../../http/problems.ts';
import type { CollectionSettings } from '@karyotome/contract';
import { changeCollection } from './change-collection.ts';

async function changeSettings(
  work: Work,
  change: CollectionSettings,
  version: number,
): Promise<CollectionSettings & { version: number }> {
  const { collectionId } = work.actor;
  if (change.ladderId) {
    const ladder = await work.models.ladders.findOne({
      where: { collectionId, id: change.ladderId },
      transaction: work.transaction,
    });
    if (!ladder) throw invalidField('ladderId', 'names no ladder of this collection');
  }
  const values = {
    ...change,
    ladderId: change.ladderId ?? null,
    ...(change.timeZone === undefined ? {} : { timeZone: change.timeZone }),
  };
  return { ...values, ...(await changeCollection(work, values, version)) };
}

export function settingsRoutes(endpoints: Endpoints): Router {
  const router = Router();
  router.put(
    '/settings',
    endpoints.write(
      async (work, request) => ({
        status: 200,
        body: await changeSettings(
          work,
          checked(collectionSettings, request.body, work),
          expectedVersion(request),
        ),
      }),
      { act: 'manage' },
    ),
  );
  return router;
}
