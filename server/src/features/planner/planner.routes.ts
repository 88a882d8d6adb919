import { ROUTES } from '@karyotome/contract';
import type { Endpoints } from '../../http/endpoint.ts';
import { viewPlanner } from './planner.service.ts';

export function plannerRoutes({ read }: Endpoints): void {
  read(ROUTES.planner, ({ work }) => viewPlanner(work), { infers: true, isShared: true });
}
