import { withClutchName } from '../season/clutch-name.ts';
import type { DoneClutchView } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';

/** The clutches that have hatched, or were given up: what the look back counts. */
export async function doneClutches(work: Work): Promise<DoneClutchView[]> {
  const rows = await select<Omit<DoneClutchView, 'name' | 'season'> & { season: number; ordinal: number }>(
    work,
    `select c.id as "clutchId", c.season, c.ordinal, dam.number as dam,
            (select string_agg(sire.number, ' or ' order by s.weight desc, sire.number)
               from pairing_sires s join animals sire on sire.collection_id = s.collection_id and sire.id = s.sire_id
              where s.collection_id = p.collection_id and s.pairing_id = p.id and not s.stored) as sire,
            coalesce((select avg(r.celsius) from readings r where r.collection_id = c.collection_id
                        and r.place_id = c.incubator_id and (r.at at time zone :timeZone)::date between c.laid_on and c.hatched_on),
                     c.incubation_c) as celsius,
            c.eggs, coalesce(c.slugs, 0) as slugs,
            -- Twins are one egg: where the eggs were followed, eggs are counted, not young.
            coalesce(nullif((select count(distinct a.egg_id)::int from animals a
                              where a.collection_id = c.collection_id and a.clutch_id = c.id), 0), c.hatched) as hatched
       from clutches c
       join pairings p on p.collection_id = c.collection_id and p.id = c.pairing_id
       join animals dam on dam.collection_id = p.collection_id and dam.id = p.dam_id
      where c.collection_id = :collectionId and c.hatched_on is not null order by c.laid_on`,
    { timeZone: work.timeZone },
  );
  return rows.map((row) => ({ ...withClutchName(row), season: String(row.season) }));
}
