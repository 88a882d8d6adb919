import type { Status } from '@karyotome/contract';
import { saleLacks } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { groupBy } from '../../group-by.ts';
import { toHistory } from '../../domain/records/history.ts';
import { saleRulesOf } from '../../domain/sales/sale-rules.ts';
import { recordsOfAnimals } from '../../domain/records/records.queries.ts';
import { offeredAnimals, type OfferedRow } from './pages.queries.ts';

/** An animal as the front page and the feed list it. */
export interface OfferedAnimal extends Omit<
  OfferedRow,
  'id' | 'currency' | 'label' | 'publishedAt' | 'issuedAt'
> {
  readonly currency: string;
  readonly label: string;
  /** By the collection's rule. */
  readonly isReady: boolean;
  /** RFC 3339. */
  readonly publishedAt: string;
  readonly changedAt: string;
}

/** Gone for other reasons than a sale: of no interest to visitors. */
const NOT_LISTED: readonly Status[] = ['died', 'mistaken'];

export async function listOffered(work: Work): Promise<OfferedAnimal[]> {
  const { rules } = await saleRulesOf(work);
  const rows = (await offeredAnimals(work)).filter(({ status }) => !NOT_LISTED.includes(status));
  const records = groupBy(
    await recordsOfAnimals(
      work,
      rows.map(({ id }) => id),
    ),
    ({ animalId }) => animalId,
  );
  return rows.map(({ id, publishedAt, issuedAt, currency, label, ...row }) => ({
    ...row,
    currency: currency ?? rules.currency,
    label: label ?? '',
    isReady: saleLacks(toHistory(row.hatchedOn, records.get(id) ?? []), rules).length === 0,
    publishedAt: publishedAt.toISOString(),
    changedAt: issuedAt.toISOString(),
  }));
}
