import Joi from 'joi';
import { noTwo, text } from './fields.ts';
import {
  DATE_ORDERS,
  DECIMAL_MARKS,
  FILE_MASS_UNITS,
  IMPORT_KINDS,
  IMPORT_WORD_LENGTH,
  MOST_IMPORT_COLUMNS,
  MOST_IMPORT_WORDS,
  type DateOrder,
  type DecimalMark,
  type FileMassUnit,
  type ImportKind,
} from './import-fields.ts';

/** What a word of a file means. */
export interface ImportWord {
  field: string;
  /** As it stands in the file, in small letters. */
  word: string;
  /** Null: it says nothing. */
  value: string | null;
}

/** How a file is to be read. */
export interface ImportPlan {
  kind: ImportKind;
  /** Of each column the field; null for one that is left out. */
  columns: (string | null)[];
  dates: DateOrder;
  decimals: DecimalMark;
  masses: FileMassUnit;
  /** Fields that no column holds, and that are the same in every row. */
  fixed: { field: string; value: string }[];
  words: ImportWord[];
}

const field = (): Joi.StringSchema => text(40).min(1);

export const importPlan = Joi.object<ImportPlan, true>({
  kind: Joi.string()
    .valid(...IMPORT_KINDS)
    .required(),
  columns: Joi.array<(string | null)[]>()
    .items(field().allow(null))
    .max(MOST_IMPORT_COLUMNS)
    .custom(noTwo())
    .required(),
  dates: Joi.string()
    .valid(...DATE_ORDERS)
    .required(),
  decimals: Joi.string()
    .valid(...DECIMAL_MARKS)
    .required(),
  masses: Joi.string()
    .valid(...FILE_MASS_UNITS)
    .required(),
  fixed: Joi.array<ImportPlan['fixed']>()
    .items(
      Joi.object<ImportPlan['fixed'][number], true>({
        field: field().required(),
        value: text(IMPORT_WORD_LENGTH).min(1).required(),
      }),
    )
    .max(12)
    .custom(noTwo('field'))
    .required(),
  words: Joi.array<ImportWord[]>()
    .items(
      Joi.object<ImportWord, true>({
        field: field().required(),
        word: text(IMPORT_WORD_LENGTH).allow('').required(),
        value: text(40).allow(null).required(),
      }),
    )
    .max(MOST_IMPORT_WORDS * 6)
    .required(),
});

export interface ImportRun {
  /** Brings in the rows that are right and leaves out those that are not; otherwise all or none. */
  leaveOutBad?: boolean;
}

export const importRun = Joi.object<ImportRun, true>({ leaveOutBad: Joi.boolean() });
