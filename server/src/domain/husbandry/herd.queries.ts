import { select, type Work } from '../../db/work.ts';
import { livingSql } from '../animals/living-sql.ts';
import type { HerdAnimal } from './herd.ts';

/** Days on which each female has laid. */
export function layDays(work: Work): Promise<{ damId: string; days: string[] }[]> {
  return select<{ damId: string; days: string[] }>(
    work,
    `select p.dam_id as "damId", json_agg(c.laid_on order by c.laid_on) as days from clutches c
       join pairings p on p.collection_id = c.collection_id and p.id = c.pairing_id
      where c.collection_id = :collectionId group by p.dam_id`,
  );
}

export type AnimalRow = Omit<HerdAnimal, 'records' | 'history' | 'gravid' | 'laidOn'> & { revision: string };

/** Who lives here. @param also - an animal that is read too although it is sold or dead */
export function livingAnimals(work: Work, also?: string): Promise<AnimalRow[]> {
  return select<AnimalRow>(
    work,
    `select id, number, sex, hatched_on as "hatchedOn", clutch_id as "clutchId", tub_id as "tubId", status,
            records_revision as revision
       from animals
      where collection_id = :collectionId and (${livingSql()} or id = cast(:also as uuid))`,
    { also: also ?? null },
  );
}
