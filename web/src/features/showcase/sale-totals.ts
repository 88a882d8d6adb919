import type { SaleLine } from '@karyotome/contract';

type Counted = 'held-back' | 'for-sale' | 'reserved' | 'sold';

/** What animals are added up by. */
export type TotalsBy = 'season' | 'pairing';

export interface SaleTotal {
  /** The season or the pairing; null where neither is known. */
  readonly of: string | null;
  readonly animals: number;
  readonly counts: Readonly<Record<Counted, number>>;
  /** What was paid or agreed for those sold, by currency. */
  readonly takings: readonly { readonly currency: string; readonly amount: number }[];
}

const GROUPS: { readonly [By in TotalsBy]: (line: SaleLine) => string | null } = {
  season: ({ season }) => season?.toString() ?? null,
  // A pairing is the same over the years.
  pairing: ({ pairing }) => pairing && `${pairing.dam} × ${pairing.sires.join(' or ')}`,
};

/** What became of animals: of each season, the latest first, or of each pairing, by its dam. What is unknown comes last. */
export function saleTotals(lines: readonly SaleLine[], by: TotalsBy): SaleTotal[] {
  const groups = new Map<string | null, SaleLine[]>();
  for (const line of lines) {
    const of = GROUPS[by](line);
    groups.set(of, [...(groups.get(of) ?? []), line]);
  }
  const compare = (a: string, b: string): number =>
    a.localeCompare(b, 'en', { numeric: true }) * (by === 'season' ? -1 : 1);
  return [...groups]
    .toSorted(([a], [b]) => (a === null ? 1 : b === null ? -1 : compare(a, b)))
    .map(([of, all]) => totalOf(of, all));
}

function totalOf(of: string | null, all: readonly SaleLine[]): SaleTotal {
  const count = (status: Counted): number => all.filter((line) => line.status === status).length;
  const takings = new Map<string, number>();
  for (const { status, event, offer } of all) {
    const price = status === 'sold' ? event?.details.price : null;
    if (price == null) continue;
    const currency = event?.details.currency ?? offer.currency;
    takings.set(currency, (takings.get(currency) ?? 0) + price);
  }
  return {
    of,
    animals: all.length,
    counts: {
      'held-back': count('held-back'),
      'for-sale': count('for-sale'),
      reserved: count('reserved'),
      sold: count('sold'),
    },
    takings: [...takings].map(([currency, amount]) => ({ currency, amount })),
  };
}
