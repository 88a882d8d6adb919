import { withClutchName } from '../season/clutch-name.ts';
import type { AnimalView } from '@karyotome/contract';
import type { AnimalRow } from '../../db/rows.ts';
import { select, type Work } from '../../db/work.ts';

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
   where a.collection_id = :collectionId
  union all
  select e.animal_id, parent.id::uuid from stated_evidence e
    join taken_statements t on t.collection_id = e.collection_id and t.id = e.taken_id and t.removed_at is null
    cross join lateral (
      select e.body ->> 'dam' as id union all
      select sire ->> 'id' from jsonb_array_elements(e.body -> 'sires') sire) parent
   where e.collection_id = :collectionId`;

/** Every link from an animal to a parent, candidate sires included. */
export function childAndParentRows(work: Work): Promise<{ child: string; parent: string }[]> {
  return select<{ child: string; parent: string }>(
    work,
    `select child, parent from (${PARENTS_SQL}) every where parent is not null`,
  );
}

/** The clutch that an animal hatched in. */
export async function clutchOfAnimal(
  work: Work,
  params: { readonly clutchId: string },
): Promise<NonNullable<AnimalView['clutch']>[]> {
  const rows = await select<
    Omit<NonNullable<AnimalView['clutch']>, 'name'> & { season: number; ordinal: number }
  >(
    work,
    `select c.id, c.season, c.ordinal, c.laid_on as "laidOn",
            c.hatched_on as "hatchedOn",
            (select count(*)::int from animals a where a.collection_id = c.collection_id and a.clutch_id = c.id) as mates
       from clutches c where c.collection_id = :collectionId and c.id = :clutchId`,
    params,
  );
  return rows.map(withClutchName);
}

/** An animal's published page. */
export function openPublication(
  work: Work,
  params: { readonly animalId: string },
): Promise<NonNullable<AnimalView['publication']>[]> {
  return select<NonNullable<AnimalView['publication']>>(
    work,
    `select p.slug, p.published_at as "publishedAt", o.text from publications p
       left join offers o on o.collection_id = p.collection_id and o.animal_id = p.animal_id
      where p.collection_id = :collectionId and p.animal_id = :animalId and p.withdrawn_at is null`,
    params,
  );
}

/** Every number that was ever given to an animal, whether it is still there or not. */
export async function usedNumbers(work: Work): Promise<string[]> {
  const rows = await select<{ number: string }>(
    work,
    'select number from used_numbers where collection_id = :collectionId',
  );
  return rows.map(({ number }) => number);
}

/** What an animal's row says that its summary does not. */
export function ownRow(
  work: Work,
  params: { readonly id: string },
): Promise<Pick<AnimalRow, 'note' | 'damId' | 'sireId' | 'clutchId' | 'status'>[]> {
  return select<Pick<AnimalRow, 'note' | 'damId' | 'sireId' | 'clutchId' | 'status'>>(
    work,
    `select note, dam_id as "damId", sire_id as "sireId", clutch_id as "clutchId", status from animals
      where collection_id = :collectionId and id = :id`,
    params,
  );
}
