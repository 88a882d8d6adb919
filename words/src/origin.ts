import type { Acquisition, OriginBodies } from '@karyotome/contract';
import type { HandlingFlags, LoanTasks } from '@karyotome/core';
import type { Phrases, Told } from './phrases.ts';
import type { Reader } from './reader.ts';

export const ACQUISITION_WORDS: Readonly<Record<Acquisition, string>> = {
  bought: 'bought',
  traded: 'traded',
  given: 'given',
};

/** "lent to Oak Hollow until 1 Dec 2026", "on loan from Oak Hollow". */
export const loanWords = (
  { direction, partner, until }: Pick<OriginBodies['loan'], 'direction' | 'partner' | 'until'>,
  reader: Reader,
): string =>
  `${direction === 'out' ? 'lent to' : 'on loan from'} ${partner}${until == null ? '' : ` until ${reader.day(until)}`}`;

export const ORIGIN_RECORDS: {
  [K in keyof OriginBodies]: (body: OriginBodies[K], reader: Reader) => string;
} = {
  acquisition: ({ how, from, price, currency, papers }, reader) =>
    [
      `${ACQUISITION_WORDS[how]} from ${from}`,
      price != null && currency ? reader.money(price, currency) : '',
      papers ? `papers: ${papers}` : '',
    ]
      .filter((part) => part !== '')
      .join(', '),
  loan: ({ terms, ...loan }, reader) => `${loanWords(loan, reader)}${terms ? `: ${terms}` : ''}`,
  'loan-end': ({ remark }) => (remark ? `ended: ${remark}` : 'ended'),
};

export const LOAN_TASKS: Phrases<LoanTasks, Told> = {
  'loan-over': ({ direction, partner, until }, reader) => ({
    text: direction === 'out' ? `Due back from ${partner}` : `Goes back to ${partner}`,
    why: `The loan was agreed until ${reader.day(until)}.`,
  }),
};

export const onLoanWords = (facts: HandlingFlags['on-loan'], reader: Reader): string =>
  loanWords(facts, reader);
