import type { LetterView } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';

/** Letters to people, the latest first. */
export function letterViews(work: Work): Promise<LetterView[]> {
  return select<LetterView>(
    work,
    `select l.id, l.kind, l.to_address as "to", l.subject, l.paragraphs, l.state, l.state_at as "stateAt", l.attempts,
            l.error,
            case when p.id is null then null else json_build_object('id', p.id, 'name', p.name) end as person,
            case when a.id is null then null else json_build_object('id', a.id, 'number', a.number) end as animal
       from letters l
       left join persons p on p.collection_id = l.collection_id and p.id = l.person_id
       left join animals a on a.collection_id = l.collection_id and a.id = l.animal_id
      where l.collection_id = :collectionId order by l.created_at desc`,
  );
}

/** Addresses of those who own a collection. */
export function ownerAddresses(work: Work): Promise<{ email: string }[]> {
  return select<{ email: string }>(
    work,
    `select c.email from memberships m join accounts c on c.id = m.account_id
      where m.collection_id = :collectionId and m.role = 'owner' order by c.email`,
  );
}

export interface Told {
  readonly id: string;
  readonly name: string;
  readonly email: string | null;
  readonly hasAgreed: boolean;
}

/** Those to whom an animal was sold, or for whom it is reserved, or to whom it was offered from the waiting list. */
export function holdersOf(work: Work, params: { readonly animalId: string }): Promise<Told[]> {
  return select<Told>(
    work,
    `select distinct p.id, p.name, p.email, p.consent_on is not null as "hasAgreed" from persons p
      where p.collection_id = :collectionId and p.erased_at is null and exists (
        select 1 from status_events e where e.collection_id = p.collection_id and e.person_id = p.id
           and e.animal_id = :animalId and e.voided_at is null
        union all
        select 1 from wish_offers o join wishes w on w.collection_id = o.collection_id and w.id = o.wish_id
         where w.collection_id = p.collection_id and w.person_id = p.id and o.animal_id = :animalId
           and o.answer is distinct from 'declined')
      order by p.name`,
    params,
  );
}

/** Where somebody is written to, and whether they agreed. */
export function holderAddress(work: Work, params: { readonly personId: string }): Promise<Told[]> {
  return select<Told>(
    work,
    `select id, name, email, consent_on is not null as "hasAgreed" from persons
      where collection_id = :collectionId and id = :personId and erased_at is null`,
    params,
  );
}
