import type { RoleChoice } from '@karyotome/contract';
import { now } from '../../clock.ts';
import type { Actor, Work } from '../../db/work.ts';
import { notFound, Refusal } from '../../refusal.ts';
import { asStored, refuseMoreThanOwn } from './grants.ts';
import { tokenStream } from './access-tokens.ts';
import { sessionsOf } from './devices.service.ts';

/** Gives somebody another role. @throws Refusal `conflict` where nobody would be left who owns the collection */
export async function changeMember(work: Work<Actor>, accountId: string, choice: RoleChoice): Promise<void> {
  refuseMoreThanOwn(work.actor, choice);
  const member = await findMember(work, accountId);
  if (member.get().role === 'owner' && choice.role !== 'owner') await refuseLastOwner(work);
  await member.update(asStored(choice), { transaction: work.transaction });
}

/**
 * Ends somebody's membership, and with it what they could get in by: sessions, tokens, calendar addresses, links and invitations that
 * they made. Their account and their name on what they recorded stay.
 *
 * @returns the sessions and tokens that ended, by what their event streams are called
 */
export async function removeMember(work: Work<Actor>, accountId: string): Promise<readonly string[]> {
  const { collectionId } = work.actor;
  const { models, transaction } = work;
  const member = await findMember(work, accountId);
  if (member.get().role === 'owner') await refuseLastOwner(work);
  const sessions = await sessionsOf(work, accountId, collectionId);
  await models.sessions.destroy({ where: { sid: sessions.map(({ sid }) => sid) }, transaction });
  const own = { collectionId, authorId: accountId };
  await models.calendarFeeds.update(
    { revokedAt: now() },
    { where: { ...own, revokedAt: null }, transaction },
  );
  await models.opinionLinks.update(
    { revokedAt: now() },
    { where: { ...own, revokedAt: null, usedAt: null }, transaction },
  );
  const [, tokens] = await models.accessTokens.update(
    { revokedAt: now() },
    { where: { collectionId, accountId, revokedAt: null }, transaction, returning: true },
  );
  await models.invitations.update(
    { withdrawnAt: now() },
    { where: { ...own, withdrawnAt: null, takenAt: null }, transaction },
  );
  await member.destroy({ transaction });
  return [...sessions.map(({ sid }) => sid), ...tokens.map((token) => tokenStream(token.get().id))];
}

/** @throws Refusal where somebody may do more than whoever asks, who can then neither change nor remove them */
async function findMember(work: Work<Actor>, accountId: string) {
  const { models, transaction } = work;
  const { collectionId } = work.actor;
  const member = await models.memberships.findOne({ where: { collectionId, accountId }, transaction });
  if (!member) throw notFound('This person');
  refuseMoreThanOwn(work.actor, member.get());
  return member;
}

/** Writes of a collection come one after the other: whoever is counted here is still there when this is done. */
async function refuseLastOwner({ models, actor, transaction }: Work<Actor>): Promise<void> {
  const { collectionId } = actor;
  const owners = await models.memberships.count({ where: { collectionId, role: 'owner' }, transaction });
  if (owners < 2)
    throw new Refusal('conflict', 'A collection needs an owner: make somebody else an owner first.');
}
