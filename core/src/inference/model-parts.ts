import type { LocusModel, NamedFactor, Need, Reading } from './model.ts';
import { withoutIdleAxes } from './sire-factors.ts';

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

  /**
   * Adds a table without the axes that it does not depend on.
   *
   * @param blocks - what its axes stand for
   * @returns what a reading over all its axes needs
   */
  addReduced(factor: NamedFactor, blocks: Need): Need {
    const reduced = withoutIdleAxes(factor);
    const place = this.add(reduced);
    return reduced === factor && place >= 0 ? [{ factor: place }] : blocks;
  }

  done(): LocusModel {
    return { factors: this.factors, readings: this.readings, logConstant: this.logConstant };
  }
}
