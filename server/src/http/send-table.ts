import type { Response } from 'express';
import Papa from 'papaparse';

/** Rows as CSV (RFC 4180). What a spreadsheet would take for a formula is written as text. */
export const tableOf = (rows: object[]): string => `${Papa.unparse(rows, { escapeFormulae: true })}\r\n`;

/** Answers a table as a file of this name. */
export function sendTable(response: Response, name: string, table: string): void {
  response.set('Cache-Control', 'no-store').attachment(name).type('csv').send(table);
}
