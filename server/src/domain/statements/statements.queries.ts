import type { Statement, StatementSubject } from '@karyotome/lineage';
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

export const documentOf = ({ document }: Pick<IssuedRow, 'document'>): Statement =>
  JSON.parse(document) as Statement;

/** What a statement that was issued says. */
export const subjectOf = (row: Pick<IssuedRow, 'document'>): StatementSubject =>
  documentOf(row).credentialSubject;

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

/** The picture of an animal whose package can still be asked for: it is published, reserved or sold. */
export function standingOf(
  work: Work,
  params: { readonly pictureId: string },
): Promise<{ animalId: string; file: string }[]> {
  return select<{ animalId: string; file: string }>(
    work,
    `select pic.animal_id as "animalId", pic.file from pictures pic
       join animals a on a.collection_id = pic.collection_id and a.id = pic.animal_id
      where pic.collection_id = :collectionId and pic.id = :pictureId
        and (a.status in ('reserved', 'sold')
          or exists (select from publications p where p.collection_id = a.collection_id and p.animal_id = a.id
                        and p.withdrawn_at is null))`,
    params,
  );
}
