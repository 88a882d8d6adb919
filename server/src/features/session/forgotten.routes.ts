import { forgottenPassword, ROUTES } from '@karyotome/contract';
import type { Router } from 'express';
import { inBackground } from '../../background.ts';
import type { Config } from '../../config.ts';
import type { Database } from '../../db/work.ts';
import { checked } from '../../http/asked.ts';
import { openRoute } from '../../http/open-route.ts';
import type { RateLimits } from '../../http/rate-limits.ts';
import { mailReset } from '../../post/mail-reset.ts';

/** Links for another password that are mailed, by who asks and by whose account it is. */
const FORGOTTEN = { points: 5, duration: 3600 };

/** Has a link for another password mailed to whoever forgot theirs. */
export function forgottenRoute(router: Router, database: Database, config: Config, limits: RateLimits): void {
  openRoute(router, ROUTES.forgotPassword, async (request, response) => {
    await limits.take('forgotten-by', request.ip ?? '', FORGOTTEN, 'links for another password');
    const email = checked(forgottenPassword, request.body).email.toLowerCase();
    // Not waited for, and silently no more than a few: nobody learns who has an account.
    inBackground(async () => {
      if (await limits.isWithin('forgotten-of', email, FORGOTTEN)) await mailReset(database, config, email);
    }, database.onFault);
    response.status(204).end();
  });
}
