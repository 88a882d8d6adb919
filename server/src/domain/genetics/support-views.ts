import type { SupportView } from '@karyotome/contract';
import type { StatedBody } from '../../db/sale-rows.ts';
import { type Work } from '../../db/work.ts';
import { statedByIds } from '../taking-in/taken.queries.ts';
import { canonicalOf } from '../catalogue/canonical.ts';
import type { Genetics } from './genetics.service.ts';
import { identificationsByIds } from './genetics.queries.ts';

/** What a breeder says of an animal, in their words. */
const statedWords = ({ evidence }: StatedBody): string =>
  [...new Set(evidence.map(({ words }) => words))].join(', ') || 'as stated';

/** Identifications, and what other breeders state, that something rests on, by id. */
export async function supportViews(
  work: Work,
  genetics: Genetics,
  support: readonly { record: string; animal: string }[],
  byId: ReadonlyMap<string, { number: string }>,
): Promise<Map<string, SupportView>> {
  const ids = support.map(({ record }) => record);
  const rows = ids.length === 0 ? [] : await identificationsByIds(work, { ids });
  const animalOf = new Map(support.map(({ record, animal }) => [record, animal]));
  const viewOf = (
    id: string,
    view: Pick<SupportView, 'on' | 'label' | 'sure' | 'by' | 'eye'>,
  ): [string, SupportView] => {
    const animalId = animalOf.get(id)!;
    return [id, { recordId: id, animalId, animalNumber: byId.get(animalId)?.number ?? '', ...view }];
  };
  const own = rows.map(({ id, on, body: { genes, sure, by } }) =>
    viewOf(id, { on, label: canonicalOf(genes, genetics.catalogue), sure, by, eye: 'own' }),
  );
  const ofOthers = (await statedByIds(work, { ids })).map(({ id, on, body, by }) =>
    viewOf(id, { on, label: statedWords(body), sure: 'certain', by, eye: 'other-breeder' }),
  );
  return new Map([...own, ...ofOthers]);
}
