import { addDays, daysBetween, type IsoDay } from '../calendar/days.ts';
import type { Meal } from './next-meal.ts';
import { PREY_SIZES } from './prey.ts';

/** What a list counts by: "rat pup". */
export type Prey = string;

/** What came into the freezer or was counted there. */
export interface StockEntry {
  readonly prey: Prey;
  readonly on: IsoDay;
  /** `count`: so many lay there on that evening, whatever was booked before. `loss`: thrown away. */
  readonly kind: 'receipt' | 'count' | 'loss';
  readonly quantity: number;
}
/** Thawed prey, by day. What was thawed and refused is gone too. */
export interface StockUse {
  readonly prey: Prey;
  readonly on: IsoDay;
  readonly quantity: number;
}

const ORDER = new Map(PREY_SIZES.map(({ species, size }, i) => [`${species} ${size}`, i]));
/** @example ['rat small', 'rat pup'].toSorted(byPreySize) // ["rat pup", "rat small"] */
export const byPreySize = (a: Prey, b: Prey): number => (ORDER.get(a) ?? 99) - (ORDER.get(b) ?? 99);

/**
 * The frozen prey that a meal takes tonight; null for one that is not due, or of prey that is not frozen.
 *
 * @example frozenPrey({ verdict: 'due', state: 'frozen-thawed', prey: 'rat pup' }) // "rat pup"
 */
export const frozenPrey = (meal: Pick<Meal, 'verdict' | 'state' | 'prey'> | null): Prey | null =>
  meal?.verdict === 'due' && meal.state === 'frozen-thawed' ? meal.prey : null;

/**
 * What to thaw, by species and size, smallest first.
 *
 * @param meals - the frozen prey of each meal, or of so many meals
 * @example thawList([{ prey: 'rat small', count: 1 }, { prey: 'rat pup', count: 2 }, { prey: null, count: 4 }]) // [{"prey": "rat pup", "count": 2}, {"prey": "rat small", "count": 1}]
 */
export function thawList(
  meals: readonly { readonly prey: Prey | null; readonly count: number }[],
): { prey: Prey; count: number }[] {
  const counts = new Map<Prey, number>();
  for (const { prey, count } of meals) if (prey !== null) counts.set(prey, (counts.get(prey) ?? 0) + count);
  return [...counts].map(([prey, count]) => ({ prey, count })).toSorted((a, b) => byPreySize(a.prey, b.prey));
}

/**
 * What lies in the freezer: from the last count on, what came less what was thawed or lost.
 *
 * @example stockOf('rat pup', [{ prey: 'rat pup', on: '2026-11-01', kind: 'receipt', quantity: 20 }], [{ prey: 'rat pup', on: '2026-11-02', quantity: 3 }]) // 17
 */
export function stockOf(prey: Prey, entries: readonly StockEntry[], uses: readonly StockUse[]): number {
  const own = entries.filter((entry) => entry.prey === prey).toSorted((a, b) => (a.on < b.on ? -1 : 1));
  const counted = own.findLast((entry) => entry.kind === 'count');
  const after = (on: IsoDay): boolean => counted === undefined || on > counted.on;
  const sum = (values: readonly { quantity: number }[]): number =>
    values.reduce((total, { quantity }) => total + quantity, 0);
  const came = own.filter((entry) => entry.kind === 'receipt' && after(entry.on));
  const lost = own.filter((entry) => entry.kind === 'loss' && after(entry.on));
  const used = uses.filter((use) => use.prey === prey && after(use.on));
  return (counted?.quantity ?? 0) + sum(came) - sum(lost) - sum(used);
}

/** The keeper's rules of ordering. */
export interface OrderRules {
  /** From the order to the delivery. */
  readonly leadDays: number;
  /** How sure the stock is to last until the delivery, 0 to 1. */
  readonly service: number;
}
export const ORDER_RULES: OrderRules = { leadDays: 14, service: 0.95 };

/**
 * The standard normal deviate below which a share of all values lies (Abramowitz & Stegun 1964, formula 26.2.23: within
 * 4.5e-4 of the true one).
 *
 * @throws RangeError for a share that does not lie between 0 and 1
 */
export function normalQuantile(share: number): number {
  if (share <= 0 || share >= 1) throw new RangeError('A share lies between 0 and 1.');
  if (share < 0.5) return -normalQuantile(1 - share);
  const t = Math.sqrt(-2 * Math.log(1 - share));
  return (
    t -
    (2.515517 + 0.802853 * t + 0.010328 * t * t) / (1 + 1.432788 * t + 0.189269 * t * t + 0.001308 * t ** 3)
  );
}

/**
 * The stock at which to order again: the use expected until the delivery and a reserve against chance (any textbook of
 * inventory: mean x lead time + z x deviation x root of the lead time).
 *
 * @example Math.round(reorderPoint(4, 2, { leadDays: 7, service: 0.95 })) // 37
 */
export function reorderPoint(meanADay: number, sdADay: number, { leadDays, service }: OrderRules): number {
  return meanADay * leadDays + normalQuantile(service) * sdADay * Math.sqrt(leadDays);
}

export interface FreezerLine {
  readonly prey: Prey;
  readonly inStock: number;
  readonly tonight: number;
  readonly left: number;
  /** Pieces a week, over the last weeks. */
  readonly aWeek: number;
  /** Null where nothing was used lately. */
  readonly runsOutOn: IsoDay | null;
  readonly reorderAt: number;
  readonly order: boolean;
}

const USE_WEEKS = 8;

/**
 * The freezer tonight, and how long it will last at the use of the last eight weeks. Prey that was never booked in is not
 * counted, and has no line.
 *
 * @example freezer([{ prey: 'rat pup', on: '2026-11-01', kind: 'count', quantity: 20 }], [], [{ prey: 'rat pup', count: 4 }], ORDER_RULES, '2026-11-28').map(({ inStock, left, order }) => [inStock, left, order]) // [[20, 16, false]]
 */
export function freezer(
  entries: readonly StockEntry[],
  uses: readonly StockUse[],
  thaw: readonly { prey: Prey; count: number }[],
  rules: OrderRules,
  today: IsoDay,
): FreezerLine[] {
  const known = new Set(entries.map(({ prey }) => prey));
  return [...known].toSorted(byPreySize).map((prey) => {
    const daily = dailyUse(prey, uses, today);
    const mean = daily.reduce((sum, n) => sum + n, 0) / daily.length;
    const sd = Math.sqrt(daily.reduce((sum, n) => sum + (n - mean) ** 2, 0) / (daily.length - 1));
    const inStock = stockOf(prey, entries, uses);
    const tonight = thaw.find((line) => line.prey === prey)?.count ?? 0;
    const left = inStock - tonight;
    const reorderAt = Math.ceil(reorderPoint(mean, sd, rules));
    return {
      prey,
      inStock,
      tonight,
      left,
      aWeek: mean * 7,
      runsOutOn: left <= 0 ? today : mean === 0 ? null : addDays(today, Math.floor(left / mean)),
      reorderAt,
      order: left < tonight || left <= reorderAt,
    };
  });
}

function dailyUse(prey: Prey, uses: readonly StockUse[], today: IsoDay): number[] {
  const days = new Array<number>(USE_WEEKS * 7).fill(0);
  for (const use of uses) {
    const back = daysBetween(use.on, today);
    if (use.prey === prey && back >= 1 && back <= days.length) days[back - 1]! += use.quantity;
  }
  return days;
}
