import { shareOf, type Share } from '../numeric/interval.ts';

/** A clutch that is done, as the look back needs it. */
export interface DoneClutch {
  readonly season: string;
  readonly dam: string;
  /** The candidates' names; several are one group of their own. */
  readonly sire: string;
  readonly celsius: number | null;
  readonly eggs: number;
  readonly slugs: number;
  readonly hatched: number;
}

export type RateBy = 'season' | 'dam' | 'sire' | 'temperature';

/** A name, a span of incubation temperatures (degrees Celsius), or null where no temperature was recorded. */
export type RateGroup = string | { readonly fromC: number; readonly toC: number } | null;

export interface RateRow {
  readonly group: RateGroup;
  readonly clutches: number;
  readonly eggs: number;
  /** Eggs that were no slugs, of all eggs. */
  readonly fertile: Share;
  /** Good eggs of which young came out. */
  readonly hatched: Share;
}

/** Half a degree is one group. */
const BIN_C = 0.5;

function groupOf(clutch: DoneClutch, by: RateBy): RateGroup {
  if (by !== 'temperature') return clutch[by];
  if (clutch.celsius === null) return null;
  const fromC = Math.floor(clutch.celsius / BIN_C + 1e-9) * BIN_C;
  return { fromC, toC: fromC + BIN_C };
}

/** Names in order, temperatures from the coolest, what was not recorded last. */
function compareGroups(a: RateGroup, b: RateGroup): number {
  if (a === null || b === null) return Number(a === null) - Number(b === null);
  if (typeof a === 'object' && typeof b === 'object') return a.fromC - b.fromC;
  return a < b ? -1 : 1;
}

/**
 * Fertility and hatch rates in groups, each share with its 95% interval. Twins count as one egg.
 *
 * @example hatchRates([{ season: '2026', dam: 'F1', sire: 'M1', celsius: 31.4, eggs: 6, slugs: 1, hatched: 5 }], 'season').map(({ hatched }) => hatched.count) // [5]
 */
export function hatchRates(clutches: readonly DoneClutch[], by: RateBy): RateRow[] {
  const groups = new Map<string, { group: RateGroup; members: DoneClutch[] }>();
  for (const clutch of clutches) {
    const group = groupOf(clutch, by);
    const key = JSON.stringify(group);
    const known = groups.get(key) ?? { group, members: [] };
    known.members.push(clutch);
    groups.set(key, known);
  }
  return [...groups.values()]
    .map(({ group, members }) => {
      const sum = (of: (clutch: DoneClutch) => number): number =>
        members.reduce((total, clutch) => total + of(clutch), 0);
      const eggs = sum((clutch) => clutch.eggs);
      const good = eggs - sum((clutch) => clutch.slugs);
      const hatched = sum((clutch) => Math.min(clutch.hatched, clutch.eggs - clutch.slugs));
      return {
        group,
        clutches: members.length,
        eggs,
        fertile: shareOf(good, eggs),
        hatched: shareOf(hatched, good),
      };
    })
    .toSorted((a, b) => compareGroups(a.group, b.group));
}
