import type { BreederView, TakenView } from '@karyotome/contract';
import type { StatedBody } from '../../db/sale-rows.ts';
import { select, type Work } from '../../db/work.ts';

/** Statements of other breeders, the latest taken first, those that count no more included. */
export function takenViews(work: Work): Promise<TakenView[]> {
  return select<TakenView>(
    work,
    `select t.id, json_build_object('id', a.id, 'number', a.number) as animal, t.breeder_id as "breederId",
            b.name as breeder, t.statement, t.as_of as "asOf", t.taken_at as "takenAt", t.removed_at as "removedAt"
       from taken_statements t
       join animals a on a.collection_id = t.collection_id and a.id = t.animal_id
       join breeders b on b.collection_id = t.collection_id and b.id = t.breeder_id
      where t.collection_id = :collectionId order by t.taken_at desc`,
  );
}

export function breederViews(work: Work): Promise<BreederView[]> {
  return select<BreederView>(
    work,
    `select b.id, b.did, b.name, b.trust, b.version,
            (select count(*)::int from taken_statements t
              where t.collection_id = b.collection_id and t.breeder_id = b.id and t.removed_at is null) as statements
       from breeders b where b.collection_id = :collectionId order by b.name`,
  );
}

/** The statement of an animal that counts, where one was taken in. */
export function countingStatement(
  work: Work,
  params: { readonly animalId: string },
): Promise<{ id: string; statement: number; asOf: string; document: string; did: string }[]> {
  return select(
    work,
    `select t.id, t.statement, t.as_of as "asOf", t.document, b.did from taken_statements t
       join breeders b on b.collection_id = t.collection_id and b.id = t.breeder_id
      where t.collection_id = :collectionId and t.animal_id = :animalId and t.removed_at is null
      order by t.statement desc limit 1`,
    params,
  );
}

export interface KnownAnimal {
  readonly id: string;
  readonly number: string;
  readonly sex: 'female' | 'male' | 'unknown';
  readonly hatchedOn: string | null;
  readonly status: string;
  /** It was never of this collection, or came in with a statement. */
  readonly isTaken: boolean;
}

/** Those of some ids that the collection holds. */
export function knownAnimals(
  work: Work,
  params: { readonly ids: readonly string[] },
): Promise<KnownAnimal[]> {
  if (params.ids.length === 0) return Promise.resolve([]);
  return select<KnownAnimal>(
    work,
    `select a.id, a.number, a.sex, a.hatched_on as "hatchedOn", a.status,
            exists (select 1 from stated_evidence e where e.collection_id = a.collection_id and e.animal_id = a.id)
              as "isTaken"
       from animals a where a.collection_id = :collectionId and a.id in (:ids)`,
    params,
  );
}

/** Evidence by its record's id, with whose it is. */
export function statedByIds(
  work: Work,
  params: { readonly ids: readonly string[] },
): Promise<{ id: string; animalId: string; on: string; body: StatedBody; by: string }[]> {
  if (params.ids.length === 0) return Promise.resolve([]);
  return select(
    work,
    `select e.id, e.animal_id as "animalId", t.as_of as "on", e.body, b.name as by
       from stated_evidence e
       join taken_statements t on t.collection_id = e.collection_id and t.id = e.taken_id
       join breeders b on b.collection_id = t.collection_id and b.id = t.breeder_id
      where e.collection_id = :collectionId and e.id in (:ids)`,
    params,
  );
}
