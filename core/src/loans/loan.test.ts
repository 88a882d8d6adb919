import { expect, test } from 'vitest';
import type { LoanRecord } from './loan-records.ts';
import { loanOn, loanTasks } from './loan.ts';

const LOAN: LoanRecord = {
  id: 'l',
  on: '2026-09-01',
  direction: 'out',
  partner: 'Oak Hollow',
  until: '2026-12-01',
};
const ended = (on: string) => ({ id: `e${on}`, on });

test('a loan runs from its day until it is ended', () => {
  const loans = [LOAN];
  expect(loanOn({ loans, ends: [] }, '2026-08-31')).toBeNull();
  expect(loanOn({ loans, ends: [] }, '2026-09-01')).toBe(LOAN);
  // Also past the day that was agreed: it is away until it is back.
  expect(loanOn({ loans, ends: [] }, '2027-01-01')).toBe(LOAN);
  const ends = [ended('2026-11-20')];
  expect(loanOn({ loans, ends }, '2026-11-19')).toBe(LOAN);
  expect(loanOn({ loans, ends }, '2026-11-20')).toBeNull();
});

test('the last loan counts, and an end before it ends nothing', () => {
  const next: LoanRecord = { ...LOAN, id: 'm', on: '2026-11-25', partner: 'Reed Bank' };
  const history = { loans: [LOAN, next], ends: [ended('2026-11-20')] };
  expect(loanOn(history, '2026-11-28')).toBe(next);
});

test('a loan is due on its day, and never without one', () => {
  expect(loanTasks(LOAN, '2026-11-30')).toEqual([]);
  expect(loanTasks(LOAN, '2026-12-01')).toMatchObject([
    { code: 'loan-over', dueOn: '2026-12-01', facts: { direction: 'out', partner: 'Oak Hollow' } },
  ]);
  expect(loanTasks({ ...LOAN, until: null }, '2030-01-01')).toEqual([]);
  expect(loanTasks(null, '2030-01-01')).toEqual([]);
});
