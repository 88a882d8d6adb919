import { randomUUID } from 'node:crypto';
import type { NewRecord, RecordKind } from '@karyotome/contract';
import type { Actor, Work } from '../../db/work.ts';
import { lockedAnimals } from './records.queries.ts';

/**
 * Kinds that touch nothing but their animal: neither genes and sex, which young depend on, nor tubs, which others take. They
 * are written beside one another, and many at once.
 */
const PLAIN: readonly RecordKind[] = ['weight', 'feeding', 'shed', 'plan', 'care', 'own-way', 'note'];

/** @param kind - as it was sent, not checked yet */
export const isPlain = (kind: unknown): boolean => PLAIN.some((one) => one === kind);

/**
 * Writes plain records of many animals at once, in their order.
 *
 * @returns the ids; null where one cannot be written, and is to be entered alone, which says why
 */
export async function insertPlain(
  work: Work<Actor>,
  entries: readonly { readonly animalId: string; readonly record: NewRecord }[],
): Promise<(string | null)[]> {
  const { collectionId, accountId } = work.actor;
  const animals = new Map(
    (await lockedAnimals(work, [...new Set(entries.map(({ animalId }) => animalId))])).map((row) => [
      row.id,
      row,
    ]),
  );
  const ids = entries.map(({ animalId, record }) => {
    const animal = animals.get(animalId);
    const isBeforeHatching = animal?.hatchedOn != null && record.on < animal.hatchedOn;
    return animal && isPlain(record.kind) && !isBeforeHatching ? randomUUID() : null;
  });
  await work.models.records.bulkCreate(
    entries.flatMap(({ animalId, record }, i) => {
      const id = ids[i];
      const { kind, on: onDay, body, note } = record;
      return id == null
        ? []
        : [
            {
              collectionId,
              id,
              animalId,
              kind,
              onDay,
              body: { ...body },
              note: note || null,
              authorId: accountId,
            },
          ];
    }),
    { transaction: work.transaction },
  );
  return ids;
}
