import { expect, test } from 'vitest';
import { toStatement } from './statement.ts';

test('named values get places, each one place however often it is named', () => {
  expect(toStatement('select :a, :b, :a')).toMatchObject({ text: 'select $1, $2, $1', names: ['a', 'b'] });
});

test('casts, quoted text and times in it are left alone', () => {
  const { text, names } = toStatement("select x::int, ':no', 'it''s :not', :yes::uuid");
  expect(text).toBe("select x::int, ':no', 'it''s :not', $1::uuid");
  expect(names).toEqual(['yes']);
});

test('a list may be empty: it is one value', () => {
  expect(toStatement('where id in (:ids) and b not in (:others)').text).toBe(
    'where id = any($1) and b <> all($2)',
  );
});

test('two queries of one text share a plan, others do not', () => {
  expect(toStatement('select 1 where a = :x').name).toBe(toStatement('select 1 where a = :y').name);
  expect(toStatement('select 1 where a = :x').name).not.toBe(toStatement('select 2 where a = :x').name);
  expect(toStatement('select 1 where a = :x').name.length).toBeLessThan(64);
});
