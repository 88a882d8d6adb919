import { select, type Work } from '../../db/work.ts';

export interface Known {
  id: string;
  number: string;
  sex: string;
  hatchedOn: string | null;
}

/** What a file's rows may refer to, by number. */
export function animalsByNumber(work: Work): Promise<Known[]> {
  return select<Known>(
    work,
    'select id, number, sex, hatched_on as "hatchedOn" from animals where collection_id = :collectionId order by number',
  );
}
