import type { SaleLine } from '@karyotome/contract';
import { expect, test } from 'vitest';
import { saleTotals } from './sale-totals.ts';

function line(
  season: number | null,
  pairing: SaleLine['pairing'],
  status: SaleLine['status'],
  price: number | null = null,
  currency: string | null = null,
): SaleLine {
  const event = { details: { price, currency } } as SaleLine['event'];
  return { season, pairing, status, event, offer: { currency: 'EUR' } } as SaleLine;
}
const one = { dam: 'F-02', sires: ['M-1'] };
const other = { dam: 'F-10', sires: ['M-1', 'M-2'] };
const LINES = [
  line(2025, one, 'sold', 200),
  line(2026, one, 'sold', 150.5, 'EUR'),
  line(2026, one, 'for-sale', 90),
  line(2026, other, 'sold', 300, 'USD'),
  line(2026, other, 'sold'),
  line(null, null, 'reserved'),
];

// Added up by hand.
test('by season, the latest first: counts, and what was paid by currency', () => {
  expect(saleTotals(LINES, 'season')).toEqual([
    {
      of: '2026',
      animals: 4,
      counts: { 'held-back': 0, 'for-sale': 1, reserved: 0, sold: 3 },
      takings: [
        { currency: 'EUR', amount: 150.5 },
        { currency: 'USD', amount: 300 },
      ],
    },
    {
      of: '2025',
      animals: 1,
      counts: { 'held-back': 0, 'for-sale': 0, reserved: 0, sold: 1 },
      takings: [{ currency: 'EUR', amount: 200 }],
    },
    { of: null, animals: 1, counts: { 'held-back': 0, 'for-sale': 0, reserved: 1, sold: 0 }, takings: [] },
  ]);
});

test('by pairing, over the years, in the order of the dams’ numbers', () => {
  const totals = saleTotals(LINES, 'pairing');
  expect(totals.map(({ of, animals }) => [of, animals])).toEqual([
    ['F-02 × M-1', 3],
    ['F-10 × M-1 or M-2', 2],
    [null, 1],
  ]);
  expect(totals[0]!.takings).toEqual([{ currency: 'EUR', amount: 350.5 }]);
});
