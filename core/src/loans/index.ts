export { isAway, loanOn, loanTasks } from './loan.ts';
export {
  NO_LOANS,
  type LoanEndRecord,
  type LoanHistory,
  type LoanRecord,
  type LoanTasks,
} from './loan-records.ts';
