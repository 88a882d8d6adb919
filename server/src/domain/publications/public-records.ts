import type { PublicAnimal, RecordView } from '@karyotome/contract';

/** Records that were not taken out of account, the oldest first. @param records - the newest first */
export const standing = <R extends RecordView>(records: readonly R[]): R[] =>
  records.filter((record) => record.voided === null).toReversed();

/** Of an animal's records what leaves the collection: field by field, without notes, places and names. */
export function publicRecords(
  records: readonly RecordView[],
): Pick<PublicAnimal, 'weights' | 'feedings' | 'sheds'> {
  return {
    weights: records.flatMap((r) => (r.kind === 'weight' ? [{ on: r.on, massG: r.body.massG }] : [])),
    feedings: records.flatMap((r) =>
      r.kind === 'feeding'
        ? [
            {
              on: r.on,
              species: r.body.species,
              size: r.body.size,
              state: r.body.state,
              taken: r.body.taken,
            },
          ]
        : [],
    ),
    sheds: records.flatMap((r) =>
      r.kind === 'shed' && r.body.stage === 'shed' ? [{ on: r.on, complete: r.body.complete ?? null }] : [],
    ),
  };
}
