import { InputError } from '@karyotome/core';
import { visit } from 'jsonc-parser';

/** Nothing in a lineage document nests deeper than 12. */
const MOST_DEPTH = 64;

/** RFC 7493, section 2.1: neither surrogates without their other half nor code points that are no characters. */
const NOT_INTERCHANGEABLE = /\p{Surrogate}|\p{Noncharacter_Code_Point}/u;

/**
 * Reads I-JSON (RFC 7493): UTF-8, no member name twice in one object, no lone surrogate, no number that overflows. Two readers
 * of such a document cannot disagree about what was signed.
 *
 * @throws InputError naming the member at fault
 */
export function readJson(bytes: Uint8Array): unknown {
  const text = decode(bytes);
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw refusal('document', 'is not JSON');
  }
  checkValues(value);
  checkNames(text);
  return value;
}

function decode(bytes: Uint8Array): string {
  try {
    // A byte order mark stays, and is then no JSON (RFC 8259, section 8.1).
    return new TextDecoder('utf-8', { fatal: true, ignoreBOM: true }).decode(bytes);
  } catch {
    throw refusal('document', 'is not UTF-8');
  }
}

/** Depth, texts and numbers, without recursion. */
function checkValues(document: unknown): void {
  const waiting: { value: unknown; path: readonly string[] }[] = [{ value: document, path: [] }];
  for (let place = waiting.pop(); place !== undefined; place = waiting.pop()) {
    const { value, path } = place;
    if (typeof value === 'string') checkText(value, path);
    else if (typeof value === 'number' && !Number.isFinite(value))
      throw refusal(at(path), 'is too large a number');
    else if (typeof value === 'object' && value !== null) {
      if (path.length >= MOST_DEPTH) throw refusal(at(path.slice(0, 3)), 'is nested too deeply');
      for (const [name, inner] of Object.entries(value)) {
        checkText(name, path);
        waiting.push({ value: inner, path: [...path, name] });
      }
    }
  }
}

function checkText(text: string, path: readonly string[]): void {
  if (NOT_INTERCHANGEABLE.test(text))
    throw refusal(at(path), 'holds a surrogate without its other half, or a code point that is no character');
}

/** JSON.parse keeps the last of two members with one name, other readers the first. */
function checkNames(text: string): void {
  const open: Set<string>[] = [];
  visit(
    text,
    {
      onObjectBegin: () => void open.push(new Set()),
      onObjectEnd: () => void open.pop(),
      onObjectProperty: (name, _offset, _length, _line, _character, pathOf) => {
        const names = open.at(-1)!;
        if (names.has(name)) throw refusal(at([...pathOf(), name]), 'is given twice');
        names.add(name);
      },
    },
    { disallowComments: true },
  );
}

const at = (path: readonly (string | number)[]): string => (path.length === 0 ? 'document' : path.join('.'));

function refusal(path: string, message: string): InputError {
  return new InputError([{ code: 'json', path, message }]);
}
