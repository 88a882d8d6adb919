import type { Status } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';

export interface Named {
  readonly id: string;
  readonly number: string;
  readonly name: string | null;
  readonly sex: 'female' | 'male' | 'unknown';
  readonly status: Status;
}

/** All animals of the collection, by their numbers. */
export function namedAnimals(work: Work): Promise<Named[]> {
  return select<Named>(
    work,
    'select id, number, name, sex, status from animals where collection_id = :collectionId order by number',
  );
}
