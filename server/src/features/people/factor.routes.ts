import { ROUTES, type PasswordGiven } from '@karyotome/contract';
import type { Config } from '../../config.ts';
import type { Actor, Database } from '../../db/work.ts';
import { passkeyRows } from '../../domain/accounts/accounts.queries.ts';
import {
  addPasskey,
  checkRegistration,
  registrationOptions,
  removePasskey,
  type Registered,
} from '../../domain/accounts/passkeys.ts';
import {
  beginSecondFactor,
  confirmSecondFactor,
  newRecoveryCodes,
  recoveryCodesOf,
  removeSecondFactor,
  secondFactorStart,
  viewSecondFactor,
} from '../../domain/accounts/second-factor.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import type { RateLimits } from '../../http/rate-limits.ts';
import { siteOf } from '../../http/origin.ts';
import { requirePassword } from './own-password.ts';

/** What whoever is signed in signs in with besides the password. */
export function factorRoutes(
  { read, list, write }: Endpoints,
  database: Database,
  { signingSecret: secret }: Pick<Config, 'signingSecret'>,
  limits: RateLimits,
): void {
  const byPassword = {
    prepare: ({ body }: { readonly body: PasswordGiven }, actor: Actor): Promise<void> =>
      requirePassword(database, limits, actor, body.password, 'password'),
  };
  const codes = {
    // Added to the answer, and never stored with it.
    complete: async (_asked: unknown, { accountId }: Actor) => ({
      codes: await recoveryCodesOf(database, { accountId, secret }),
    }),
  };
  read(ROUTES.secondFactor, ({ work }) => viewSecondFactor(work));
  write(
    ROUTES.beginSecondFactor,
    async ({ work }) => {
      await beginSecondFactor(work, secret);
      return { secret: '', uri: '' };
    },
    {
      ...byPassword,
      complete: (_asked, { accountId }) => secondFactorStart(database, { accountId, secret }),
    },
  );
  write(
    ROUTES.confirmSecondFactor,
    async ({ work, body }) => {
      await confirmSecondFactor(work, body.code, secret);
      return { codes: [] };
    },
    codes,
  );
  write(
    ROUTES.newRecoveryCodes,
    async ({ work }) => {
      await newRecoveryCodes(work);
      return { codes: [] };
    },
    { ...byPassword, ...codes },
  );
  write(ROUTES.removeSecondFactor, ({ work }) => removeSecondFactor(work), byPassword);

  list(ROUTES.passkeys, ({ work }) => passkeyRows(work, { accountId: work.actor.accountId }));
  write(
    ROUTES.passkeyOptions,
    async ({ work, request }) => ({ options: await registrationOptions(work, siteOf(request), secret) }),
    byPassword,
  );
  write(ROUTES.addPasskey, ({ work, body }, made: Registered) => addPasskey(work, body.name, made), {
    prepare: ({ body, request }, actor) => checkRegistration(actor, body.response, siteOf(request), secret),
  });
  write(ROUTES.removePasskey, ({ work, id }) => removePasskey(work, id));
}
