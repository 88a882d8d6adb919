import { CALL_ERROR, type RecordedAnimal, type StatedEvidence } from '@karyotome/core';
import type { StatedBody } from '../../db/sale-rows.ts';
import type { PedigreeRow } from './genetics.queries.ts';

/** A row of the pedigree as core reads it. */
export function toRecorded(row: PedigreeRow): RecordedAnimal {
  return {
    id: row.id,
    sex: row.sex,
    ...(row.dam_id ? { dam: row.dam_id } : {}),
    sires: row.sires ?? [],
    ...(row.record_id && row.genes && row.sure
      ? {
          identification: {
            record: row.record_id,
            genes: row.genes,
            sure: row.sure,
            ...(row.completeness ? { completeness: row.completeness } : {}),
          },
        }
      : {}),
    ...(row.died_in_egg ? { diedInEgg: true } : {}),
    ...(row.stated_id && row.stated && row.trust && row.trust !== 'ignored'
      ? { stated: statedOf(row.stated_id, row.stated, CALL_ERROR[row.trust]) }
      : {}),
  };
}

const statedOf = (record: string, { founder, calls }: StatedBody, error: number): StatedEvidence => ({
  record,
  error,
  calls,
  ...(founder ? { founder } : {}),
});
