import { expect, test } from 'vitest';
import { deviceWords } from './device-words.ts';

test('a browser and its system are told, and what says neither is not', () => {
  const firefox = 'Mozilla/5.0 (Android 14; Mobile; rv:133.0) Gecko/133.0 Firefox/133.0';
  expect(deviceWords(firefox)).toBe('Firefox on Android');
  expect(deviceWords('node')).toBeNull();
  expect(deviceWords(null)).toBeNull();
});
