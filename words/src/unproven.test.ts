import { expect, test } from 'vitest';
import { apartWords } from './unproven.ts';

test('what a test pairing tells is said, and what stays open', () => {
  expect(apartWords([['not-inherited', 'two-copies'], ['one-copy']])).toBe(
    'It tells whether it shows in one copy. If not, it stays open whether it is not inherited or shows in two copies only (recessive).',
  );
  expect(apartWords([['not-inherited'], ['two-copies']])).toBe(
    'It tells whether it is not inherited or shows in two copies only (recessive).',
  );
  expect(apartWords([['not-inherited'], ['two-copies'], ['one-copy']])).toBe('It tells how it is inherited.');
});
