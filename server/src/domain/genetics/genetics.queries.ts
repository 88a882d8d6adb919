import type { RecordBodies, Sex, Status, Trust } from '@karyotome/contract';
import type { Completeness, RecordedAnimal, Sureness } from '@karyotome/core';
import type { StatedBody } from '../../db/sale-rows.ts';
import { select, type Work } from '../../db/work.ts';

export interface IdentificationRow {
  readonly id: string;
  readonly on: string;
  readonly body: RecordBodies['identification'];
}

export function identificationsByIds(
  work: Work,
  params: { readonly ids: string[] },
): Promise<IdentificationRow[]> {
  return select<IdentificationRow>(
    work,
    `select r.id, r.on_day as "on", r.body from records r
            where r.collection_id = :collectionId and r.id in (:ids)`,
    params,
  );
}

export interface CallRow {
  readonly id: string;
  readonly animalId: string;
  readonly on: string;
  readonly body: RecordBodies['identification'];
}

/** All standing identifications, each animal's in order. */
export function identificationsInOrder(work: Work): Promise<CallRow[]> {
  return select<CallRow>(
    work,
    `select id, animal_id as "animalId", on_day as "on", body from records
      where collection_id = :collectionId and kind = 'identification' and voided_at is null
      order by animal_id, on_day, recorded_at`,
  );
}

export interface Named {
  readonly id: string;
  readonly number: string;
  readonly name: string | null;
  readonly sex: Sex;
  readonly status: Status;
  readonly clutchId: string | null;
}

/** Everybody in the pedigree, by number. @param ids - these alone */
export function namedAnimals(work: Work, ids: readonly string[] | null = null): Promise<Named[]> {
  if (ids?.length === 0) return Promise.resolve([]);
  return select<Named>(
    work,
    `select id, number, name, sex, status, clutch_id as "clutchId" from animals
      where collection_id = :collectionId ${ids === null ? '' : 'and id in (:ids)'} order by number`,
    { ids },
  );
}

export interface PedigreeRow {
  id: string;
  sex: RecordedAnimal['sex'];
  dam_id: string | null;
  sires: { id: string; weight: number }[] | null;
  record_id: string | null;
  genes: string | null;
  sure: Sureness | null;
  completeness: Completeness | null;
  died_in_egg: boolean;
  stated_id: string | null;
  stated: StatedBody | null;
  trust: Trust | null;
}

/**
 * What counts of other breeders' statements for one animal: one of them, that with the animal's parents before one without,
 * then the latest. Two statements hold the same records again and again: counted twice, one eye would weigh as two.
 */
export const COUNTING_EVIDENCE = `
  select e.id, e.body, b.trust from stated_evidence e
    join taken_statements t on t.collection_id = e.collection_id and t.id = e.taken_id and t.removed_at is null
    join breeders b on b.collection_id = t.collection_id and b.id = t.breeder_id and b.trust <> 'ignored'
   where e.collection_id = a.collection_id and e.animal_id = a.id
   order by (e.body ? 'dam' or jsonb_array_length(e.body -> 'sires') > 0) desc, t.as_of desc, t.taken_at desc limit 1`;

/**
 * Parents come from the clutch's pairing, or from the animal itself where it was entered with them, or else from another
 * breeder's statement.
 */
const PEDIGREE_SQL = `
  select a.id, a.sex,
         coalesce(p.dam_id, a.dam_id, (e.body ->> 'dam')::uuid) as dam_id,
         coalesce(
           (select json_agg(json_build_object('id', s.sire_id, 'weight', s.weight) order by s.sire_id)
              from pairing_sires s where s.collection_id = a.collection_id and s.pairing_id = p.id),
           case when a.sire_id is null then null else json_build_array(json_build_object('id', a.sire_id, 'weight', 1)) end,
           case when p.id is null and a.dam_id is null then (e.body -> 'sires')::json end
         ) as sires,
         i.id as record_id, i.body ->> 'genes' as genes, i.body ->> 'sure' as sure,
         (select r.body ->> 'completeness' from records r
           where r.collection_id = a.collection_id and r.animal_id = a.id and r.kind = 'identification'
             and r.voided_at is null and r.body ->> 'completeness' is not null
           order by r.on_day desc, r.recorded_at desc limit 1) as completeness,
         a.status = 'died' and a.clutch_id is not null and a.hatched_on is null as died_in_egg,
         e.id as stated_id, e.body as stated, e.trust
    from animals a
    left join clutches c on c.collection_id = a.collection_id and c.id = a.clutch_id
    left join pairings p on p.collection_id = c.collection_id and p.id = c.pairing_id
    left join lateral (
      select r.id, r.body from records r
       where r.collection_id = a.collection_id and r.animal_id = a.id and r.kind = 'identification' and r.voided_at is null
       order by r.on_day desc, r.recorded_at desc limit 1) i on true
    left join lateral (${COUNTING_EVIDENCE}) e on true
   where a.collection_id = :collectionId
   order by a.created_at, a.id`;

/** Counts what was recorded of genes, sexes and parents. */
export function geneticsRevision(work: Work): Promise<{ revision: string }[]> {
  return select<{ revision: string }>(
    work,
    'select genetics_revision as revision from collections where id = :collectionId',
  );
}

/** Every animal with its parents and what was identified. */
export function pedigreeRows(work: Work): Promise<PedigreeRow[]> {
  return select<PedigreeRow>(work, PEDIGREE_SQL);
}
