import {
  collectionChoice,
  firstStart,
  invitationToken,
  joining,
  passwordReset,
  ROUTES,
  signIn,
} from '@karyotome/contract';
import { openRoute } from '../../http/open-route.ts';
import type { Request, RequestHandler, Response } from 'express';
import { inBackground } from '../../background.ts';
import type { Config } from '../../config.ts';
import type { Database } from '../../db/work.ts';
import { checked } from '../../http/asked.ts';
import { type Endpoints } from '../../http/endpoint.ts';
import { Attempts } from './attempts.ts';
import { forgottenRoute } from './forgotten.routes.ts';
import { passkeyRoutes } from './passkey.routes.ts';
import { canMailLinks } from '../../post/mail-link.ts';
import { invalidField, Refusal, type RefusalCode } from '../../refusal.ts';
import type { RateLimits } from '../../http/rate-limits.ts';
import { endStreams } from '../../http/event-streams.ts';
import { clearSession } from '../../http/session-cookie.ts';
import { MOST_DAYS } from '../../domain/accounts/devices.service.ts';
import { actorOfToken } from '../../domain/accounts/access-tokens.ts';
import { noteAct, noteFailure } from '../../domain/history/history.queries.ts';
import { isFirstStart, makeFirstOwner } from '../../domain/accounts/first-owner.ts';
import { lookAtInvitation, takeInvitation } from '../../domain/accounts/invitations.ts';
import { resetPassword } from '../../domain/accounts/password-reset.ts';
import { tellOwners } from '../../domain/accounts/tell-owners.ts';
import { checkSignIn, findActor, viewSession } from '../../domain/accounts/session.service.ts';

const DAY_MS = 86_400_000;

/** What the browser or program calls itself; null where it says nothing. */
const deviceOf = (request: Request): string | null =>
  request.get('User-Agent')?.slice(0, MOST_DEVICE_LENGTH) ?? null;
const MOST_DEVICE_LENGTH = 300;

/** Finds out who asks. Does not refuse anybody: endpoints do, by what they need. */
export function identifyActor(database: Database): RequestHandler {
  return async (request, _response, next) => {
    if (request.actor) return next();
    const { accountId, collectionId, signedInAt } = request.session;
    const isOver = signedInAt !== undefined && Date.now() - Date.parse(signedInAt) > MOST_DAYS * DAY_MS;
    if (accountId && collectionId && !isOver) {
      const actor = await findActor(database, accountId, collectionId);
      if (actor) request.actor = { ...actor, device: deviceOf(request) };
    }
    next();
  };
}

const BEARER = /^Bearer +(\S+)$/i;

/** Programs sign in with a token in each request, and have no session that a page could misuse. */
export function identifyProgram(database: Database, secret: string): RequestHandler {
  return async (request, response, next) => {
    const header = request.get('Authorization');
    if (header === undefined) return next();
    const token = BEARER.exec(header)?.[1] ?? '';
    const actor = await actorOfToken(database, token, secret);
    if (actor) request.actor = { ...actor, device: deviceOf(request) };
    if (actor) return next();
    response.set('WWW-Authenticate', 'Bearer');
    throw new Refusal('not-signed-in', 'This token is none, has run out, or was revoked.');
  };
}

/** What counts as a failed attempt to get in. */
const WRONG: ReadonlySet<RefusalCode> = new Set(['wrong-sign-in', 'wrong-code']);

type CsrfToken = (request: Request, overwrite?: boolean) => string;

interface Who {
  readonly accountId: string;
  readonly collectionId: string;
}

type Begin = (request: Request, response: Response, who: Who) => Promise<void>;

/** A new session id on sign-in: one that was planted before is worth nothing (session fixation). */
async function begin(
  database: Database,
  csrfToken: CsrfToken,
  request: Request,
  response: Response,
  { accountId, collectionId }: Who,
): Promise<void> {
  const actor = await findActor(database, accountId, collectionId);
  if (!actor) throw new Refusal('wrong-sign-in', 'Check both fields and try again.');
  await new Promise<void>((resolve, reject) =>
    request.session.regenerate((error) => (error ? reject(error as Error) : resolve())),
  );
  // For the log: who has come in by this request.
  request.actor = actor;
  request.session.accountId = accountId;
  request.session.collectionId = collectionId;
  request.session.signedInAt = new Date().toISOString();
  request.session.userAgent = deviceOf(request) ?? undefined;
  await noteAct(database, 'signed-in', { accountId, collectionId, device: deviceOf(request) });
  response.status(201).json(await viewSession(database, actor, csrfToken(request, true)));
}

