import type { IsoDay } from '../calendar/days.ts';

/** An animal lent for breeding: `out`: it lives with somebody else; `in`: somebody else's lives here. */
export interface LoanRecord {
  readonly id: string;
  readonly on: IsoDay;
  readonly direction: 'in' | 'out';
  /** Who lends it, or whom it is lent to. */
  readonly partner: string;
  /** When it goes back; null where no day was agreed. */
  readonly until: IsoDay | null;
}

export interface LoanEndRecord {
  readonly id: string;
  readonly on: IsoDay;
}

/** Both in date order. */
export interface LoanHistory {
  readonly loans: readonly LoanRecord[];
  readonly ends: readonly LoanEndRecord[];
}
export const NO_LOANS: LoanHistory = { loans: [], ends: [] };

/** What of loans can be due. */
export interface LoanTasks {
  readonly 'loan-over': {
    readonly direction: 'in' | 'out';
    readonly partner: string;
    readonly until: IsoDay;
  };
}
