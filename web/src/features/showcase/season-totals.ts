import type { SaleLine } from '@karyotome/contract';

type Counted = 'held-back' | 'for-sale' | 'reserved' | 'sold';

export interface SeasonTotal {
  readonly season: number | null;
  readonly animals: number;
  readonly counts: Readonly<Record<Counted, number>>;
  /** What was paid or agreed for those sold, by currency. */
  readonly takings: readonly { readonly currency: string; readonly amount: number }[];
}

/** What became of each season's animals, the latest season first. */
export function seasonTotals(lines: readonly SaleLine[]): SeasonTotal[] {
  const seasons = [...new Set(lines.map(({ season }) => season))];
  return seasons
    .toSorted((a, b) => (b ?? 0) - (a ?? 0))
    .map((season) => {
      const all = lines.filter((line) => line.season === season);
      const count = (status: Counted): number => all.filter((line) => line.status === status).length;
      const takings = new Map<string, number>();
      for (const { status, event, offer } of all) {
        const price = status === 'sold' ? event?.details.price : null;
        if (price == null) continue;
        const currency = event?.details.currency ?? offer.currency;
        takings.set(currency, (takings.get(currency) ?? 0) + price);
      }
      return {
        season,
        animals: all.length,
        counts: {
          'held-back': count('held-back'),
          'for-sale': count('for-sale'),
          reserved: count('reserved'),
          sold: count('sold'),
        },
        takings: [...takings].map(([currency, amount]) => ({ currency, amount })),
      };
    });
}
