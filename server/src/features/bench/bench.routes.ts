import { ROUTES } from '@karyotome/contract';
import type { Endpoints } from '../../http/endpoint.ts';
import { viewBench } from './bench.service.ts';
import { viewCalls } from './calls.service.ts';
import { changeObservations, changeSorting } from './observations.service.ts';
import { addOpinion, createLink, linkPath, removeOpinion, revokeLink } from './opinions.service.ts';
import { proposeSetUp, setUp } from './set-up.service.ts';

export function benchRoutes({ read, write }: Endpoints, secret: string): void {
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
  // What is kept for a repetition holds no secret: the address is put in when it is answered.
  write(
    ROUTES.addOpinionLink,
    async ({ work, id, body }) => ({ ...(await createLink(work, id, body, secret)), path: '' }),
    {
      complete: (_asked, _actor, answer) => Promise.resolve({ ...answer, path: linkPath(answer.id, secret) }),
    },
  );
  write(ROUTES.revokeOpinionLink, ({ work, id }) => revokeLink(work, id));
}
