import { ROUTES } from '@karyotome/contract';
import type { Endpoints } from '../../http/endpoint.ts';
import { viewRound } from './round-view.ts';
import { takeEntries } from './take-entries.ts';

export function roundRoutes({ read, write }: Endpoints): void {
  read(ROUTES.round, ({ work }) => viewRound(work));
  write(ROUTES.sendRound, ({ work, body }) => takeEntries(work, body));
}
