import { ROUTES } from '@karyotome/contract';
import type { Endpoints } from '../../http/endpoint.ts';
import { viewBench } from './bench.service.ts';
import { viewCalls } from './calls.service.ts';
import { changeObservations, changeSorting } from './observations.service.ts';
import { addOpinion, createLink, removeOpinion, revokeLink } from './opinions.service.ts';
import { proposeSetUp, setUp } from './set-up.service.ts';

export function benchRoutes({ read, write }: Endpoints): void {
  read(ROUTES.bench, ({ work, id }) => viewBench(work, id), { infers: true });
  read(ROUTES.calls, ({ work }) => viewCalls(work), { infers: true });
  write(ROUTES.changeObservations, ({ work, id, body, version }) =>
    changeObservations(work, id, body, version),
  );
  write(ROUTES.changeSorting, ({ work, id, body, version }) => changeSorting(work, id, body, version));
  read(ROUTES.setUpProposal, ({ work, id }) => proposeSetUp(work, id));
  write(ROUTES.setUp, ({ work, id, body }) => setUp(work, id, body));
  write(ROUTES.addOpinion, ({ work, id, body }) => addOpinion(work, id, body));
  write(ROUTES.removeOpinion, ({ work, id }) => removeOpinion(work, id));
  write(ROUTES.addOpinionLink, ({ work, id, body }) => createLink(work, id, body));
  write(ROUTES.revokeOpinionLink, ({ work, id }) => revokeLink(work, id));
}
