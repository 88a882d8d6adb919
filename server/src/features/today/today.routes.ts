import { ROUTES, todayQuery } from '@karyotome/contract';
import { viewToday } from '../../domain/today/today.service.ts';
import { checked } from '../../http/asked.ts';
import { listQueryOf } from '../../http/paging.ts';
import type { Endpoints } from '../../http/endpoint.ts';

export function todayRoutes({ read }: Endpoints): void {
  read(ROUTES.today, ({ work, request }) => viewToday(work, checked(todayQuery, listQueryOf(request))));
}