export function sessionRoutes(
  { router, answer }: Endpoints,
  database: Database,
  config: Config,
  limits: RateLimits,
  csrfToken: CsrfToken,
): void {
  const beginSession: Begin = (request, response, who) => begin(database, csrfToken, request, response, who);
  const attempts = new Attempts(limits, 'sign-in', config.signInAttempts);
  router.use(ROUTES.session.path, (_request, response, next) => {
    response.set('Cache-Control', 'no-store');
    next();
  });
  answer(ROUTES.session, async (request, response, actor) => {
    response.json(await viewSession(database, actor, csrfToken(request)));
  });
  linkRoutes(router, database, config, limits, beginSession);
  forgottenRoute(router, database, config, limits);
  passkeyRoutes(router, database, { secret: config.signingSecret, limits, attempts }, beginSession);
  openRoute(router, ROUTES.signIn, async (request, response) => {
    const address = request.ip ?? '';
    await attempts.check({ address, email: null });
    const input = checked(signIn, request.body);
    const attempt = { address, email: input.email.toLowerCase() };
    await attempts.check(attempt);
    let known: Awaited<ReturnType<typeof checkSignIn>>;
    try {
      known = await checkSignIn(database, input, config.signingSecret, deviceOf(request));
    } catch (error) {
      if (error instanceof Refusal && WRONG.has(error.code)) {
        const mustWait = await attempts.failed(attempt);
        await noteFailure(database, attempt.email, deviceOf(request));
        // Not waited for: how long an answer takes must not tell whether the account exists.
        if (mustWait)
          inBackground(() => tellOwners(database, attempt.email, deviceOf(request)), database.onFault);
      }
      throw error;
    }
    await attempts.succeeded(attempt);
    await beginSession(request, response, known);
  });
  answer(ROUTES.chooseCollection, async (request, response, { accountId }) => {
    const { collectionId } = checked(collectionChoice, request.body);
    const actor = await findActor(database, accountId, collectionId);
    if (!actor) throw invalidField('collectionId', 'is none of yours');
    request.session.collectionId = collectionId;
    // What watched the other one begins anew.
    endStreams(request.sessionID);
    response.json(await viewSession(database, actor, csrfToken(request)));
  });
  openRoute(router, ROUTES.signOut, async (request, response) => {
    endStreams(request.sessionID);
    const { accountId, collectionId } = request.session;
    if (accountId && collectionId)
      await noteAct(database, 'signed-out', { accountId, collectionId, device: deviceOf(request) });
    await new Promise<void>((resolve, reject) =>
      request.session.destroy((error) => (error ? reject(error as Error) : resolve())),
    );
    clearSession(response, config).status(204).end();
  });
}

/** What somebody does with a link who is not signed in: take an invitation, choose a new password. */
function linkRoutes(
  router: Endpoints['router'],
  database: Database,
  config: Config,
  limits: RateLimits,
  beginSession: Begin,
): void {
  const attempts = new Attempts(limits, 'join', config.signInAttempts);
  /** Whoever guesses codes or passwords is told to wait. */
  const guarded = async <T>(address: string, email: string | null, act: () => Promise<T>): Promise<T> => {
    const attempt = { address, email };
    await attempts.check(attempt);
    try {
      return await act();
    } catch (error) {
      if (error instanceof Refusal && (error.code === 'not-found' || WRONG.has(error.code)))
        await attempts.failed(attempt);
      throw error;
    }
  };
  openRoute(router, ROUTES.lookAtInvitation, async (request, response) => {
    const { token } = checked(invitationToken, request.body);
    const offer = await guarded(request.ip ?? '', null, () =>
      lookAtInvitation(database, token, config.signingSecret),
    );
    response.set('Cache-Control', 'no-store').json(offer);
  });
  openRoute(router, ROUTES.firstStart, async (_request, response) => {
    response
      .set('Cache-Control', 'no-store')
      .json({ isOpen: await isFirstStart(database), mailsResets: canMailLinks(config) });
  });
  openRoute(router, ROUTES.startFarm, async (request, response) => {
    const input = checked(firstStart, request.body);
    const who = await guarded(request.ip ?? '', null, () =>
      makeFirstOwner(database, input, config.signingSecret),
    );
    response.set('Cache-Control', 'no-store');
    await beginSession(request, response, who);
  });
  openRoute(router, ROUTES.resetPassword, async (request, response) => {
    const input = checked(passwordReset, request.body);
    const ended = await guarded(request.ip ?? '', null, () =>
      resetPassword(database, input, config.signingSecret),
    );
    for (const sid of ended) endStreams(sid);
    response.set('Cache-Control', 'no-store').status(204).end();
  });
  openRoute(router, ROUTES.join, async (request, response) => {
    const input = checked(joining, request.body);
    const who = await guarded(request.ip ?? '', input.email.toLowerCase(), () =>
      takeInvitation(database, input, config.signingSecret),
    );
    response.set('Cache-Control', 'no-store');
    await beginSession(request, response, who);
  });
}
