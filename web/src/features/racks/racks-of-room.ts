import type { LadderStepInput, NewRack } from '@karyotome/contract';

/** How many racks of one kind of tub stand in a room, and how large they are. */
export interface RackRow {
  count: number | null;
  levels: number | null;
  tubsPerLevel: number | null;
}

/** What a row begins with: many small tubs, few large ones. */
export const rowFor = (position: number): RackRow => ({
  count: 0,
  levels: position === 0 ? 10 : 6,
  tubsPerLevel: Math.max(2, 6 - position * 2),
});

/** "Hatchling tub" names racks "Hatchling 1", "Hatchling 2". */
const stem = (step: string): string => step.replace(/\s+tub$/i, '');

/**
 * The racks of a room, a name for each that is not taken there.
 *
 * @param rows - one for each step of the ladder
 * @param taken - names of racks that stand in the room already
 */
export function racksOfRoom(
  { room, ladderId }: { readonly room: string; readonly ladderId: string },
  steps: readonly Pick<LadderStepInput, 'name'>[],
  rows: readonly RackRow[],
  taken: readonly string[],
): NewRack[] {
  const used = new Set(taken);
  return rows.flatMap(({ count, levels, tubsPerLevel }, stepPosition) =>
    Array.from({ length: count ?? 0 }, () => {
      const base = stem(steps[stepPosition]!.name);
      let n = 1;
      while (used.has(`${base} ${n}`)) n += 1;
      const name = `${base} ${n}`;
      used.add(name);
      return { room, name, levels: levels ?? 0, tubsPerLevel: tubsPerLevel ?? 0, ladderId, stepPosition };
    }),
  );
}
