import { ROUTES, type InvitationInput, type NewInvitation } from '@karyotome/contract';
import { dayIn } from '@karyotome/core';
import type { Config } from '../../config.ts';
import { reading, type Actor, type Database } from '../../db/work.ts';
import { openInvitations } from '../../domain/accounts/accounts.queries.ts';
import { createInvitation, withdrawInvitation } from '../../domain/accounts/invitations.ts';
import { codeFor } from '../../domain/accounts/secret-code.ts';
import { collectionOf } from '../../domain/collection/collection-of.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import type { RateLimits } from '../../http/rate-limits.ts';
import { canMailLinks, mailLink } from '../../post/mail-link.ts';
import { invalidField } from '../../refusal.ts';

/** Invitations by a link that is shown once, and mailed where that is asked for. */
export function invitationRoutes(
  { list, write }: Endpoints,
  database: Database,
  config: Config,
  limits: RateLimits,
): void {
  list(ROUTES.invitations, ({ work }) => openInvitations(work));
  write(
    ROUTES.invite,
    // The secret is added to the answer, and never stored with it.
    async ({ work, body }) => ({ ...(await createInvitation(work, body)), token: '', isMailed: false }),
    {
      prepare: ({ body }, actor) => checkMailing(config, limits, actor, body),
      complete: async ({ body }, actor, answer) => {
        const token = codeFor('invitation', answer.id, config.signingSecret);
        return {
          ...answer,
          token,
          isMailed: await mailInvitation(database, config, actor, body, { ...answer, token }),
        };
      },
    },
  );
  write(ROUTES.withdrawInvitation, ({ work, id }) => withdrawInvitation(work, id));
}

/** So many invitations can be mailed by one person: this is no way to write to strangers. */
const MAILED = { points: 20, duration: 86_400 };

/** @throws Refusal `invalid` where no link can be mailed, `too-many` after a while */
async function checkMailing(
  config: Config,
  limits: RateLimits,
  { accountId }: Actor,
  { email }: InvitationInput,
): Promise<void> {
  if (!email) return;
  if (!canMailLinks(config))
    throw invalidField(
      'email',
      'cannot be written to: no mail server is set up here. Send the link yourself',
    );
  await limits.take('invitations-by', accountId, MAILED, 'invitations by mail');
}

/** @returns whether it was mailed: where the mail server refuses, the link is shown all the same */
async function mailInvitation(
  database: Database,
  config: Config,
  actor: Actor,
  { email }: InvitationInput,
  { token, expiresAt }: NewInvitation,
): Promise<boolean> {
  if (!email) return false;
  const { collection, until } = await reading(database, actor, async (work) => ({
    collection: (await collectionOf(work)).name,
    until: dayIn(work.timeZone, Date.parse(expiresAt)),
  }));
  return mailLink(config, email, (address) => ({
    code: 'invitation',
    facts: { by: actor.name, collection, address: `${address}/join#${token}`, until },
  })).catch((error: unknown) => {
    database.onFault(error);
    return false;
  });
}
