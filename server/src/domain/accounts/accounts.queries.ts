import { QueryTypes } from 'sequelize';
import { select, type Actor, type Database, type Work } from '../../db/work.ts';

export function accountEmail(work: Work, params: { readonly id: string }): Promise<{ email: string }[]> {
  return select<{ email: string }>(work, 'select email from accounts where id = :id', params);
}

/** Who is a member of a collection, and in which role. Asked before there is a unit of work. */
export function memberOf(
  { sequelize }: Database,
  { accountId, collectionId }: { readonly accountId: string; readonly collectionId: string },
): Promise<Pick<Actor, 'name' | 'role'>[]> {
  return sequelize.query<Pick<Actor, 'name' | 'role'>>(
    `select a.name, m.role from memberships m join accounts a on a.id = m.account_id
      where m.account_id = $1 and m.collection_id = $2`,
    { type: QueryTypes.SELECT, bind: [accountId, collectionId] },
  );
}
