import type { ImportKind } from './import-fields.ts';
import type { ImportPlan } from './import-requests.ts';
import type { FieldProblem } from './problem.ts';

/** A file that came in, or is to. */
export interface ImportSummary {
  id: string;
  fileName: string;
  kind: ImportKind;
  /** `draft`: nothing was brought in yet. */
  state: 'draft' | 'done' | 'undone';
  by: string;
  /** RFC 3339. */
  at: string;
  /** How many rows were brought in; null of a draft. */
  rows: number | null;
}

/** A word of a column, how often it stands there, and what it means; `undefined` as long as nobody has said. */
export interface ImportWordUse {
  field: string;
  word: string;
  count: number;
  value: string | null | undefined;
}

/** A row as it is read: what it would bring in. */
export interface ImportShownRow {
  line: number;
  values: Record<string, string | number | null>;
}

export interface ImportRowProblem extends FieldProblem {
  line: number;
  /** The cell as it stands in the file. */
  cell: string;
}

/** A file and how it is read. */
export interface ImportView extends ImportSummary {
  encoding: string;
  separator: string;
  columns: { title: string; examples: string[] }[];
  plan: ImportPlan;
  /** A day of the file and how it is read; `isSure` where no other order would do. Null without days. */
  dates: { text: string; day: string; isSure: boolean } | null;
  /** Required fields that no column holds. */
  missing: string[];
  words: ImportWordUse[];
  /** The first rows that are right. */
  shown: ImportShownRow[];
  good: number;
  bad: number;
  /** Rows that say what is recorded already: they are left out. */
  known: number;
  /** The first of what is wrong. */
  problems: ImportRowProblem[];
}
