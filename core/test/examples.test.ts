import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import * as core from '../src/index.ts';

/* The examples in core's comments are true: `@example expression // value as JSON`, or `// throws NameOfError`. */

const SOURCE = join(import.meta.dirname, '../src');
const EXAMPLE = /@example (.+?) \/\/ (.+?)(?: \*\/)?$/gm;
const names = Object.keys(core);

function run(expression: string): unknown {
  // Core is called by its public names alone.
  const call = new Function(...names, `return (${expression})`) as (...values: unknown[]) => unknown;
  return call(...names.map((name) => core[name as keyof typeof core]));
}

const files = readdirSync(SOURCE, { recursive: true, encoding: 'utf8' }).filter((file) =>
  file.endsWith('.ts'),
);
const examples = files.flatMap((file) =>
  [...readFileSync(join(SOURCE, file), 'utf8').matchAll(EXAMPLE)].map(
    ([, expression, expected]): [string, string] => [expression!, expected!],
  ),
);

const isClass = (value: object): boolean => /^class\b/.test(Function.prototype.toString.call(value));

test('every public function of core has an example', () => {
  const functions = Object.entries(core).filter(
    ([, value]) => typeof value === 'function' && !isClass(value),
  );
  expect(functions.length).toBeGreaterThan(100);
  const without = functions.filter(
    ([name]) => !examples.some(([expression]) => new RegExp(`\\b${name}\\b`).test(expression)),
  );
  expect(without.map(([name]) => name)).toEqual([]);
});

test.each(examples)('%s is %s', (expression, expected) => {
  const thrown = /^throws (\w+)$/.exec(expected)?.[1];
  if (thrown === undefined) return expect(run(expression)).toEqual(JSON.parse(expected));
  expect(() => run(expression)).toThrow(expect.objectContaining({ name: thrown }) as Error);
});
