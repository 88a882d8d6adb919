import { ROUTES, signIn } from '@karyotome/contract';
import { openRoute } from '../../http/open-route.ts';
import type { RequestHandler } from 'express';
import type { Config } from '../../config.ts';
import type { Database } from '../../db/work.ts';
import { checked } from '../../http/asked.ts';
import { type Endpoints } from '../../http/endpoint.ts';
import { Refusal } from '../../refusal.ts';
import type { RateLimits } from '../../http/rate-limits.ts';
import { endStreams } from '../../http/event-streams.ts';
import { checkSignIn, findActor, viewSession } from '../../domain/accounts/session.service.ts';

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

/** Failed sign-ins: from one address, and for one account from anywhere. */
const WINDOW_S = 600;
const ACCOUNT_FAILURES = 50;

export function sessionRoutes(
  { router, answer }: Endpoints,
  database: Database,
  config: Config,
  limits: RateLimits,
  csrfToken: (request: Parameters<RequestHandler>[0], overwrite?: boolean) => string,
): void {
  const byAddress = { points: config.signInAttempts, duration: WINDOW_S };
  const byAccount = { points: ACCOUNT_FAILURES, duration: WINDOW_S };
  router.use(ROUTES.session.path, (_request, response, next) => {
    response.set('Cache-Control', 'no-store');
    next();
  });
  answer(ROUTES.session, async (request, response, actor) => {
    response.json(await viewSession(database, actor, csrfToken(request)));
  });
  openRoute(router, ROUTES.signIn, async (request, response) => {
    const address = request.ip ?? '';
    await limits.check('sign-in-by', address, byAddress, 'failed sign-ins from this address');
    const input = checked(signIn, request.body);
    const email = input.email.toLowerCase();
    await limits.check('sign-in-of', email, byAccount, 'failed sign-ins for this account');
    let known: Awaited<ReturnType<typeof checkSignIn>>;
    try {
      known = await checkSignIn(database, input);
    } catch (error) {
      if (error instanceof Refusal && error.code === 'wrong-sign-in') {
        // The one that reaches the limit is still told that it was wrong; the next is told to wait.
        await limits.count('sign-in-by', address, byAddress);
        await limits.count('sign-in-of', email, byAccount);
      }
      throw error;
    }
    const { accountId, collectionId } = known;
    const actor = await findActor(database, accountId, collectionId);
    if (!actor) throw new Refusal('wrong-sign-in', 'Check both fields and try again.');
    // A new session id on sign-in: one that was planted before is worth nothing (session fixation).
    await new Promise<void>((resolve, reject) =>
      request.session.regenerate((error) => (error ? reject(error as Error) : resolve())),
    );
    request.session.accountId = accountId;
    request.session.collectionId = collectionId;
    response.status(201).json(await viewSession(database, actor, csrfToken(request, true)));
  });
  openRoute(router, ROUTES.signOut, async (request, response) => {
    endStreams(request.sessionID);
    await new Promise<void>((resolve, reject) =>
      request.session.destroy((error) => (error ? reject(error as Error) : resolve())),
    );
    // What this browser kept of answers goes too, on the next person's account.
    response.set('Clear-Site-Data', '"cache"').clearCookie('karyotome').status(204).end();
  });
}
