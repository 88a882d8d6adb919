import type { Factor } from './factor.ts';
import { ROUNDING, withoutIdleAxes } from './idle-axes.ts';
import type { ModelParts, Written } from './model-parts.ts';

/** What one locus says of an animal if one of some candidates is its sire, who transmit alike. */
export interface CandidateTable extends Written {
  /** Which of the open candidates, by their place. */
  readonly candidates: readonly number[];
}

/**
 * Adds what one locus says of an animal whose sire is open: for each candidate a table that counts only where he is the sire.
 * What is the same whoever the sire is does not tie the locus to the choice; and what only weighs the candidates goes into one
 * table over the choice.
 *
 * @param sire - the variable of the choice, with so many `candidates`
 * @param name - of the table over the choice
 * @returns for each table the place of the factor that has all its axes and the choice; -1 where there is none
 */
export function addCandidateTables(
  parts: ModelParts,
  { sire, candidates, name }: { sire: number; candidates: number; name: number },
  tables: readonly CandidateTable[],
): number[] {
  const weights = new Float64Array(candidates);
  const scaled = tables.map((whole) => {
    const reduced = withoutIdleAxes(whole);
    const scale = reduced.table.reduce((a, b) => Math.max(a, b), 0);
    for (const candidate of whole.candidates) weights[candidate] = scale;
    return { ...reduced, table: reduced.table.map((p) => (scale > 0 ? p / scale : 1)) };
  });
  const heaviest = weights.reduce((a, b) => Math.max(a, b), 0);
  if (weights.every((weight) => Math.abs(weight - heaviest) <= ROUNDING * heaviest))
    parts.logConstant += Math.log(heaviest);
  else parts.add({ name, scope: [sire], sizes: [candidates], states: [0], table: weights });
  const places = tables.map(() => -1);
  const done = new Set<number>();
  scaled.forEach((one, t) => {
    if (done.has(t) || one.scope.length === 0) return;
    const alike = [...tables.keys()].filter((other) => isSameTable(one, scaled[other]!));
    for (const other of alike) done.add(other);
    if (alike.length === tables.length) {
      parts.add(one);
      return;
    }
    const chosen = new Set(alike.flatMap((other) => tables[other]!.candidates));
    const place = parts.add({
      name: one.name,
      scope: [sire, ...one.scope],
      sizes: [candidates, ...one.sizes],
      states: [0, ...one.states],
      table: overChoice(candidates, chosen, one.table),
    });
    for (const other of alike) if (tables[other]!.scope.length === one.scope.length) places[other] = place;
  });
  return places;
}

/** A table that counts only where one of these is chosen, and is 1 elsewhere. */
function overChoice(candidates: number, chosen: ReadonlySet<number>, table: Float64Array): Float64Array {
  const over = new Float64Array(candidates * table.length).fill(1);
  for (const candidate of chosen) over.set(table, candidate * table.length);
  return over;
}

function isSameTable(a: Factor, b: Factor): boolean {
  return (
    a.scope.length === b.scope.length &&
    a.scope.every((variable, axis) => variable === b.scope[axis]) &&
    a.table.every((p, at) => Math.abs(p - b.table[at]!) <= ROUNDING)
  );
}
