import {
  IMPORT_FIELDS,
  type DateOrder,
  type DecimalMark,
  type FileMassUnit,
  type ImportField,
  type ImportKind,
} from '@karyotome/contract';
import type { Reader } from './reader.ts';
import { sexWords } from './records.ts';

/** What a row of a file is about. */
export const IMPORT_KIND_WORDS: Readonly<Record<ImportKind, string>> = {
  animals: 'animals that are not entered yet',
  parents: 'parents of animals',
  weights: 'weights',
  meals: 'meals',
  sheds: 'sheds',
  clutches: 'clutches',
};

const FIELD_WORDS: Readonly<Record<ImportField, string>> = {
  number: 'number of the animal',
  name: 'name',
  sex: 'sex',
  hatched: 'hatched on',
  genes: 'genes',
  dam: 'dam, by number',
  sire: 'sire, by number',
  weight: 'weight',
  weighed: 'weighed on',
  status: 'status',
  note: 'private note',
  on: 'day',
  prey: 'prey animal',
  size: 'size of the prey',
  preyWeight: 'weight of the prey',
  state: 'live, thawed or killed',
  taken: 'taken',
  stage: 'stage of the shed',
  complete: 'in one piece',
  paired: 'together since',
  laid: 'laid on',
  eggs: 'eggs',
  slugs: 'slugs',
  incubation: 'incubated at, °C',
  hatchlings: 'numbers of the hatchlings',
};

/** A field by its name on the wire; one that is not known, as of a whole row, as it stands. */
export const importFieldWords = (field: string): string =>
  field in FIELD_WORDS ? FIELD_WORDS[field as ImportField] : field;

/** What a word of a file can mean. */
export const importValueWords = (field: string, value: string): string =>
  field === 'sex' ? sexWords(value) : value.replaceAll('-', ' ');

export const DATE_ORDER_WORDS: Readonly<Record<DateOrder, string>> = {
  ymd: 'year, month, day',
  dmy: 'day, month, year',
  mdy: 'month, day, year',
};

export const DECIMAL_MARK_WORDS: Readonly<Record<DecimalMark, string>> = {
  point: 'with a point: 84.5',
  comma: 'with a comma: 84,5',
};

export const FILE_MASS_UNIT_WORDS: Readonly<Record<FileMassUnit, string>> = {
  g: 'grams',
  kg: 'kilograms',
  oz: 'ounces',
  lb: 'pounds',
};

/** A cell as it was read, for a reader; empty for nothing. */
export function importCellWords(
  kind: ImportKind,
  field: string,
  value: string | number | null | undefined,
  reader: Reader,
): string {
  if (value == null) return '';
  const rules: Readonly<Record<string, { readonly type: string }>> = IMPORT_FIELDS[kind];
  const type = rules[field]?.type;
  if (typeof value === 'number') {
    if (type === 'mass') return reader.mass(value);
    return type === 'celsius' ? reader.temperature(value) : reader.number(value);
  }
  if (type === 'day') return reader.day(value);
  return type === 'word' ? importValueWords(field, value) : value;
}
