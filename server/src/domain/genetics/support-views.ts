import type { SupportView } from '@karyotome/contract';
import { type Work } from '../../db/work.ts';
import { canonicalOf } from '../catalogue/canonical.ts';
import type { Genetics } from './genetics.service.ts';
import { identificationsByIds } from './genetics.queries.ts';

/** Identifications that something rests on, by id. */
export async function supportViews(
  work: Work,
  genetics: Genetics,
  support: readonly { record: string; animal: string }[],
  byId: ReadonlyMap<string, { number: string }>,
): Promise<Map<string, SupportView>> {
  const ids = support.map(({ record }) => record);
  const rows = ids.length === 0 ? [] : await identificationsByIds(work, { ids });
  const animalOf = new Map(support.map(({ record, animal }) => [record, animal]));
  return new Map(
    rows.map(({ id, on, body: { genes, sure, by } }) => {
      const animalId = animalOf.get(id)!;
      const animalNumber = byId.get(animalId)?.number ?? '';
      const label = canonicalOf(genes, genetics.catalogue);
      return [id, { recordId: id, animalId, animalNumber, on, label, sure, by }];
    }),
  );
}
