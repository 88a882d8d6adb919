import Joi from 'joi';
import type { Clock } from './fields.ts';
import type { FieldProblem } from './problem.ts';
import { shapeProblems } from './shape.ts';

export type Validated<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly problems: readonly FieldProblem[] };

export interface ValidateOptions extends Clock {
  /** A list whose elements are validated one by one by whoever asks: what is wrong within one is that one's own. */
  readonly looseList?: string;
}

/** A request with more wrong than this is told this much. */
const MOST_PROBLEMS = 50;

/** What is wrong and what would be right, without repeating the value. */
const MESSAGES: Record<string, string> = {
  'any.required': 'is missing',
  'any.only': 'must be one of {{#valids}}',
  'any.unknown': 'is not a known field',
  'object.unknown': 'is not a known field',
  'object.base': 'must be an object',
  'array.base': 'must be a list',
  'array.min': 'needs at least {{#limit}}',
  'array.max': 'takes at most {{#limit}}',
  'array.unique': 'names the same one twice',
  'string.base': 'must be text',
  'string.empty': 'is empty',
  'string.min': 'is empty or too short: at least {{#limit}}',
  'string.max': 'is too long: at most {{#limit}} characters',
  'string.email': 'must be an e-mail address',
  'string.pattern.base': 'takes small letters, digits and hyphens only',
  'object.xor': 'takes one of record and undo, not both',
  'object.missing': 'needs a record, or what it takes back',
  'object.and': 'needs the animal and the record together',
  'string.guid': 'must be the id of a record',
  'number.base': 'must be a number',
  'number.infinity': 'must be a number that is not endless',
  'number.integer': 'must be a whole number',
  'number.min': 'must be at least {{#limit}}',
  'number.max': 'must be at most {{#limit}}',
  'number.greater': 'must be more than {{#limit}}',
  'number.less': 'must be less than {{#limit}}',
  'number.unsafe': 'is too large a number',
  'boolean.base': 'must be yes or no',
  'day.format': 'must be a day that exists, written YYYY-MM-DD',
  'day.future': 'lies in the future',
  'moment.format': 'must be a moment, written like 2026-05-14T21:30:00+02:00',
  'text.control': 'holds characters that cannot be stored',
  'zone.unknown': 'must be the name of a time zone, like Europe/Berlin',
};

/**
 * Runs a schema and names every broken field. The one place where Joi is called. Takes time in proportion to the input: its
 * depth, its size and its characters are checked before any rule looks at it.
 */
export function validate<T>(
  schema: Joi.Schema<T>,
  input: unknown,
  { today, nowMs, looseList }: ValidateOptions = {},
): Validated<T> {
  const shape = shapeProblems(input, looseList);
  if (shape.length > 0) return { ok: false, problems: shape };
  const { value, error } = schema.validate(input, {
    abortEarly: false,
    convert: false,
    messages: MESSAGES,
    errors: { label: false, wrap: { array: false } },
    context: { today, nowMs } satisfies Clock,
  });
  if (!error) return { ok: true, value: value as T };
  // One thing wrong with a field is enough to say: what breaks one rule often breaks the next.
  const problems = new Map<string, FieldProblem>();
  for (const { path, type, message } of error.details) {
    const field = path.join('.');
    if (problems.has(field)) continue;
    // That a field may be left empty is no answer to what it should be.
    problems.set(field, { field, code: type, message: message.replace(/, null$/, '') });
    if (problems.size === MOST_PROBLEMS) break;
  }
  return { ok: false, problems: [...problems.values()] };
}
