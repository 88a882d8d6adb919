import { personWords } from '@karyotome/words';
import type { SaleLine } from '@karyotome/contract';
import { dayWords, moneyWords } from '../../format/format.ts';

/** What stands beside the status: for whom, until when, what it went for. */
export function saleDetail({ event, offer }: SaleLine): string {
  if (!event) return '';
  const { price, until } = event.details;
  return [
    event.person ? personWords(event.person.name) : null,
    until == null ? null : `until ${dayWords(until)}`,
    price == null ? null : moneyWords(price, event.details.currency ?? offer.currency),
  ]
    .filter((part) => part !== null)
    .join(', ');
}
