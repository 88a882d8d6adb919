import { ROUTES } from '@karyotome/contract';
import { viewToday } from '../../domain/today/today.service.ts';
import type { Endpoints } from '../../http/endpoint.ts';

export function todayRoutes({ read }: Endpoints): void {
  read(ROUTES.today, ({ work }) => viewToday(work));
}
