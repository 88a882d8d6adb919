import type { ShownClaims } from './shown-claims.ts';
import { select, type Work } from '../../db/work.ts';

export interface IssuedRow {
  readonly id: string;
  readonly animalId: string;
  readonly statement: number;
  readonly asOf: string;
  readonly issuedAt: string;
  readonly document: string;
  /** Null of one that was signed before pages were kept with statements. */
  readonly shown: ShownClaims | null;
}

const ISSUED = `
  select id, animal_id as "animalId", statement, as_of as "asOf", issued_at as "issuedAt", document, shown from statements
   where collection_id = :collectionId`;

/** All statements of an animal, the newest first. */
export function statementsOf(work: Work, params: { readonly animalId: string }): Promise<IssuedRow[]> {
  return select<IssuedRow>(work, `${ISSUED} and animal_id = :animalId order by statement desc`, params);
}

/** The newest statement of each animal. */
export function newestStatements(work: Work): Promise<IssuedRow[]> {
  return select<IssuedRow>(
    work,
    `select distinct on ("animalId") * from (${ISSUED}) issued order by "animalId", statement desc`,
  );
}

/** A statement of a published animal, by its number. */
export function publishedStatement(
  work: Work,
  params: { readonly animalId: string; readonly statement: number },
): Promise<IssuedRow[]> {
  return select<IssuedRow>(work, `${ISSUED} and animal_id = :animalId and statement = :statement`, params);
}
