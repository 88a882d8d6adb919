import type { HistoryLine } from '@karyotome/contract';
import { tableOf } from '../../http/send-table.ts';

/** A line for each field that changed, so that a spreadsheet can sort and filter by it. */
const toRows = (line: HistoryLine): object[] => {
  const { id, at, by, program, device, action, subject, animal, clutch, rack, changes } = line;
  const row = {
    id,
    at,
    by,
    program,
    device,
    action,
    subject,
    animal: animal?.number ?? null,
    clutch: clutch?.name ?? null,
    rack: rack?.name ?? null,
  };
  const cell = (value: unknown): unknown =>
    typeof value === 'object' && value !== null ? JSON.stringify(value) : (value ?? null);
  return changes.length === 0
    ? [{ ...row, field: null, was: null, becomes: null }]
    : changes.map(({ field, was, becomes }) => ({ ...row, field, was: cell(was), becomes: cell(becomes) }));
};

/** The history as CSV. */
export const historyTable = (lines: readonly HistoryLine[]): string => tableOf(lines.flatMap(toRows));
