import { readId, ROUTES, type JobProgress } from '@karyotome/contract';
import type { Request } from 'express';
import { actorOf } from './allow.ts';
import type { Endpoints } from './endpoint.ts';
import { notFound } from '../refusal.ts';
import { onTold, tellAll } from '../relay.ts';

/*
 * How far work is that takes long, for whoever waits for its answer. Whoever sends such a request names the job in a header,
 * asks here how far it is, and cancels it by giving up the request.
 */

const HEADER = 'Job-Id';
const jobs = new Map<string, JobProgress>();

/** Of a job that may run in another process than the one that is asked; null where it has ended. */
interface Told {
  readonly key: string;
  readonly progress: JobProgress | null;
}
const PROGRESS = 'job progress';
const tell = (told: Told): void => tellAll(PROGRESS, told);
onTold<Told>(PROGRESS, ({ key, progress }) => {
  if (progress) jobs.set(key, progress);
  else jobs.delete(key);
});

export interface Job {
  /** Aborted when whoever asked is gone, or was answered. */
  readonly signal: AbortSignal;
  report(progress: JobProgress): void;
}

/** Begins a job for a request; it ends with the request's answer. Without a name it can be cancelled all the same, but not asked about. */
export function startJob(request: Request): Job {
  const id = readId(request.get(HEADER) ?? '');
  const key = id === null ? null : `${actorOf(request).accountId} ${id}`;
  const giveUp = new AbortController();
  const answer = request.res!;
  const end = (): void => {
    giveUp.abort();
    if (key !== null && jobs.has(key)) tell({ key, progress: null });
  };
  if (answer.destroyed) end();
  else answer.once('close', end);
  return {
    signal: giveUp.signal,
    report(progress) {
      if (key !== null && !giveUp.signal.aborted) tell({ key, progress });
    },
  };
}

export function jobRoutes({ answer }: Endpoints): void {
  answer(ROUTES.job, (request, response, { accountId }) => {
    const progress = jobs.get(`${accountId} ${readId(String(request.params['id'])) ?? ''}`);
    if (!progress) throw notFound('This job');
    response.set('Cache-Control', 'no-store').json(progress);
  });
}
