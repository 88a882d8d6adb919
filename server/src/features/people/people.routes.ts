import { ROUTES, type PasswordChange } from '@karyotome/contract';
import type { Request } from 'express';
import type { Config } from '../../config.ts';
import type { Actor, Database, Work } from '../../db/work.ts';
import { createToken, revokeToken, TOKEN_PREFIX, tokenStream } from '../../domain/accounts/access-tokens.ts';
import { memberRows, tokenRows } from '../../domain/accounts/accounts.queries.ts';
import { endDevice, endOtherDevices, listDevices } from '../../domain/accounts/devices.service.ts';
import { changeMember, removeMember } from '../../domain/accounts/members.service.ts';
import { noteAct } from '../../domain/history/history.queries.ts';
import { checkNewPassword } from '../../domain/accounts/password-rules.ts';
import { codeFor } from '../../domain/accounts/secret-code.ts';
import { hashPassword } from '../../domain/accounts/session.service.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { endStreams } from '../../http/event-streams.ts';
import type { RateLimits } from '../../http/rate-limits.ts';
import { requirePassword } from './own-password.ts';

/** The account of whoever is signed in, and who else may use the collection. */
export function peopleRoutes(
  { list, write }: Endpoints,
  database: Database,
  config: Config,
  limits: RateLimits,
): void {
  /** Sessions and tokens that a write ended: what they watch ends once it is committed. */
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
  write(
    ROUTES.revokeToken,
    async ({ work, id, request }) => {
      await revokeToken(work, id);
      ended.set(request, [tokenStream(id)]);
    },
    { complete: endWatching },
  );

  list(ROUTES.members, ({ work }) => memberRows(work));
  write(ROUTES.changeMember, ({ work, id, body }) => changeMember(work, id, body));
  write(
    ROUTES.removeMember,
    async ({ work, id, request }) => void ended.set(request, await removeMember(work, id)),
    { complete: endWatching },
  );
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
