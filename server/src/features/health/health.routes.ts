import { ROUTES } from '@karyotome/contract';
import { healthCases } from '../../domain/health/health-cases.service.ts';
import { miteWatches } from '../../domain/health/mite-watches.service.ts';
import type { Endpoints } from '../../http/endpoint.ts';

export function healthRoutes({ list }: Endpoints): void {
  list(ROUTES.healthCases, ({ work }) => healthCases(work));
  list(ROUTES.miteWatches, ({ work }) => miteWatches(work));
}
