import {
  importFields,
  isStorable,
  MOST_IMPORT_COLUMNS,
  MOST_IMPORT_ROWS,
  type CellType,
  type ImportPlan,
} from '@karyotome/contract';
import chardet from 'chardet';
import Papa from 'papaparse';
import { invalidField } from '../../refusal.ts';

/** A file as it stands: headings and cells as text. */
export interface Table {
  readonly encoding: string;
  /** What stands between cells. */
  readonly separator: string;
  readonly titles: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/** Longer than any field takes: what is longer is refused by its name, and nothing reads it. */
export const MOST_CELL = 2_000;
const MOST_TITLE = 80;
/** Guessed from so much of the file: enough for a language to show. */
const GUESSED_BYTES = 64 * 1024;

/**
 * Reads a file of whatever encoding and separator; both are found by what it holds.
 *
 * @throws Refusal at the field `file`
 */
export function readTable(bytes: Uint8Array): Table {
  const { encoding, text } = decode(bytes);
  if (!isStorable(text)) throw invalidField('file', 'holds characters that cannot be stored', 'text.control');
  // One row more than is taken, and the headings: enough to see that there are too many.
  const { data, errors, meta } = Papa.parse<string[]>(text, {
    skipEmptyLines: 'greedy',
    preview: MOST_IMPORT_ROWS + 2,
    delimitersToGuess: [',', ';', '\t', '|'],
  });
  const broken = errors.find(({ type }) => type === 'Quotes');
  if (broken)
    throw invalidField(
      'file',
      `has a quote that is never closed, from row ${(broken.row ?? 0) + 1}`,
      'quotes',
    );
  const [header, ...rows] = data;
  if (!header || rows.length === 0) throw invalidField('file', 'holds no rows under its header', 'empty');
  if (rows.length > MOST_IMPORT_ROWS)
    throw invalidField('file', `holds more than ${MOST_IMPORT_ROWS} rows: split it`, 'too-many');
  if (header.length > MOST_IMPORT_COLUMNS)
    throw invalidField(
      'file',
      `has ${header.length} columns: at most ${MOST_IMPORT_COLUMNS}`,
      'too-many-columns',
    );
  return {
    encoding,
    separator: meta.delimiter,
    titles: header.map((title) => title.trim().slice(0, MOST_TITLE)),
    rows,
  };
}

/** The cells of columns that stand for fields of some types, without those that are empty. */
export function cellsOf(
  { rows }: Table,
  { kind, columns }: Pick<ImportPlan, 'kind' | 'columns'>,
  ...types: readonly CellType[]
): string[] {
  const fields = importFields(kind);
  return columns.flatMap((field, i) =>
    field !== null && types.includes(fields[field]!.type)
      ? rows.map((row) => (row[i] ?? '').trim()).filter((cell) => cell !== '')
      : [],
  );
}

function decode(bytes: Uint8Array): { encoding: string; text: string } {
  try {
    return { encoding: 'UTF-8', text: new TextDecoder('utf-8', { fatal: true }).decode(bytes) };
  } catch {
    const encoding = chardet.detect(bytes.subarray(0, GUESSED_BYTES)) ?? 'windows-1252';
    try {
      return { encoding, text: new TextDecoder(encoding, { fatal: true }).decode(bytes) };
    } catch (error) {
      if (error instanceof RangeError || error instanceof TypeError)
        throw invalidField('file', 'is in an encoding that is not known: save it as UTF-8', 'encoding');
      throw error;
    }
  }
}
