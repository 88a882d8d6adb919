import { ROUTES } from '@karyotome/contract';
import type { Endpoints } from '../../http/endpoint.ts';
import { viewClaimDetail, viewKin } from './claim-detail.service.ts';
import { listDoubtful, listSuspects } from '../../domain/genetics/suspects.service.ts';
import { listUnproven } from '../../domain/genetics/unproven.service.ts';
import { listContradictions, listSurprises } from '../../domain/genetics/contradictions.service.ts';

/** How far a kin chart reaches when nobody says, and at most. */
const GENERATIONS = 3;
const MOST_GENERATIONS = 20;

function generationsOf(asked: unknown): number {
  const generations = Number(asked ?? GENERATIONS);
  return Number.isInteger(generations) ? Math.min(Math.max(generations, 1), MOST_GENERATIONS) : GENERATIONS;
}

export function geneticsRoutes({ list, read }: Endpoints): void {
  list(ROUTES.contradictions, ({ work }) => listContradictions(work), { infers: true });
  list(ROUTES.suspects, ({ work }) => listSuspects(work), { infers: true });
  list(ROUTES.doubtful, ({ work }) => listDoubtful(work), { infers: true });
  list(ROUTES.unprovenGenes, ({ work }) => listUnproven(work), { infers: true });
  list(ROUTES.surprises, ({ work }) => listSurprises(work), { infers: true });
  read(ROUTES.claimDetail, ({ work, id, params }) => viewClaimDetail(work, id, params.locus, params.allele), {
    infers: true,
  });
  read(
    ROUTES.kin,
    ({ work, id, request }) => {
      const { locus, allele } = request.query;
      const gene = typeof locus === 'string' && typeof allele === 'string' ? { locus, allele } : null;
      return viewKin(work, id, generationsOf(request.query['generations']), gene);
    },
    { infers: true },
  );
}
