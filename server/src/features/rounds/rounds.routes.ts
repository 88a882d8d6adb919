import { ROUTES } from '@karyotome/contract';
import type { Endpoints } from '../../http/endpoint.ts';
import { viewRound, viewRoundRack, viewSheds } from './round-view.ts';
import { takeEntries } from './take-entries.ts';

export function roundRoutes({ read, write }: Endpoints): void {
  read(ROUTES.round, ({ work }) => viewRound(work));
  read(ROUTES.roundRack, ({ work, params }) => viewRoundRack(work, params.id));
  read(ROUTES.sheds, ({ work }) => viewSheds(work));
  write(ROUTES.sendRound, ({ work, body }) => takeEntries(work, body));
}
