import type { IsoDay } from '../calendar/days.ts';
import { task, type Task } from '../husbandry/task.ts';
import type { LoanHistory, LoanRecord } from './loan-records.ts';

/**
 * The loan that runs on a day: the last one, unless it was ended since.
 *
 * @example loanOn({ loans: [{ id: 'l', on: '2026-09-01', direction: 'out', partner: 'Oak Hollow', until: null }], ends: [] }, '2026-11-28').partner // "Oak Hollow"
 */
export function loanOn({ loans, ends }: LoanHistory, today: IsoDay): LoanRecord | null {
  const last = loans.findLast(({ on }) => on <= today);
  if (!last) return null;
  return ends.some(({ on }) => on >= last.on && on <= today) ? null : last;
}

/**
 * Whether an animal lives with somebody else for a time.
 *
 * @example isAway({ direction: 'in' }) // false
 */
export const isAway = (loan: Pick<LoanRecord, 'direction'> | null): boolean => loan?.direction === 'out';

/**
 * A loan whose day has come.
 *
 * @example loanTasks({ id: 'l', on: '2026-09-01', direction: 'out', partner: 'Oak Hollow', until: '2026-11-28' }, '2026-11-28').map(({ code }) => code) // ["loan-over"]
 */
export function loanTasks(loan: LoanRecord | null, today: IsoDay): Task[] {
  if (loan?.until == null || loan.until > today) return [];
  const { id, direction, partner, until } = loan;
  return [task({ code: 'loan-over', facts: { direction, partner, until } }, until, [id])];
}
