import { ENTERED_STATUSES, SEXES } from './animal-status.ts';
import { PREY_STATES } from './husbandry-requests.ts';
import { PREY_SIZE_NAMES } from './records.ts';

/* Spreadsheets that come in: what they may hold, and how somebody said that they are to be read. */

/** What a row of a file may be about. */
export const IMPORT_KINDS = ['animals', 'parents', 'weights', 'meals', 'sheds', 'clutches'] as const;
export type ImportKind = (typeof IMPORT_KINDS)[number];

/** What the cells of a column hold. `word`: one of a few; `animals`: one or several numbers. */
export type CellType =
  'text' | 'day' | 'count' | 'mass' | 'word' | 'animal' | 'animals' | 'number' | 'celsius';

export interface ImportFieldRule {
  readonly type: CellType;
  readonly isRequired?: true;
  /** Of a `word`: what it can mean. */
  readonly values?: readonly string[];
}

const PREY = ['rat', 'mouse', 'other'] as const;
const number = { type: 'number', isRequired: true } as const;
const animal = { type: 'animal', isRequired: true } as const;
const day = { type: 'day', isRequired: true } as const;
const note = { type: 'text' } as const;

/** The fields of each kind, in the order in which they are shown. */
export const IMPORT_FIELDS = {
  animals: {
    number,
    name: { type: 'text' },
    sex: { type: 'word', isRequired: true, values: SEXES },
    hatched: { type: 'day' },
    genes: { type: 'text' },
    dam: { type: 'animal' },
    sire: { type: 'animal' },
    weight: { type: 'mass' },
    weighed: { type: 'day' },
    status: { type: 'word', values: ENTERED_STATUSES },
    note,
  },
  parents: { number: animal, dam: { type: 'animal' }, sire: { type: 'animal' } },
  weights: { number: animal, on: day, weight: { type: 'mass', isRequired: true }, note },
  meals: {
    number: animal,
    on: day,
    prey: { type: 'word', isRequired: true, values: PREY },
    size: { type: 'word', isRequired: true, values: PREY_SIZE_NAMES },
    preyWeight: { type: 'mass' },
    state: { type: 'word', isRequired: true, values: PREY_STATES },
    taken: { type: 'word', isRequired: true, values: ['yes', 'no'] },
    note,
  },
  sheds: {
    number: animal,
    on: day,
    stage: { type: 'word', isRequired: true, values: ['dull', 'blue', 'clear', 'shed'] },
    complete: { type: 'word', values: ['yes', 'no'] },
    note,
  },
  clutches: {
    dam: animal,
    sire: { type: 'animals', isRequired: true },
    paired: { type: 'day' },
    laid: day,
    eggs: { type: 'count', isRequired: true },
    slugs: { type: 'count' },
    incubation: { type: 'celsius' },
    hatched: { type: 'day' },
    hatchlings: { type: 'animals' },
    note,
  },
} as const satisfies Record<ImportKind, Readonly<Record<string, ImportFieldRule>>>;

type FieldsOf<K extends ImportKind> = keyof (typeof IMPORT_FIELDS)[K];
export type ImportField = { [K in ImportKind]: FieldsOf<K> }[ImportKind];

export const importFields = (kind: ImportKind): Readonly<Record<string, ImportFieldRule>> =>
  IMPORT_FIELDS[kind];

/** In which order a file writes days. */
export const DATE_ORDERS = ['ymd', 'dmy', 'mdy'] as const;
export type DateOrder = (typeof DATE_ORDERS)[number];
export const DECIMAL_MARKS = ['point', 'comma'] as const;
export type DecimalMark = (typeof DECIMAL_MARKS)[number];
export const FILE_MASS_UNITS = ['g', 'kg', 'oz', 'lb'] as const;
export type FileMassUnit = (typeof FILE_MASS_UNITS)[number];

export const MOST_IMPORT_COLUMNS = 60;
export const MOST_IMPORT_ROWS = 50_000;
/** More different words in one column are no choice of a few. */
export const MOST_IMPORT_WORDS = 60;
/** A word is at most so long. */
export const IMPORT_WORD_LENGTH = 80;
