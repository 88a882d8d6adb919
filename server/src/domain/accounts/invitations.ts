import { randomUUID } from 'node:crypto';
import { grantsOf, type InvitationInput, type InvitationOffer, type Joining } from '@karyotome/contract';
import { now, nowMs } from '../../clock.ts';
import { isTaken } from '../../db/faults.ts';
import { writing, type Actor, type Database, type Work } from '../../db/work.ts';
import { invalidField, notFound, Refusal } from '../../refusal.ts';
import { invitationById, type InvitationFound } from './accounts.queries.ts';
import { asStored, refuseMoreThanOwn } from './grants.ts';
import { checkNewPassword } from './password-rules.ts';
import { idInCode } from './secret-code.ts';
import { requireSecondFactor } from './second-factor.ts';
import { hashPassword, isPasswordOf } from './session.service.ts';

/*
 * Invitations by a link that is good for one person. Nothing secret of it is kept: the code is made of the invitation's id and
 * the server's own secret, and what the database holds lets nobody in.
 */

const DAYS = 7;

export async function createInvitation(
  work: Work<Actor>,
  { name, email: _email, ...choice }: InvitationInput,
): Promise<{ id: string; expiresAt: string }> {
  const { collectionId, accountId } = work.actor;
  refuseMoreThanOwn(work.actor, choice);
  const id = randomUUID();
  const expiresAt = new Date(nowMs() + DAYS * 86_400_000);
  await work.models.invitations.create(
    { collectionId, id, name, ...asStored(choice), authorId: accountId, expiresAt },
    { transaction: work.transaction },
  );
  return { id, expiresAt: expiresAt.toISOString() };
}

export async function withdrawInvitation(work: Work, id: string): Promise<void> {
  const { collectionId } = work.actor;
  const [changed] = await work.models.invitations.update(
    { withdrawnAt: now() },
    { where: { collectionId, id, takenAt: null, withdrawnAt: null }, transaction: work.transaction },
  );
  if (changed === 0) throw notFound('This invitation');
}

async function find(database: Database, token: string, secret: string): Promise<InvitationFound> {
  const id = idInCode('invitation', token, secret);
  const [found] = id === null ? [] : await invitationById(database, { id });
  if (!found) throw new Refusal('not-found', 'This invitation was taken, was withdrawn, or has run out.');
  return found;
}

/** What an invitation is to. @throws Refusal `not-found` where nobody can take it any more */
export async function lookAtInvitation(
  database: Database,
  token: string,
  secret: string,
): Promise<InvitationOffer> {
  const found = await find(database, token, secret);
  return { collection: found.collection, role: found.role, grants: grantsOf(found), by: found.by };
}

/**
 * Takes an invitation: with the account that has this address where there is one, else with a new one.
 *
 * @throws Refusal `wrong-sign-in` where the address has an account with another password
 */
export async function takeInvitation(
  database: Database,
  { token, email, password, name, code }: Joining,
  secret: string,
): Promise<{ accountId: string; collectionId: string }> {
  const { id, collectionId, role, grants } = await find(database, token, secret);
  const address = email.toLowerCase();
  const known = (await database.models.accounts.findOne({ where: { email: address } }))?.get();
  if (known && !(await isPasswordOf(database, { accountId: known.id, password })))
    throw new Refusal('wrong-sign-in', 'This address has an account here: give its password.');
  if (known) await requireSecondFactor(database, { accountId: known.id, secret }, code ?? null, null);
  else {
    if (!name) throw invalidField('name', 'is needed for a new account', 'any.required');
    checkNewPassword(password, 'password', [name, address.split('@')[0]!]);
  }
  const account = known ?? {
    id: randomUUID(),
    email: address,
    name: name!,
    passwordHash: await hashPassword(password),
  };
  const actor = { accountId: account.id, collectionId, name: account.name, role };
  await writing(database, actor, async ({ models, transaction }) => {
    if (!known) await models.accounts.create(account, { transaction }).catch(unlessTaken);
    const member = { collectionId, accountId: account.id };
    if (await models.memberships.findOne({ where: member, transaction }))
      throw new Refusal('conflict', 'This account is in the collection already.');
    const [taken] = await models.invitations.update(
      { takenBy: account.id, takenAt: now() },
      { where: { collectionId, id, takenAt: null, withdrawnAt: null }, transaction },
    );
    if (taken === 0) throw new Refusal('not-found', 'This invitation was taken meanwhile.');
    await models.memberships.create({ ...member, role, grants }, { transaction });
  });
  return { accountId: account.id, collectionId };
}

/** Two invitations taken at once with one address: the second finds that it has an account. */
function unlessTaken(error: unknown): never {
  if (isTaken(error))
    throw new Refusal(
      'conflict',
      'This address has an account since a moment ago: try again with its password.',
    );
  throw error;
}
