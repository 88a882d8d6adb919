import type { AnimalListInput, AnimalListView } from '@karyotome/contract';
import { randomUUID } from 'node:crypto';
import { changeRow, removeRow } from '../../db/change-rows.ts';
import type { Actor, Work } from '../../db/work.ts';

/** Lists of animals that are kept under a name, by it. */
export async function animalLists(work: Work): Promise<AnimalListView[]> {
  const rows = await work.models.animalLists.findAll({
    where: { collectionId: work.actor.collectionId },
    order: [['name', 'asc']],
    transaction: work.transaction,
  });
  return rows.map((row) => {
    const { id, name, words, version } = row.get();
    return { id, name, words, version };
  });
}

export async function addAnimalList(work: Work<Actor>, input: AnimalListInput): Promise<{ id: string }> {
  const { collectionId, accountId: authorId } = work.actor;
  const id = randomUUID();
  await work.models.animalLists.create(
    { collectionId, id, ...input, authorId, version: 1 },
    { transaction: work.transaction },
  );
  return { id };
}

export const changeAnimalList = (
  work: Work<Actor>,
  id: string,
  input: AnimalListInput,
  version: number,
): Promise<{ id: string; version: number }> =>
  changeRow(work, work.models.animalLists, 'This list', { id, version }, input);

export const removeAnimalList = (work: Work, id: string, version: number): Promise<void> =>
  removeRow(work, work.models.animalLists, 'This list', { id, version });
