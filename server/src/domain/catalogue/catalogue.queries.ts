import type { CatalogueEntryInput } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';

export interface Entry {
  readonly id: string;
  readonly version: number;
  readonly author: string;
  readonly entry: CatalogueEntryInput;
}

/** The collection's own genes and markers, the oldest first. */
export function entryRows(work: Work): Promise<Entry[]> {
  return select<Entry>(
    work,
    `select e.id, e.version, e.body as entry, a.name as author
       from catalogue_entries e join accounts a on a.id = e.author_id
      where e.collection_id = :collectionId order by e.created_at, e.id`,
  );
}

/** Every label that was recorded, by animal. */
export function recordedGenes(work: Work): Promise<{ number: string; genes: string }[]> {
  return select<{ number: string; genes: string }>(
    work,
    `select distinct a.number, r.body ->> 'genes' as genes from records r
       join animals a on a.collection_id = r.collection_id and a.id = r.animal_id
      where r.collection_id = :collectionId and r.kind = 'identification' and r.voided_at is null`,
  );
}

/** The version of the built-in catalogue that the collection reads by. */
export function versionRow(work: Work): Promise<{ version: string }[]> {
  return select<{ version: string }>(
    work,
    'select catalogue_version as version from collections where id = :collectionId',
  );
}
