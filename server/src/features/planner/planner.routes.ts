import { Router } from 'express';
import type { Endpoints } from '../../http/endpoint.ts';
import { viewPlanner } from './planner.service.ts';

export function plannerRoutes({ read }: Endpoints): Router {
  return Router().get(
    '/planner',
    read((work) => viewPlanner(work), { infers: true, isShared: true }),
  );
}
