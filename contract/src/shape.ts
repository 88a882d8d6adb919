import type { FieldProblem } from './problem.ts';

/*
 * What holds of every request, whatever its schema: how deep and how large it may be, and that its text can be stored. In
 * one walk, without recursion, before any rule of a schema runs.
 */

/** No request of this application nests deeper than 8. */
export const MOST_DEPTH = 16;
/** Values in one request, lists and objects included: 200 entries of a round have about 4,000. */
export const MOST_VALUES = 20_000;
/** Elements of one list, and fields of one object. */
export const MOST_ELEMENTS = 1_000;
/** So many problems of this kind are told. */
const MOST_TOLD = 20;
/** A field's name is repeated up to this length. */
const NAME_LENGTH = 60;

/** PostgreSQL stores neither NUL nor a surrogate without its other half (RFC 7493 forbids the latter too). */
// eslint-disable-next-line no-control-regex
const UNSTORABLE = /\u0000|\p{Surrogate}/u;

export function isStorable(text: string): boolean {
  return !UNSTORABLE.test(text);
}

interface Place {
  readonly value: unknown;
  readonly path: readonly string[];
}

/**
 * @param looseList - the field of a list whose elements are left alone: each is validated by itself later on
 * @returns what is wrong, by field; empty where nothing is
 */
export function shapeProblems(input: unknown, looseList?: string): FieldProblem[] {
  const problems: FieldProblem[] = [];
  const add = (path: readonly string[], code: string, message: string): void => {
    if (problems.length < MOST_TOLD) problems.push({ field: fieldOf(path), code, message });
  };
  const waiting: Place[] = [{ value: input, path: [] }];
  let values = 0;
  for (let place = waiting.pop(); place !== undefined; place = waiting.pop()) {
    const { value, path } = place;
    values += 1;
    if (values > MOST_VALUES) {
      add([], 'too-many-values', `holds more than ${MOST_VALUES} values`);
      return problems;
    }
    if (typeof value === 'string') {
      if (!isStorable(value)) add(path, 'text.control', 'holds characters that cannot be stored');
    } else if (typeof value === 'object' && value !== null) {
      if (path.length >= MOST_DEPTH) {
        add(path, 'too-deep', `is nested deeper than ${MOST_DEPTH} levels`);
        return problems;
      }
      // An element of a loose list is looked at when it is validated.
      if (looseList !== undefined && path.length === 2 && path[0] === looseList) continue;
      const keys = Object.keys(value);
      if (keys.length > MOST_ELEMENTS) {
        const what = Array.isArray(value) ? 'elements' : 'fields';
        add(path, 'too-many-values', `holds more than ${MOST_ELEMENTS} ${what}`);
        return problems;
      }
      for (const key of keys) {
        if (!isStorable(key))
          add([...path, key], 'text.control', 'is a name with characters that cannot be stored');
        else waiting.push({ value: (value as Record<string, unknown>)[key], path: [...path, key] });
      }
    }
  }
  return problems;
}

/** The path as it can be written down: whatever cannot be stored is shown as a question mark in a box, U+FFFD. */
function fieldOf(path: readonly string[]): string {
  return path.map((name) => toStorable(name).slice(0, NAME_LENGTH)).join('.') || 'body';
}

/** Text with U+FFFD in the place of what cannot be stored. */
export function toStorable(text: string): string {
  return text.replace(/\u0000|\p{Surrogate}/gu, '\uFFFD'); // eslint-disable-line no-control-regex
}
