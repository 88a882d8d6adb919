import {
  introduction,
  newSeasonEvent,
  seasonEventCorrection,
  seasonRules,
  siresChange,
  voiding,
} from '@karyotome/contract';
import { Router } from 'express';
import { checked, expectedVersion, idParam, type Endpoints } from '../../http/endpoint.ts';
import { viewBoard } from './board.service.ts';
import { changeSires, introduce, takeBack } from './introductions.ts';
import { changeRules } from './rules.ts';
import { addSeasonEvent, correctSeasonEvent } from './season-events.ts';

export function seasonRoutes({ read, write }: Endpoints): Router {
  const router = Router();
  router.get(
    '/season',
    read((work) => viewBoard(work)),
  );
  router.put(
    '/season/rules',
    write(
      async (work, request) => ({
        status: 200,
        body: await changeRules(work, checked(seasonRules, request.body, work), expectedVersion(request)),
      }),
      { act: 'manage' },
    ),
  );
  router.post(
    '/season/introductions',
    write(async (work, request) => ({
      status: 201,
      body: await introduce(work, checked(introduction, request.body, work)),
    })),
  );
  router.post(
    '/pairings/:id/events',
    write(async (work, request) => ({
      status: 201,
      body: await addSeasonEvent(work, idParam(request), checked(newSeasonEvent, request.body, work)),
    })),
  );
  router.put(
    '/pairings/:id/sires',
    write(async (work, request) => ({
      status: 200,
      body: await changeSires(
        work,
        idParam(request),
        checked(siresChange, request.body, work),
        expectedVersion(request),
      ),
    })),
  );
  router.post(
    '/pairing-events/:id/void',
    write(async (work, request) => {
      await takeBack(work, idParam(request), checked(voiding, request.body, work).reason);
      return { status: 204 };
    }),
  );
  router.post(
    '/pairing-events/:id/correct',
    write(async (work, request) => ({
      status: 201,
      body: await correctSeasonEvent(
        work,
        idParam(request),
        checked(seasonEventCorrection, request.body, work),
      ),
    })),
  );
  return router;
}
