import type { Request } from 'express';
import type { FrontFilter } from './front-page.ts';

const LONGEST = 100;

/** A number typed into a form; null where it is none, or negative. */
function numberOf(value: unknown): number | null {
  if (typeof value !== 'string' || value.trim() === '' || value.length > 12) return null;
  const number = Number(value);
  return Number.isFinite(number) && number >= 0 ? number : null;
}

/** What is asked of the front page; what cannot be read of it is left out, as an address is typed by anybody. */
export function readFilter(query: Request['query']): FrontFilter {
  const { gene, sex, price, from, to, ready, page } = query;
  return {
    gene: typeof gene === 'string' ? gene.slice(0, LONGEST).trim() : '',
    sex: sex === 'female' || sex === 'male' ? sex : '',
    price: numberOf(price),
    from: numberOf(from),
    to: numberOf(to),
    isReady: ready === '1',
    page: Math.max(1, Math.floor(numberOf(page) ?? 1)),
  };
}
