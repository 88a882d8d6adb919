/**
 * A table over variables, row-major: the last variable's state moves fastest.
 *
 * Variables are known by numbers (see `variables.ts`); the table's axes are those of `scope`, each as long as `sizes`
 * says. `states` tells which alleles the states of an axis stand for, as a bit set (0 for the choice of a sire or a sex).
 */
export interface Factor {
  readonly scope: readonly number[];
  readonly sizes: readonly number[];
  readonly states: readonly number[];
  readonly table: Float64Array;
}

/** The axes of a table, without it. */
export type Axes = Omit<Factor, 'table'>;

/** Axes one after the other. */
export function axesOf(...parts: readonly Axes[]): Axes {
  const scope: number[] = [];
  const sizes: number[] = [];
  const states: number[] = [];
  for (const part of parts) {
    for (let axis = 0; axis < part.scope.length; axis++) {
      scope.push(part.scope[axis]!);
      sizes.push(part.sizes[axis]!);
      states.push(part.states[axis]!);
    }
  }
  return { scope, sizes, states };
}

export function sameFactor(a: Factor, b: Factor): boolean {
  if (a.scope.length !== b.scope.length || a.table.length !== b.table.length) return false;
  for (let i = 0; i < a.scope.length; i++) {
    if (a.scope[i] !== b.scope[i] || a.states[i] !== b.states[i] || a.sizes[i] !== b.sizes[i]) return false;
  }
  for (let i = 0; i < a.table.length; i++) if (a.table[i] !== b.table[i]) return false;
  return true;
}

/** A variable's number, from the locus' place, the animal's place and 0 (from dam) or 1 (from sire). */
export function alleleVariable(locus: number, animal: number, side: 0 | 1): number {
  return (locus * MOST_ANIMALS + animal) * 2 + side;
}

/** Whose allele a variable is. */
export function animalOf(alleleVariable: number): number {
  return Math.floor(alleleVariable / 2) % MOST_ANIMALS;
}

/** At which locus. */
export function locusOf(alleleVariable: number): number {
  return Math.floor(alleleVariable / 2 / MOST_ANIMALS);
}

/** The variables that tie loci together: which candidate sired an animal, and its sex. Negative numbers. */
export function sireVariable(animal: number): number {
  return -1 - 2 * animal;
}

export function sexVariable(animal: number): number {
  return -2 - 2 * animal;
}

const MOST_ANIMALS = 2 ** 22;
