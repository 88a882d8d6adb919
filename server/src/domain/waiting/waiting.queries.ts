import type { WishView } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';

export interface OpenWish extends Omit<WishView, 'fits' | 'pairing'> {
  readonly pairingId: string | null;
}

/** Who waits, in the order of joining. */
export function openWishes(work: Work): Promise<OpenWish[]> {
  return select<OpenWish>(
    work,
    `select w.id, w.must, w.must_not as "mustNot", w.sex, w.price_limit as "priceLimit", w.currency, w.note, w.version,
            w.joined_on as "joinedOn", w.pairing_id as "pairingId",
            json_build_object('id', p.id, 'name', p.name, 'hasAgreed', p.consent_on is not null) as person,
            coalesce((select json_agg(json_build_object('id', o.id, 'animalId', o.animal_id, 'number', a.number,
                        'until', o.answer_until, 'answer', o.answer) order by o.created_at desc)
               from wish_offers o join animals a on a.collection_id = o.collection_id and a.id = o.animal_id
              where o.collection_id = w.collection_id and o.wish_id = w.id), '[]') as offers
       from wishes w join persons p on p.collection_id = w.collection_id and p.id = w.person_id
      where w.collection_id = :collectionId and w.closed_on is null and p.erased_at is null
      order by w.joined_on, w.created_at`,
  );
}

export interface AvailableAnimal {
  readonly id: string;
  readonly number: string;
  readonly sex: 'female' | 'male' | 'unknown';
  readonly clutchId: string | null;
  readonly pairingId: string | null;
  readonly price: number | null;
  readonly currency: string | null;
}

/** Animals that somebody could have: young that are not decided upon, and what is for sale. */
export function availableAnimals(work: Work): Promise<AvailableAnimal[]> {
  return select<AvailableAnimal>(
    work,
    `select a.id, a.number, a.sex, a.clutch_id as "clutchId", c.pairing_id as "pairingId", o.price, o.currency
       from animals a
       left join clutches c on c.collection_id = a.collection_id and c.id = a.clutch_id
       left join offers o on o.collection_id = a.collection_id and o.animal_id = a.id
      where a.collection_id = :collectionId
        and (a.status = 'for-sale' or (a.status = 'undecided' and a.clutch_id is not null))
      order by a.number`,
  );
}

export interface OpenOffer {
  readonly id: string;
  readonly wishId: string;
  readonly animalId: string;
  readonly until: string;
}

/** Offers without an answer whose last day is over. */
export function overdueOffers(work: Work): Promise<OpenOffer[]> {
  return select<OpenOffer>(
    work,
    `select id, wish_id as "wishId", animal_id as "animalId", answer_until as until from wish_offers
      where collection_id = :collectionId and answer is null and answer_until < :today order by created_at`,
    { today: work.today },
  );
}

/** Young that are still in the egg, or not laid yet, by pairing. */
export function comingYoung(work: Work): Promise<
  {
    id: string;
    season: number;
    dam: string;
    sires: string[];
    damId: string;
    sireIds: { id: string; weight: number }[];
    eggs: number | null;
  }[]
> {
  return select(
    work,
    `select p.id, p.season, d.number as dam, p.dam_id as "damId",
            coalesce((select json_agg(s.number order by s.number) from pairing_sires ps
               join animals s on s.collection_id = ps.collection_id and s.id = ps.sire_id
              where ps.collection_id = p.collection_id and ps.pairing_id = p.id and not ps.stored), '[]') as sires,
            coalesce((select json_agg(json_build_object('id', ps.sire_id, 'weight', ps.weight)) from pairing_sires ps
              where ps.collection_id = p.collection_id and ps.pairing_id = p.id), '[]') as "sireIds",
            (select sum(c.eggs - coalesce(c.slugs, 0))::int from clutches c
              where c.collection_id = p.collection_id and c.pairing_id = p.id and c.hatched_on is null) as eggs
       from pairings p join animals d on d.collection_id = p.collection_id and d.id = p.dam_id
      where p.collection_id = :collectionId and p.started_on > cast(:today as date) - 365
        and not exists (select 1 from clutches c
          where c.collection_id = p.collection_id and c.pairing_id = p.id and c.hatched_on is not null)
      order by p.season desc, d.number`,
    { today: work.today },
  );
}
