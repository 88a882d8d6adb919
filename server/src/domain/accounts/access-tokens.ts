import { randomUUID } from 'node:crypto';
import type { TokenInput } from '@karyotome/contract';
import { now, nowMs } from '../../clock.ts';
import type { Actor, Database, Work } from '../../db/work.ts';
import { notFound } from '../../refusal.ts';
import { tokenById } from './accounts.queries.ts';
import { idInCode } from './secret-code.ts';
import { findActor } from './session.service.ts';

/** Told apart from other secrets at a glance, by people and by programs that look for secrets. */
export const TOKEN_PREFIX = 'karyotome_';

/** By which event streams of a program are ended. */
export const tokenStream = (id: string): string => `token ${id}`;

/** That a token was used is written down so often at most. */
const USED_EVERY_MS = 600_000;

export async function createToken(
  work: Work<Actor>,
  { name, scope, days }: TokenInput,
): Promise<{ id: string; expiresAt: string }> {
  const { collectionId, accountId } = work.actor;
  const id = randomUUID();
  const expiresAt = new Date(nowMs() + days * 86_400_000);
  await work.models.accessTokens.create(
    { collectionId, id, accountId, name, scope, expiresAt },
    { transaction: work.transaction },
  );
  return { id, expiresAt: expiresAt.toISOString() };
}

/** From now on the token lets nobody in. */
export async function revokeToken(work: Work<Actor>, id: string): Promise<void> {
  const { collectionId, accountId } = work.actor;
  const [changed] = await work.models.accessTokens.update(
    { revokedAt: now() },
    { where: { collectionId, id, accountId, revokedAt: null }, transaction: work.transaction },
  );
  if (changed === 0) throw notFound('This token');
}

/**
 * Who a program acts for. Looked up anew on every request: a token that was revoked, and a membership that ended, end at once.
 *
 * @returns null where the token lets nobody in
 */
export async function actorOfToken(database: Database, token: string, secret: string): Promise<Actor | null> {
  const code = token.startsWith(TOKEN_PREFIX) ? token.slice(TOKEN_PREFIX.length) : '';
  const id = idInCode('access token', code, secret);
  return id === null ? null : actorById(database, id);
}

/** Whom a token acts for. @returns null where it ended */
export async function actorById(database: Database, id: string): Promise<Actor | null> {
  const [found] = await tokenById(database, { id });
  const actor = found && (await findActor(database, found.accountId, found.collectionId));
  if (!actor) return null;
  if (found.usedAt === null || nowMs() - found.usedAt.getTime() > USED_EVERY_MS)
    await database.models.accessTokens.update({ usedAt: now() }, { where: { id: found.id } });
  return { ...actor, scope: found.scope, tokenId: found.id };
}
