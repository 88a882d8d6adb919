import type { SaleLine } from '@karyotome/contract';
import Papa from 'papaparse';

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
  price: event?.details.price ?? null,
  deposit: event?.details.deposit ?? null,
  currency: event?.details.currency ?? offer.currency,
  until: event?.details.until ?? null,
  paidOn: event?.details.paidOn ?? null,
  handedOverOn: event?.details.handedOverOn ?? null,
  how: event?.details.how ?? null,
});

/** Sales as CSV (RFC 4180). What a spreadsheet would take for a formula is written as text. */
export function salesTable(lines: readonly SaleLine[]): string {
  return `${Papa.unparse(lines.map(toRow), { escapeFormulae: true })}\r\n`;
}
