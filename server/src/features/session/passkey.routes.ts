import { passkeyAnswer, ROUTES } from '@karyotome/contract';
import type { Request, Response, Router } from 'express';
import type { Database } from '../../db/work.ts';
import { checkPasskey, signInOptions } from '../../domain/accounts/passkeys.ts';
import { checked } from '../../http/asked.ts';
import { openRoute } from '../../http/open-route.ts';
import type { RateLimits } from '../../http/rate-limits.ts';
import { siteOf } from '../../http/origin.ts';
import { Refusal } from '../../refusal.ts';
import type { Attempts } from './attempts.ts';

/** Each question is answered once. */
const ONCE = { points: 1, duration: 600 };

/** Signing in with a passkey instead of a password. */
export function passkeyRoutes(
  router: Router,
  database: Database,
  {
    secret,
    limits,
    attempts,
  }: { readonly secret: string; readonly limits: RateLimits; readonly attempts: Attempts },
  begin: (
    request: Request,
    response: Response,
    who: { readonly accountId: string; readonly collectionId: string },
  ) => Promise<void>,
): void {
  openRoute(router, ROUTES.passkeySignInOptions, async (request, response) => {
    response.json({ options: await signInOptions(siteOf(request), secret) });
  });
  openRoute(router, ROUTES.signInWithPasskey, async (request, response) => {
    const attempt = { address: request.ip ?? '', email: null };
    await attempts.check(attempt);
    const { response: answer } = checked(passkeyAnswer, request.body);
    const isFirst = (challenge: string): Promise<boolean> =>
      limits.isWithin('passkey-challenge', challenge, ONCE);
    try {
      const who = await checkPasskey(database, answer, siteOf(request), secret, isFirst);
      await begin(request, response, who);
    } catch (error) {
      if (error instanceof Refusal && error.code === 'wrong-sign-in') await attempts.failed(attempt);
      throw error;
    }
  });
}
