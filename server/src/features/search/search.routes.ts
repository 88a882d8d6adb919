import { ROUTES, searchQuery } from '@karyotome/contract';
import { mayDo } from '../../access/policy.ts';
import { search } from '../../domain/search/search.service.ts';
import { checked } from '../../http/asked.ts';
import type { Endpoints } from '../../http/endpoint.ts';

export function searchRoutes({ read }: Endpoints): void {
  read(ROUTES.search, ({ work, request }) => {
    const { q } = checked(searchQuery, request.query);
    return search(work, q, mayDo(work.actor, 'sell', true));
  });
}
