import { ROUTES } from '@karyotome/contract';
import type { Endpoints } from '../../http/endpoint.ts';
import { createClutch, hatch } from '../../domain/season/clutches.service.ts';
import { createPairing, deletePairing, listPairings } from '../../domain/season/pairings.service.ts';

export function breedingRoutes({ list, write }: Endpoints): void {
  list(ROUTES.pairings, ({ work }) => listPairings(work));
  write(ROUTES.addPairing, ({ work, body }) => createPairing(work, body));
  write(ROUTES.deletePairing, ({ work, id, body }) => deletePairing(work, id, body.reason));
  write(ROUTES.addClutch, ({ work, body }) => createClutch(work, body));
  write(ROUTES.hatch, ({ work, id, body, version }) => hatch(work, id, body, version));
}
