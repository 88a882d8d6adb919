import { beforeEach, expect, test } from 'vitest';
import { useDraft } from './useDraft.ts';

beforeEach(() => localStorage.clear());
const form = () => useDraft('form', () => ({ number: '', sex: 'female' }));

test('what was typed is there again after a reload, until it was sent', () => {
  form().draft.number = 'F-01';
  const again = form();
  expect(again.draft).toEqual({ number: 'F-01', sex: 'female' });
  again.discard();
  expect(form().draft).toEqual({ number: '', sex: 'female' });
});

test('a broken draft is as none', () => {
  localStorage.setItem('karyotome.draft.form', '{"number":');
  expect(form().draft).toEqual({ number: '', sex: 'female' });
});
