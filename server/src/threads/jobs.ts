import { readId, type JobProgress } from '@karyotome/contract';
import { Router, type Request } from 'express';
import { actorOf } from '../http/endpoint.ts';
import { notFound } from '../http/problems.ts';

/*
 * How far work is that takes long, for whoever waits for its answer. Whoever sends such a request names the job in a header,
 * asks here how far it is, and cancels it by giving up the request.
 */

const HEADER = 'Job-Id';
const jobs = new Map<string, JobProgress>();

export interface Job {
  /** Aborted when whoever asked is gone. */
  readonly signal: AbortSignal;
  tell(progress: JobProgress): void;
  end(): void;
}

/** Begins a job for a request. Without a name it can be cancelled all the same, but not asked about. */
export function startJob(request: Request): Job {
  const id = readId(request.get(HEADER) ?? '');
  const key = id === null ? null : `${actorOf(request).accountId} ${id}`;
  const giveUp = new AbortController();
  const gone = (): void => giveUp.abort();
  const connection = request.res!;
  connection.once('close', gone);
  return {
    signal: giveUp.signal,
    tell(progress) {
      if (key !== null) jobs.set(key, progress);
    },
    end() {
      connection.off('close', gone);
      if (key !== null) jobs.delete(key);
    },
  };
}

export function jobRoutes(): Router {
  return Router().get('/jobs/:id', (request, response) => {
    const progress = jobs.get(`${actorOf(request).accountId} ${readId(request.params.id) ?? ''}`);
    if (!progress) throw notFound('This job');
    response.set('Cache-Control', 'no-store').json(progress);
  });
}
