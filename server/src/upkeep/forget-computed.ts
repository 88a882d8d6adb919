import { QueryTypes } from 'sequelize';
import type { Database } from '../db/work.ts';
import { textIfThere } from '../files/text-if-there.ts';

/** @returns the fingerprint of the sources that this program was built from; null where it runs from the sources */
export function thisBuild(): string | null {
  return textIfThere(new URL('built-from', import.meta.url));
}

/**
 * Removes the states and claims that another build computed: its rules, its catalogue or its format may have been others.
 * They are computed anew when they are asked for.
 *
 * @returns whether there was another build before
 */
export async function forgetComputedByOthers({ sequelize }: Database, build: string): Promise<boolean> {
  return sequelize.transaction(async (transaction) => {
    const changed = await sequelize.query(
      `insert into computed_by (build) values ($1)
       on conflict (is_only) do update set build = excluded.build where computed_by.build <> excluded.build
       returning build`,
      { transaction, bind: [build], type: QueryTypes.SELECT },
    );
    if (changed.length === 0) return false;
    // States and due tasks go with the day they were computed for.
    await sequelize.query('delete from herd_days', { transaction });
    await sequelize.query('delete from animal_claims', { transaction });
    return true;
  });
}
