import Papa from 'papaparse';
import type { TextRow } from './tables.queries.ts';

/**
 * CSV of rows that come in batches, with a head: RFC 4180, UTF-8.
 *
 * @param escapeFormulae - what a spreadsheet would take for a formula is written as text: for people, not for programs
 */
export async function* csvOf(
  columns: readonly string[],
  batches: AsyncIterable<TextRow[]>,
  { escapeFormulae = false } = {},
): AsyncGenerator<Uint8Array> {
  const options = { columns: [...columns], header: false, escapeFormulae };
  yield Buffer.from(`${Papa.unparse([columns])}\r\n`);
  for await (const rows of batches) yield Buffer.from(`${Papa.unparse(rows, options)}\r\n`);
}
