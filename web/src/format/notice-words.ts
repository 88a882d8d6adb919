import type { Notice } from '@karyotome/contract';

/** What everybody who watches a collection is told. */
export function noticeWords({ facts }: Notice): string {
  return `${facts.numbers.join(' and ')} are now in one tub, ${facts.tub}.`;
}
