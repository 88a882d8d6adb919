import type { AnimalRow } from '../../db/rows.ts';
import { type Work } from '../../db/work.ts';
import { invalidField } from '../../refusal.ts';
import { groupBy } from '../../group-by.ts';
import { childAndParentRows } from './animals.queries.ts';

/** Every animal above each of some, itself left out unless it is its own ancestor. */
export async function ancestorsOf(
  work: Work,
  animalIds: readonly string[],
): Promise<Map<string, Set<string>>> {
  if (animalIds.length === 0) return new Map();
  const rows = await childAndParentRows(work);
  const parents = groupBy(rows, ({ child }) => child);
  return new Map(
    animalIds.map((start) => {
      const found = new Set<string>();
      const waiting = [start];
      for (let id = waiting.pop(); id !== undefined; id = waiting.pop())
        for (const { parent } of parents.get(id) ?? [])
          if (!found.has(parent)) {
            found.add(parent);
            waiting.push(parent);
          }
      return [start, found];
    }),
  );
}

/** Which of some animals are, or descend from, one of others: what is stated of them rests on those. */
export async function restingOn<Animal extends { readonly id: string }>(
  work: Work,
  animals: readonly Animal[],
  ids: readonly string[],
): Promise<Animal[]> {
  if (ids.length === 0) return [];
  const below = new Set(ids);
  const above = await ancestorsOf(
    work,
    animals.map(({ id }) => id),
  );
  return animals.filter(
    ({ id }) => below.has(id) || [...above.get(id)!].some((ancestor) => below.has(ancestor)),
  );
}

/**
 * Refuses a parent that descends from its own young.
 *
 * @param young - who would get the parent
 */
export async function refuseCircle(
  work: Work,
  field: string,
  parent: Pick<AnimalRow, 'id' | 'number'>,
  young: readonly string[],
): Promise<void> {
  const above = (await ancestorsOf(work, [parent.id])).get(parent.id)!;
  if (young.some((id) => id === parent.id || above.has(id)))
    throw invalidField(
      field,
      `would make the animal its own ancestor: ${parent.number} descends from it`,
      'own-ancestor',
    );
}
