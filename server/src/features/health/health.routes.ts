import { ROUTES } from '@karyotome/contract';
import { miteWatches } from '../../domain/health/mite-watches.service.ts';
import type { Endpoints } from '../../http/endpoint.ts';

export function healthRoutes({ list }: Endpoints): void {
  list(ROUTES.miteWatches, ({ work }) => miteWatches(work));
}
