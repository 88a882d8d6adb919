import { ROUTES, type InvitationInput, type NewInvitation, type PasswordChange } from '@karyotome/contract';
import { dayIn } from '@karyotome/core';
import type { Request } from 'express';
import type { Config } from '../../config.ts';
import { reading, type Actor, type Database, type Work } from '../../db/work.ts';
import { createToken, revokeToken, TOKEN_PREFIX } from '../../domain/accounts/access-tokens.ts';
import { memberRows, openInvitations, tokenRows } from '../../domain/accounts/accounts.queries.ts';
import { endDevice, endOtherDevices, listDevices } from '../../domain/accounts/devices.service.ts';
import { createInvitation, withdrawInvitation } from '../../domain/accounts/invitations.ts';
import { changeMember, removeMember } from '../../domain/accounts/members.service.ts';
import { collectionOf } from '../../domain/collection/collection-of.ts';
import { noteAct } from '../../domain/history/history.queries.ts';
import { checkNewPassword } from '../../domain/accounts/password-rules.ts';
import { codeFor } from '../../domain/accounts/secret-code.ts';
import { hashPassword } from '../../domain/accounts/session.service.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { endStreams } from '../../http/event-streams.ts';
import type { RateLimits } from '../../http/rate-limits.ts';
import { canMailLinks, mailLink } from '../../post/mail-link.ts';
import { invalidField } from '../../refusal.ts';
import { requirePassword } from './own-password.ts';

/** The account of whoever is signed in, and who else may use the collection. */
export function peopleRoutes(
  { list, write }: Endpoints,
  database: Database,
  config: Config,
  limits: RateLimits,
): void {
  /** Sessions that a write ended: what they watch ends once it is committed. */
  const ended = new WeakMap<Request, readonly string[]>();
  const endWatching = ({ request }: { readonly request: Request }): Promise<void> => {
    for (const sid of ended.get(request) ?? []) endStreams(sid);
    return Promise.resolve();
  };

  write(
    ROUTES.changePassword,
    async ({ work, request }, passwordHash: string) => {
      await savePassword(work, passwordHash);
      ended.set(request, await endOtherDevices(work, request.sessionID));
    },
    { prepare: ({ body }, actor) => newHash(database, limits, actor, body), complete: endWatching },
  );
  list(ROUTES.devices, ({ work, request }) => listDevices(work, request.sessionID));
  write(
    ROUTES.endDevice,
    async ({ work, id, request }) => void ended.set(request, await endDevice(work, id)),
    { complete: endWatching },
  );
  write(
    ROUTES.endOtherDevices,
    async ({ work, request }) => void ended.set(request, await endOtherDevices(work, request.sessionID)),
    { complete: endWatching },
  );

  list(ROUTES.tokens, ({ work }) => tokenRows(work, { accountId: work.actor.accountId }));
  write(ROUTES.addToken, async ({ work, body }) => ({ ...(await createToken(work, body)), token: '' }), {
    complete: async (_asked, _actor, answer) => ({
      ...answer,
      token: `${TOKEN_PREFIX}${codeFor('access token', answer.id, config.signingSecret)}`,
    }),
  });
  write(ROUTES.revokeToken, ({ work, id }) => revokeToken(work, id));

  list(ROUTES.members, ({ work }) => memberRows(work));
  write(ROUTES.changeMember, ({ work, id, body }) => changeMember(work, id, body));
  write(
    ROUTES.removeMember,
    async ({ work, id, request }) => void ended.set(request, await removeMember(work, id)),
    { complete: endWatching },
  );
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

async function newHash(
  database: Database,
  limits: RateLimits,
  actor: Actor,
  { current, next }: PasswordChange,
): Promise<string> {
  await requirePassword(database, limits, actor, current, 'current');
  checkNewPassword(next, 'next', [actor.name]);
  return hashPassword(next);
}

async function savePassword(work: Work<Actor>, passwordHash: string): Promise<void> {
  const { models, actor, transaction } = work;
  await models.accounts.update({ passwordHash }, { where: { id: actor.accountId }, transaction });
  await noteAct(
    work,
    'password-changed',
    { accountId: actor.accountId, device: actor.device ?? null },
    transaction,
  );
}
