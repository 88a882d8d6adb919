import { Router } from 'express';
import { idParam, type Endpoints } from '../../http/endpoint.ts';
import { viewClaimDetail, viewKin } from './claim-detail.service.ts';
import { listContradictions } from './contradictions.service.ts';

/** How far a kin chart reaches when nobody says, and at most. */
const GENERATIONS = 3;
const MOST_GENERATIONS = 20;

export function geneticsRoutes(endpoints: Endpoints): Router {
  const router = Router();
  router.get('/contradictions', endpoints.read(listContradictions, { infers: true }));
  router.get(
    '/animals/:id/claims/:locus/:allele',
    endpoints.read(
      (work, request) =>
        viewClaimDetail(
          work,
          idParam(request),
          String(request.params['locus']),
          String(request.params['allele']),
        ),
      { infers: true },
    ),
  );
  router.get(
    '/animals/:id/kin',
    endpoints.read(
      (work, request) => {
        const asked = Number(request.query['generations'] ?? GENERATIONS);
        const generations = Number.isInteger(asked)
          ? Math.min(Math.max(asked, 1), MOST_GENERATIONS)
          : GENERATIONS;
        const { locus, allele } = request.query;
        const gene = typeof locus === 'string' && typeof allele === 'string' ? { locus, allele } : null;
        return viewKin(work, idParam(request), generations, gene);
      },
      { infers: true },
    ),
  );
  return router;
}
