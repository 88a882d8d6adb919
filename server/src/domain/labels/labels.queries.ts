import type { PrintedLabelView } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';

export interface LastLabel {
  readonly issue: number;
  readonly kind: PrintedLabelView['kind'];
  readonly content: string;
  readonly printedAt: string;
}

/** The last label that was printed of each animal. */
export function lastPrinted(
  work: Work,
  params: { readonly animalIds: readonly string[] },
): Promise<(LastLabel & { animalId: string })[]> {
  return select<LastLabel & { animalId: string }>(
    work,
    `select distinct on (animal_id) animal_id as "animalId", issue, kind, content, printed_at as "printedAt"
       from printed_labels where collection_id = :collectionId and animal_id in (:animalIds)
      order by animal_id, issue desc`,
    params,
  );
}
