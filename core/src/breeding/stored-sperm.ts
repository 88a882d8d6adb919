import { daysBetween, type IsoDay } from '../calendar/days.ts';
import type { SeasonRules } from './rules.ts';

/** A mate of an earlier season, with the last day he was with her. */
export interface EarlierMate {
  readonly id: string;
  readonly lastWithOn: IsoDay;
}

/**
 * Earlier mates as weak candidate sires: together they get the keeper's share of the weight, those of late more than those
 * long gone (halved with every half year, an assumption). The weights are relative to the present males' total.
 *
 * @param present - the present males with their weights
 * @returns nothing where the share is 0 or nobody is recent enough
 * @example storedCandidates([{ id: 'M2', lastWithOn: '2025-12-01' }], [{ id: 'M1', weight: 1 }], { storedSpermShare: 0.1, storedSpermDays: 730 }, '2026-12-01').map(({ id }) => id) // ["M2"]
 */
export function storedCandidates(
  earlier: readonly EarlierMate[],
  present: readonly { readonly id: string; readonly weight: number }[],
  rules: Pick<SeasonRules, 'storedSpermShare' | 'storedSpermDays'>,
  on: IsoDay,
): { id: string; weight: number }[] {
  const { storedSpermShare: share, storedSpermDays } = rules;
  const mates = earlier.filter(
    ({ id, lastWithOn }) =>
      daysBetween(lastWithOn, on) <= storedSpermDays && present.every((male) => male.id !== id),
  );
  if (share <= 0 || mates.length === 0) return [];
  const total = present.reduce((sum, { weight }) => sum + weight, 0);
  const faded = mates.map(({ lastWithOn }) => 0.5 ** (daysBetween(lastWithOn, on) / 182.5));
  const sum = faded.reduce((a, b) => a + b, 0);
  const stored = (total * share) / (1 - share);
  return mates.map(({ id }, i) => ({ id, weight: (stored * faded[i]!) / sum }));
}
