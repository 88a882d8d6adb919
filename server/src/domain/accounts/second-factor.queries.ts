import type { Database } from '../../db/work.ts';

/** Takes a time step, or a later one, of a code. @returns false where it was taken before: of two at once, one has it */
export async function useStep(
  { sequelize }: Database,
  { accountId, step }: { readonly accountId: string; readonly step: number },
): Promise<boolean> {
  const [rows] = await sequelize.query(
    'update second_factors set last_step = $2 where account_id = $1 and last_step < $2 returning account_id',
    { bind: [accountId, step] },
  );
  return rows.length > 0;
}

/** Takes a recovery code. @param place - among the account's codes @returns false where it was taken before */
export async function useRecoveryCode(
  { sequelize }: Database,
  { accountId, place }: { readonly accountId: string; readonly place: number },
): Promise<boolean> {
  const [rows] = await sequelize.query(
    `update second_factors set used_codes = array_append(used_codes, $2::smallint)
      where account_id = $1 and not $2::smallint = any (used_codes) returning account_id`,
    { bind: [accountId, place] },
  );
  return rows.length > 0;
}
