import type { AnimalRow } from '../../db/rows.ts';
import { select, type Work } from '../../db/work.ts';
import { invalidField } from '../../refusal.ts';
import { groupBy } from '../../group-by.ts';

/*
 * Who descends from whom, as it is recorded, read from the rows themselves: what is checked before a parent is written must
 * not wait for inference. Within a write nobody else changes a parent meanwhile.
 */

/** Each animal with its recorded parents and candidate sires. */
const PARENTS_SQL = `
  select a.id as child, coalesce(p.dam_id, a.dam_id) as parent from animals a
    left join clutches c on c.collection_id = a.collection_id and c.id = a.clutch_id
    left join pairings p on p.collection_id = c.collection_id and p.id = c.pairing_id
   where a.collection_id = :collectionId
  union all
  select a.id, a.sire_id from animals a where a.collection_id = :collectionId
  union all
  select a.id, s.sire_id from animals a
    join clutches c on c.collection_id = a.collection_id and c.id = a.clutch_id
    join pairing_sires s on s.collection_id = c.collection_id and s.pairing_id = c.pairing_id
   where a.collection_id = :collectionId`;

/** Every animal above each of some, itself left out unless it is its own ancestor. */
export async function ancestorsOf(
  work: Work,
  animalIds: readonly string[],
): Promise<Map<string, Set<string>>> {
  if (animalIds.length === 0) return new Map();
  const rows = await select<{ child: string; parent: string }>(
    work,
    `select child, parent from (${PARENTS_SQL}) every where parent is not null`,
  );
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
