import {
  HISTORY_FILTERS,
  HISTORY_SUBJECTS,
  readId,
  type HistoryLine,
  type ListQuery,
  type Page,
} from '@karyotome/contract';
import { clutchName } from '@karyotome/core';
import { cursorText, readCursor } from '../../cursor.ts';
import type { Work } from '../../db/work.ts';
import { invalidField } from '../../refusal.ts';
import {
  changesOf,
  historyCount,
  historyRows,
  namesOf,
  type HistoryAsked,
  type HistoryRow,
} from './history.queries.ts';

const DAY = /^\d{4}-\d\d-\d\d$/;

/** @throws Refusal `invalid` naming the filter that is none */
function askedOf(query: Partial<ListQuery>): HistoryAsked {
  const entries = HISTORY_FILTERS.map((filter) => {
    const value = query[filter];
    const text = value == null || value === '' ? null : String(value);
    if (text !== null && filter.endsWith('Id') && readId(text) === null)
      throw invalidField(filter, 'must be an id');
    if (text !== null && (filter === 'from' || filter === 'to') && !isDay(text))
      throw invalidField(filter, 'must be a day, as 2026-11-30');
    if (text !== null && filter === 'subject' && !HISTORY_SUBJECTS.some((one) => one === text))
      throw invalidField(filter, `must be one of ${HISTORY_SUBJECTS.join(', ')}`);
    return [filter, text] as const;
  });
  return Object.fromEntries(entries) as HistoryAsked;
}

const isDay = (text: string): boolean =>
  DAY.test(text) && new Date(`${text}T00:00:00Z`).toISOString().startsWith(text);

/** A page of the history, the latest first. */
export async function historyPage(work: Work, query: ListQuery): Promise<Page<HistoryLine>> {
  const asked = askedOf(query);
  const before = query.after === null ? null : String(readCursor(query.after, ['string'])[0]);
  if (before !== null && !/^\d{1,18}$/.test(before)) throw invalidField('after', 'is no cursor of this list');
  const rows = await historyRows(work, asked, { before, limit: query.limit + 1 });
  const page = rows.slice(0, query.limit);
  return {
    items: await shown(work, page),
    next: rows.length > query.limit ? cursorText([page.at(-1)!.id]) : null,
    total: await historyCount(work, asked),
  };
}

/** More lines than this are not written into one file: they can be asked for by days. */
export const MOST_EXPORTED = 100_000;

/** All lines that were asked for, as far as a file goes. */
export async function wholeHistory(work: Work, query: Partial<ListQuery>): Promise<HistoryLine[]> {
  return shown(work, await historyRows(work, askedOf(query), { before: null, limit: MOST_EXPORTED }));
}

async function shown(work: Work, rows: readonly HistoryRow[]): Promise<HistoryLine[]> {
  const lines = rows.map((row) => {
    const line = toLine(row);
    return { line, ids: idsIn(line) };
  });
  const names = await namesOf(work, { ids: [...new Set(lines.flatMap(({ ids }) => ids))] });
  return lines.map(({ line, ids }) => ({
    ...line,
    names: Object.fromEntries(ids.flatMap((id) => (names[id] ? [[id, names[id]] as const] : []))),
  }));
}

function toLine(row: HistoryRow): HistoryLine {
  const { id, at, action, subject, by, program, device, animalId, number, clutchId, rackId, rack } = row;
  const clutch =
    clutchId !== null && row.season !== null && row.ordinal !== null
      ? { id: clutchId, name: clutchName(row.season, row.ordinal) }
      : null;
  return {
    id,
    at,
    action,
    subject,
    by,
    program,
    device,
    animal: animalId !== null && number !== null ? { id: animalId, number, isHere: row.isHere } : null,
    clutch,
    rack: rackId !== null && rack !== null ? { id: rackId, name: rack } : null,
    changes: changesOf(row),
    names: {},
  };
}

/** Ids among the values, also within them: a move names its tub. */
function idsIn({ changes }: Pick<HistoryLine, 'changes'>): string[] {
  const found: string[] = [];
  const visit = (value: unknown): void => {
    if (typeof value === 'string') {
      const id = readId(value);
      if (id !== null) found.push(id);
    } else if (typeof value === 'object' && value !== null) Object.values(value).forEach(visit);
  };
  for (const { was, becomes } of changes) [was, becomes].forEach(visit);
  return found;
}
