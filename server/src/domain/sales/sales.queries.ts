import type { PersonView, StatusEventView } from '@karyotome/contract';
import type { OfferSpell, StatusEventKind } from '@karyotome/core';
import { QueryTypes } from 'sequelize';
import { select, type Database, type Work } from '../../db/work.ts';

interface EventRow extends Omit<StatusEventView, 'person'> {
  animalId: string;
  personId: string | null;
  personName: string | null;
}

const EVENTS = `
  select e.id, e.animal_id as "animalId", e.kind, e.on_day as "on", e.note, e.details, e.person_id as "personId",
         p.name as "personName", who.name as author, e.recorded_at as "recordedAt",
         case when e.voided_at is null then null else json_build_object(
           'at', e.voided_at, 'by', voider.name, 'reason', e.void_reason) end as voided
    from status_events e
    left join persons p on p.collection_id = e.collection_id and p.id = e.person_id
    left join accounts who on who.id = e.author_id
    left join accounts voider on voider.id = e.voided_by
   where e.collection_id = :collectionId`;

function toEvent({ personId, personName, ...event }: EventRow): StatusEventView & { animalId: string } {
  return { ...event, person: personId === null ? null : { id: personId, name: personName } };
}

/** Everything that happened to an animal's status, the newest first, voided events included. */
export async function eventsOfAnimal(
  work: Work,
  params: { readonly animalId: string },
): Promise<StatusEventView[]> {
  const rows = await select<EventRow>(
    work,
    `${EVENTS} and e.animal_id = :animalId order by e.recorded_at desc`,
    params,
  );
  return rows.map(toEvent).map(({ animalId: _, ...event }) => event);
}

/** The last event that stands, of each animal that has one. */
export async function lastEvents(work: Work): Promise<Map<string, StatusEventView>> {
  const rows = await select<EventRow>(
    work,
    `select distinct on ("animalId") * from (${EVENTS} and e.voided_at is null) events
      order by "animalId", "recordedAt" desc`,
  );
  return new Map(rows.map(toEvent).map(({ animalId, ...event }) => [animalId, event] as const));
}

/** Animals whose reservation ran out before a day. */
export function lapsedReservations(
  work: Work,
  params: { readonly today: string },
): Promise<{ animalId: string; number: string; until: string }[]> {
  return select(
    work,
    `select a.id as "animalId", a.number, e.details ->> 'until' as until
       from animals a
       join lateral (
         select kind, details from status_events e
          where e.collection_id = a.collection_id and e.animal_id = a.id and e.voided_at is null
          order by recorded_at desc limit 1) e on e.kind = 'reserved'
      where a.collection_id = :collectionId and a.status = 'reserved' and e.details ->> 'until' < :today
      order by a.number`,
    params,
  );
}

/** Animals that are for sale since their reservation ran out, not long ago. */
export function recentLapses(
  work: Work,
  params: { readonly since: string },
): Promise<{ animalId: string; until: string }[]> {
  return select(
    work,
    `select a.id as "animalId", e.details ->> 'until' as until
       from animals a
       join lateral (
         select kind, details, on_day from status_events e
          where e.collection_id = a.collection_id and e.animal_id = a.id and e.voided_at is null
          order by recorded_at desc limit 1) e on e.kind = 'lapsed' and e.on_day >= :since
      where a.collection_id = :collectionId and a.status = 'for-sale' order by a.number`,
    params,
  );
}

/** Collections in which something is reserved until a day. */
export async function collectionsWithReservations({ sequelize }: Database): Promise<string[]> {
  const rows = await sequelize.query<{ collectionId: string }>(
    `select distinct e.collection_id as "collectionId" from status_events e
       join animals a on a.collection_id = e.collection_id and a.id = e.animal_id
      where a.status = 'reserved' and e.kind = 'reserved' and e.voided_at is null and e.details ->> 'until' is not null`,
    { type: QueryTypes.SELECT },
  );
  return rows.map(({ collectionId }) => collectionId);
}

/** Everybody in the address book, with the animals that are reserved for them or were sold to them. */
export function personViews(work: Work, params: { readonly id: string | null }): Promise<PersonView[]> {
  return select<PersonView>(
    work,
    `select p.id, p.name, p.email, p.phone, p.note, p.consent_on as "consentOn", p.erased_at as "erasedAt", p.version,
            coalesce((select json_agg(json_build_object('id', a.id, 'number', a.number, 'kind', e.kind, 'on', e.on_day)
                             order by e.on_day desc)
                from status_events e join animals a on a.collection_id = e.collection_id and a.id = e.animal_id
               where e.collection_id = p.collection_id and e.person_id = p.id and e.voided_at is null), '[]') as animals
       from persons p where p.collection_id = :collectionId and (:id::uuid is null or p.id = :id::uuid)
      order by p.name nulls last, p.created_at`,
    params,
  );
}

/** Every event that names a person, voided ones included. */
export function eventsOfPerson(
  work: Work,
  params: { readonly id: string },
): Promise<{ animal: string; kind: StatusEventKind; on: string; note: string | null; details: object }[]> {
  return select(
    work,
    `select a.number as animal, e.kind, e.on_day as "on", e.note, e.details
       from status_events e join animals a on a.collection_id = e.collection_id and a.id = e.animal_id
      where e.collection_id = :collectionId and e.person_id = :id order by e.on_day`,
    params,
  );
}

export interface HatchedHere {
  readonly animalId: string;
  readonly season: number;
  readonly ordinal: number;
  readonly dam: string;
  readonly sires: string[];
}

/** Animals that hatched here: the name parts of their clutch, and the numbers of its parents. */
export function animalsHatchedHere(work: Work): Promise<HatchedHere[]> {
  return select<HatchedHere>(
    work,
    `select a.id as "animalId", c.season, c.ordinal, d.number as dam,
            coalesce((select json_agg(s.number order by s.number) from pairing_sires ps
               join animals s on s.collection_id = ps.collection_id and s.id = ps.sire_id
              where ps.collection_id = p.collection_id and ps.pairing_id = p.id and not ps.stored), '[]') as sires
       from animals a
       join clutches c on c.collection_id = a.collection_id and c.id = a.clutch_id
       join pairings p on p.collection_id = c.collection_id and p.id = c.pairing_id
       join animals d on d.collection_id = p.collection_id and d.id = p.dam_id
      where a.collection_id = :collectionId`,
  );
}

/** Every time that an animal was offered, until it was sold or taken off. */
export function offerSpells(work: Work): Promise<OfferSpell[]> {
  return select<OfferSpell>(
    work,
    `select a.hatched_on as "hatchedOn", o.on_day as "offeredOn",
            case when after.kind = 'sold' then after.on_day end as "soldOn", after.on_day as "endedOn"
       from status_events o
       join animals a on a.collection_id = o.collection_id and a.id = o.animal_id
       left join lateral (
         select e.kind, e.on_day from status_events e
          where e.collection_id = o.collection_id and e.animal_id = o.animal_id and e.voided_at is null
            and e.recorded_at > o.recorded_at and e.kind not in ('offered', 'reserved', 'lapsed')
          order by e.recorded_at limit 1) after on true
      where o.collection_id = :collectionId and o.kind = 'offered' and o.voided_at is null`,
  );
}
