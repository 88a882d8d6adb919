import type { ClutchHit, PersonHit } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';

export type ClutchRow = Omit<ClutchHit, 'name'> & { season: number; ordinal: number };

/** All clutches, the youngest first: what they are called is not in the database. */
export function clutchRows(work: Work): Promise<ClutchRow[]> {
  return select<ClutchRow>(
    work,
    `select c.id, c.season, c.ordinal, c.laid_on as "laidOn", c.hatched_on as "hatchedOn", d.number as dam
       from clutches c
       join pairings p on p.collection_id = c.collection_id and p.id = c.pairing_id
       join animals d on d.collection_id = p.collection_id and d.id = p.dam_id
      where c.collection_id = :collectionId order by c.laid_on desc, c.id`,
  );
}

/** People of the address book in whose name each word stands, by name. */
export function personHits(
  work: Work,
  params: { readonly words: readonly string[]; readonly limit: number },
): Promise<PersonHit[]> {
  return select<PersonHit>(
    work,
    `select p.id, p.name from persons p
      where p.collection_id = :collectionId and p.erased_at is null
        and not exists (select from unnest(:words::text[]) word where strpos(lower(p.name), lower(word)) = 0)
      order by p.name, p.id limit :limit`,
    params,
  );
}
