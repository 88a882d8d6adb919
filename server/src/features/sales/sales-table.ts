import type { SaleLine, StatusEventView } from '@karyotome/contract';
import { tableOf } from '../../http/send-table.ts';

/** A line of the table: as it is written in the file, so its names are the columns'. */
const toRow = ({ animal, status, event, season, clutch, pairing, offer }: SaleLine) => ({
  number: animal.number,
  name: animal.name,
  sex: animal.sex,
  genes: animal.label,
  season,
  clutch,
  dam: pairing?.dam ?? null,
  sires: pairing?.sires.join(' ') ?? null,
  status,
  since: event?.on ?? null,
  buyer: event?.person?.name ?? null,
  askingPrice: offer.price,
  ...agreed(event?.details ?? {}, offer.currency),
});

/** What was agreed with a buyer; empty where nothing was. */
const agreed = (details: StatusEventView['details'], currency: string) => ({
  price: details.price ?? null,
  deposit: details.deposit ?? null,
  currency: details.currency ?? currency,
  until: details.until ?? null,
  paidOn: details.paidOn ?? null,
  handedOverOn: details.handedOverOn ?? null,
  how: details.how ?? null,
});

/** Sales as CSV. */
export function salesTable(lines: readonly SaleLine[]): string {
  return tableOf(lines.map(toRow));
}
