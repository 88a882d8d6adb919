import { sireVariable } from './factor.ts';
import type { LocusTables } from './locus-tables.ts';
import type { Derived } from './model.ts';
import type { Family } from './family.ts';
import { forEachGamete, WAYS } from './transmission.ts';

/**
 * How an animal's own alleles follow from its parents'.
 *
 * @param cells - its pair in each of its own states
 * @returns null where that depends on its open sex
 */
export function derive(
  tables: LocusTables,
  i: number,
  { mother, candidates }: Family,
  cells: readonly number[],
): Omit<Derived, 'order'> | null {
  const several = candidates.groups.length > 1;
  const terms: Derived['terms'][number][] = [];
  for (const { father, places } of candidates.groups) {
    const way = tables.way(i, father);
    if (way === null) return null;
    const given = [...mother.blocks, ...father.blocks];
    const count = mother.alleleChances[0]!.length * father.alleleChances[0]!.length;
    const table = new Float64Array(count * cells.length);
    forEachGamete(mother, father, WAYS[way]!, (fromDam, fromSire, state) => {
      const whole = new Float64Array(tables.cells);
      const sum = tables.pairs.spread(i, fromDam, fromSire, whole, 1);
      if (sum > 0) cells.forEach((cell, own) => (table[state * cells.length + own] = whole[cell]! / sum));
    });
    terms.push({
      choice: several ? { tie: sireVariable(i), candidates: candidates.count, places } : null,
      given,
      table,
    });
  }
  return { states: cells.length, terms };
}
