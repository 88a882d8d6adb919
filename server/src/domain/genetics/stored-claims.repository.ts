import { QueryTypes } from 'sequelize';
import { select, type Database, type Work } from '../../db/work.ts';
import type { SupportedClaim } from './claim-views.ts';
import { livingSql } from '../animals/living-sql.ts';

/** An animal's claims, where they were found at this very revision. */
export function claimsAt(
  work: Work,
  params: { readonly id: string; readonly revision: string },
): Promise<{ claims: SupportedClaim[] }[]> {
  return select<{ claims: SupportedClaim[] }>(
    work,
    `select claims from animal_claims
      where collection_id = :collectionId and animal_id = :id and revision = :revision`,
    params,
  );
}

/** Stores what was found; what was found at a later revision stays. */
export async function saveClaims(
  { sequelize }: Database,
  collectionId: string,
  animalId: string,
  revision: string,
  claims: readonly SupportedClaim[],
): Promise<void> {
  await sequelize.query(
    `insert into animal_claims (collection_id, animal_id, revision, claims)
     select a.collection_id, a.id, $3, $4 from animals a where a.collection_id = $1 and a.id = $2
     on conflict (collection_id, animal_id) do update set revision = excluded.revision, claims = excluded.claims
      where animal_claims.revision < excluded.revision`,
    { bind: [collectionId, animalId, revision, JSON.stringify(claims)] },
  );
}

/** Animals that are kept here and have no claims of a revision. */
export async function withoutClaims(
  { sequelize }: Database,
  collectionId: string,
  revision: string,
  limit: number,
): Promise<string[]> {
  const rows = await sequelize.query<{ id: string }>(
    `select a.id from animals a
       left join animal_claims c on c.collection_id = a.collection_id and c.animal_id = a.id and c.revision >= $2
      where a.collection_id = $1 and ${livingSql('a.status')} and c.animal_id is null order by a.number limit $3`,
    { type: QueryTypes.SELECT, bind: [collectionId, revision, limit] },
  );
  return rows.map(({ id }) => id);
}
