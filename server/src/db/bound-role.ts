import { QueryTypes, type Sequelize } from 'sequelize';
import { OperatorError } from '../operator-error.ts';

/**
 * Refuses a database role that the tables' policies do not bind: with one, a query that forgets its condition would answer from
 * other collections, and a statement that should not have been could read files of the machine.
 *
 * @throws OperatorError where the role is a superuser, or bypasses row security
 */
export async function refuseUnboundRole(sequelize: Sequelize): Promise<void> {
  const [role] = await sequelize.query<{ name: string; isUnbound: boolean }>(
    `select rolname as name, rolsuper or rolbypassrls as "isUnbound" from pg_roles where rolname = current_user`,
    { type: QueryTypes.SELECT },
  );
  if (role?.isUnbound)
    throw new OperatorError(
      `The database role "${role.name}" is a superuser, or bypasses row security. Let DATABASE_URL sign in as a role that does neither and owns the database: see docs/operations.md.`,
    );
}
