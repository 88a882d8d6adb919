import { QueryTypes, type Transaction } from 'sequelize';
import { rfc3339, rowsOf } from '../../db/statement.ts';
import {
  grantsOf,
  type DeviceView,
  type Grant,
  type InvitationView,
  type MemberView,
  type PasskeyView,
  type Role,
  type TokenScope,
  type TokenView,
} from '@karyotome/contract';
import { now } from '../../clock.ts';
import { select, type Actor, type Database, type Work } from '../../db/work.ts';

export function accountEmail(work: Work, params: { readonly id: string }): Promise<{ email: string }[]> {
  return select<{ email: string }>(work, 'select email from accounts where id = :id', params);
}

/** The passkeys of an account, by name. */
export function passkeyRows(work: Work, params: { readonly accountId: string }): Promise<PasskeyView[]> {
  return select<PasskeyView>(
    work,
    `select id, name, ${rfc3339('created_at')} as "createdAt", ${rfc3339('used_at')} as "usedAt"
       from passkeys where account_id = :accountId order by name, id`,
    params,
  );
}

/** The account of an address in each collection that it may use; none where nobody has the address. */
export function accountByEmail(
  { sequelize }: Database,
  email: string,
): Promise<{ collectionId: string; accountId: string; name: string }[]> {
  return sequelize.query<{ collectionId: string; accountId: string; name: string }>(
    `select m.collection_id as "collectionId", a.id as "accountId", a.name
       from memberships m join accounts a on a.id = m.account_id where a.email = $1`,
    { type: QueryTypes.SELECT, bind: [email] },
  );
}

/** Who is a member of a collection, and in which role. Asked before there is a unit of work. */
export function memberOf(
  { sequelize }: Database,
  { accountId, collectionId }: { readonly accountId: string; readonly collectionId: string },
): Promise<Pick<Actor, 'name' | 'role' | 'grants'>[]> {
  return sequelize.query<Pick<Actor, 'name' | 'role' | 'grants'>>(
    `select a.name, m.role, m.grants from memberships m join accounts a on a.id = m.account_id
      where m.account_id = $1 and m.collection_id = $2`,
    { type: QueryTypes.SELECT, bind: [accountId, collectionId] },
  );
}

/** The collections of an account, by name. Asked outside of a unit of work, which sees its own collection alone. */
export function collectionsOf(
  { sequelize }: Database,
  { accountId }: { readonly accountId: string },
): Promise<{ id: string; name: string }[]> {
  return sequelize.query<{ id: string; name: string }>(
    `select c.id, c.name from memberships m join collections c on c.id = m.collection_id
      where m.account_id = $1 order by c.name, c.id`,
    { type: QueryTypes.SELECT, bind: [accountId] },
  );
}

/** Who may use the collection, owners first. */
export async function memberRows(work: Work): Promise<MemberView[]> {
  const rows = await select<MemberView>(
    work,
    `select a.id, a.name, a.email, m.role, m.grants, m.since from memberships m join accounts a on a.id = m.account_id
      where m.collection_id = :collectionId
      order by m.role = 'owner' desc, m.role = 'keeper' desc, a.name, a.id`,
  );
  return rows.map((row) => ({ ...row, grants: grantsOf(row) }));
}

/** Invitations that may still be taken, the latest first. */
export async function openInvitations(work: Work): Promise<InvitationView[]> {
  const rows = await select<InvitationView>(
    work,
    `select i.id, i.name, i.role, i.grants, a.name as by, i.created_at as "createdAt", i.expires_at as "expiresAt"
       from invitations i join accounts a on a.id = i.author_id
      where i.collection_id = :collectionId and i.taken_at is null and i.withdrawn_at is null and i.expires_at > :now
      order by i.created_at desc, i.id`,
    { now: now() },
  );
  return rows.map((row) => ({ ...row, grants: grantsOf(row) }));
}

export interface InvitationFound {
  readonly id: string;
  readonly collectionId: string;
  readonly collection: string;
  readonly role: Role;
  readonly grants: readonly Grant[] | null;
  readonly by: string;
}

/** An invitation that may still be taken. Asked before there is a unit of work. */
export function invitationById(
  { sequelize }: Database,
  { id }: { readonly id: string },
): Promise<InvitationFound[]> {
  return sequelize.query<InvitationFound>(
    `select i.id, i.collection_id as "collectionId", c.name as collection, i.role, i.grants, a.name as by
       from invitations i join collections c on c.id = i.collection_id join accounts a on a.id = i.author_id
      where i.id = $1 and i.taken_at is null and i.withdrawn_at is null and i.expires_at > $2`,
    { type: QueryTypes.SELECT, bind: [id, now()] },
  );
}

/** A session as it is stored. It ends by itself so many days after its last use. */
export interface StoredSession extends Pick<DeviceView, 'userAgent' | 'signedInAt' | 'usedAt'> {
  readonly sid: string;
}

/**
 * The sessions of an account that have not ended, the last used first.
 *
 * @param params.inCollection - in which they are; all where it is null
 */
export function sessionRows(
  work: Work,
  params: { readonly accountId: string; readonly inCollection: string | null; readonly idleDays: number },
): Promise<StoredSession[]> {
  return select<StoredSession>(
    work,
    `select sid, sess ->> 'userAgent' as "userAgent", sess ->> 'signedInAt' as "signedInAt",
            (expire - make_interval(days => :idleDays))::timestamptz as "usedAt"
       from sessions
      where sess ->> 'accountId' = :accountId and expire > now()
        and (:inCollection::text is null or sess ->> 'collectionId' = :inCollection)
      order by expire desc, sid`,
    params,
  );
}

/** The tokens of an account in this collection that are good, the latest first. */
export function tokenRows(work: Work, params: { readonly accountId: string }): Promise<TokenView[]> {
  return select<TokenView>(
    work,
    `select id, name, scope, created_at as "createdAt", expires_at as "expiresAt", used_at as "usedAt"
       from access_tokens
      where collection_id = :collectionId and account_id = :accountId and revoked_at is null and expires_at > :now
      order by created_at desc, id`,
    { ...params, now: now() },
  );
}

export interface TokenFound {
  readonly id: string;
  readonly collectionId: string;
  readonly accountId: string;
  readonly scope: TokenScope;
  readonly usedAt: Date | null;
}

/** A token that is good. Asked before there is a unit of work. */
export function tokenById({ sequelize }: Database, { id }: { readonly id: string }): Promise<TokenFound[]> {
  return sequelize.query<TokenFound>(
    `select id, collection_id as "collectionId", account_id as "accountId", scope, used_at as "usedAt"
       from access_tokens where id = $1 and revoked_at is null and expires_at > $2`,
    { type: QueryTypes.SELECT, bind: [id, now()] },
  );
}

/** Ends every session of an account. @returns their ids */
export async function endSessionsOf(
  transaction: Transaction,
  params: { readonly accountId: string },
): Promise<string[]> {
  const ended = await rowsOf<{ sid: string }>(
    transaction,
    "delete from sessions where sess ->> 'accountId' = :accountId returning sid",
    params,
  );
  return ended.map(({ sid }) => sid);
}
