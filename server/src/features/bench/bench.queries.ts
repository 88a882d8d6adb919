import { select, type Work } from '../../db/work.ts';
import { livingSql } from '../../domain/animals/living-sql.ts';

/** Pictures of a clutch's cards, the newest first. */
export function cardPictures(work: Work, params: { readonly clutchId: string }): Promise<{ id: string }[]> {
  return select<{ id: string }>(
    work,
    'select id from pictures where collection_id = :collectionId and clutch_id = :clutchId order by created_at desc',
    params,
  );
}

/** Pictures by animal, the newest first. */
export function picturesOfAnimals(work: Work): Promise<{ animalId: string; ids: string[] }[]> {
  return select<{ animalId: string; ids: string[] }>(
    work,
    `select animal_id as "animalId", json_agg(id order by created_at desc) as ids from pictures
      where collection_id = :collectionId and animal_id is not null group by animal_id`,
  );
}

/** Ids of clutch-mates that came from one egg. */
export function twinsOf(
  work: Work,
  params: { readonly mateIds: readonly string[] },
): Promise<{ ids: string[] }[]> {
  return select<{ ids: string[] }>(
    work,
    `select json_agg(id) as ids from animals
      where collection_id = :collectionId and id in (:mateIds) and egg_id is not null
      group by egg_id having count(*) > 1`,
    params,
  );
}

export interface Mate {
  readonly id: string;
  readonly number: string;
  readonly tubId: string | null;
  readonly hatchedOn: string | null;
  readonly shedOn: string | null;
}

/** Living animals of a clutch, with their first whole shed. */
export function livingMates(work: Work, params: { readonly clutchId: string }): Promise<Mate[]> {
  return select<Mate>(
    work,
    `select a.id, a.number, a.tub_id as "tubId", a.hatched_on as "hatchedOn",
            (select min(r.on_day) from records r where r.collection_id = a.collection_id and r.animal_id = a.id
                and r.kind = 'shed' and r.body ->> 'stage' = 'shed' and r.voided_at is null) as "shedOn"
       from animals a where a.collection_id = :collectionId and a.clutch_id = :clutchId
        and ${livingSql('a.status')} order by a.number`,
    params,
  );
}

/** The dam, the candidate sires and the young of a clutch. */
export function parentageRows(
  work: Work,
  params: { readonly clutchId: string },
): Promise<
  {
    damId: string;
    sires: { id: string; weight: number }[];
    mateIds: string[] | null;
  }[]
> {
  return select<{
    damId: string;
    sires: { id: string; weight: number }[];
    mateIds: string[] | null;
  }>(
    work,
    `select p.dam_id as "damId",
            (select json_agg(json_build_object('id', s.sire_id, 'weight', s.weight) order by s.weight desc, s.sire_id)
               from pairing_sires s where s.collection_id = p.collection_id and s.pairing_id = p.id) as sires,
            (select json_agg(a.id order by a.number) from animals a
              where a.collection_id = c.collection_id and a.clutch_id = c.id) as "mateIds"
       from clutches c join pairings p on p.collection_id = c.collection_id and p.id = c.pairing_id
      where c.collection_id = :collectionId and c.id = :clutchId`,
    params,
  );
}

export function clutchMates(work: Work, params: { readonly clutchId: string }): Promise<{ id: string }[]> {
  return select<{ id: string }>(
    work,
    'select id from animals where collection_id = :collectionId and clutch_id = :clutchId',
    params,
  );
}
