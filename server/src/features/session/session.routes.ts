import { signIn } from '@karyotome/contract';
import { Router, type RequestHandler } from 'express';
import rateLimit from 'express-rate-limit';
import type { Config } from '../../config.ts';
import type { Database } from '../../db/work.ts';
import { actorOf, checked } from '../../http/endpoint.ts';
import { Refusal, sendProblem } from '../../http/problems.ts';
import { checkSignIn, findActor, viewSession } from './session.service.ts';

/** Finds out who asks. Does not refuse anybody: endpoints do, by what they need. */
export function identifyActor(database: Database): RequestHandler {
  return async (request, _response, next) => {
    const { accountId, collectionId } = request.session;
    if (accountId && collectionId) {
      request.actor = (await findActor(database, accountId, collectionId)) ?? undefined;
    }
    next();
  };
}

export function sessionRoutes(
  database: Database,
  config: Config,
  csrfToken: (request: Parameters<RequestHandler>[0], overwrite?: boolean) => string,
): Router {
  const router = Router();
  const limit = rateLimit({
    windowMs: 10 * 60_000,
    limit: config.signInAttempts,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    skipSuccessfulRequests: true,
    handler: (_request, response) =>
      sendProblem(
        response,
        new Refusal('too-many', 'Too many failed sign-ins from this address. Wait ten minutes.'),
      ),
  });
  router.get('/session', async (request, response) => {
    response.json(await viewSession(database, actorOf(request), csrfToken(request)));
  });
  router.post('/session', limit, async (request, response) => {
    const { accountId, collectionId } = await checkSignIn(database, checked(signIn, request.body));
    // A new session id on sign-in: one that was planted before is worth nothing (session fixation).
    await new Promise<void>((resolve, reject) =>
      request.session.regenerate((error) => (error ? reject(error as Error) : resolve())),
    );
    request.session.accountId = accountId;
    request.session.collectionId = collectionId;
    const actor = await findActor(database, accountId, collectionId);
    response.status(201).json(await viewSession(database, actor!, csrfToken(request, true)));
  });
  router.delete('/session', async (request, response) => {
    await new Promise<void>((resolve, reject) =>
      request.session.destroy((error) => (error ? reject(error as Error) : resolve())),
    );
    response.clearCookie('karyotome').status(204).end();
  });
  return router;
}
