import { expect, test } from 'vitest';
import { handlingFlagWords, recordWords } from './index.ts';
import { metric } from './test-facts.ts';

const words = (record: Parameters<typeof recordWords>[0]): string => recordWords(record, metric);

test('where an animal comes from', () => {
  const body = { from: 'Oak Hollow', how: 'bought', price: 450, currency: 'EUR', papers: 'receipt' } as const;
  expect(words({ kind: 'acquisition', body })).toBe('bought from Oak Hollow, €450, papers: receipt');
  expect(words({ kind: 'acquisition', body: { from: 'Oak Hollow', how: 'given' } })).toBe(
    'given from Oak Hollow',
  );
});

test('a breeding loan, and its end', () => {
  const loan = { direction: 'out', partner: 'Oak Hollow', until: '2026-12-01' } as const;
  expect(words({ kind: 'loan', body: { ...loan, terms: 'first pick of the clutch' } })).toBe(
    'lent to Oak Hollow until 1 Dec 2026: first pick of the clutch',
  );
  expect(words({ kind: 'loan', body: { ...loan, direction: 'in', until: null } })).toBe(
    'on loan from Oak Hollow',
  );
  expect(words({ kind: 'loan-end', body: {} })).toBe('ended');
  expect(handlingFlagWords({ code: 'on-loan', facts: loan }, metric)).toBe(
    'lent to Oak Hollow until 1 Dec 2026',
  );
});
