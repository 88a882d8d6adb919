import type { LocusModel, NamedFactor, Reading } from './model.ts';

/** Names of a locus's factors are animals, families or candidate sires times this, plus a kind. */
export const FACTOR_KINDS = 8;

/** A locus's model while it is written. */
export class ModelParts {
  readonly factors: NamedFactor[] = [];
  readonly readings: Reading[] = [];
  logConstant = 0;

  /** @returns the place of the factor; -1 where it has no variable, and is a constant */
  add({ name, scope, sizes, states, table }: NamedFactor): number {
    if (scope.length === 0) {
      this.logConstant += Math.log(table[0]!);
      return -1;
    }
    return this.factors.push({ name, scope, sizes, states, table }) - 1;
  }

  done(): LocusModel {
    return { factors: this.factors, readings: this.readings, logConstant: this.logConstant };
  }
}
