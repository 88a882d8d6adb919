import type { Meal } from '@karyotome/core';
import { select, type Work } from '../../db/work.ts';

/** When an animal eats and is weighed next. */
export interface Outlook {
  readonly number: string;
  readonly meal: Meal | null;
  readonly nextWeighingOn: string | null;
}

/** The same of all animals that are kept here, as their stored states have it; nothing of those without one yet. */
export function storedOutlooks(work: Work): Promise<(Outlook & { readonly id: string })[]> {
  return select<Outlook & { id: string }>(
    work,
    `select a.id, a.number, s.facts -> 'meal' as meal, s.facts ->> 'nextWeighingOn' as "nextWeighingOn"
       from animal_states s join animals a on a.collection_id = s.collection_id and a.id = s.animal_id
      where s.collection_id = :collectionId and s.day = :today order by a.number`,
    { today: work.today },
  );
}
