import { animalOf } from './factor.ts';
import type { Derived, LocusModel, NamedFactor, Need, Reading } from './model.ts';
import { withoutIdleAxes } from './idle-axes.ts';

/** Names of a locus's factors are animals, families or candidate sires times this, plus a kind. */
export const FACTOR_KINDS = 8;

/** The largest joint marginal that is asked for so that an animal needs no variables. */
const MOST_STATES = 2 ** 8;

/** A factor while it is not known yet who reads it. */
export type Written = Omit<NamedFactor, 'isRead'>;

/** A locus's model while it is written. */
export class ModelParts {
  readonly factors: (NamedFactor & { isRead: boolean })[] = [];
  readonly readings: Reading[] = [];
  readonly owns = new Map<number, number>();
  readonly derived = new Map<number, Derived>();
  logConstant = 0;
  private readonly spokenOf = new Set<number>();
  /** Animal -> states of the largest joint marginal that a reading needs with its alleles. */
  private readonly needed = new Map<number, number>();

  /** @returns the place of the factor; -1 where it has no variable, and is a constant */
  add({ name, scope, sizes, states, table }: Written): number {
    if (scope.length === 0) {
      this.logConstant += Math.log(table[0]!);
      return -1;
    }
    this.speakOf(scope);
    return this.factors.push({ name, scope, sizes, states, table, isRead: false }) - 1;
  }

  /**
   * Adds a table without the axes that it does not depend on.
   *
   * @param blocks - what its axes stand for
   * @returns what a reading over all its axes needs
   */
  addReduced(factor: Written, blocks: Need): Need {
    const reduced = withoutIdleAxes(factor);
    const place = this.add(reduced);
    return reduced === factor && place >= 0 ? [{ factor: place }] : blocks;
  }

  /** A reading needs the joint marginal of these blocks, with so many states. */
  need(blocks: Need, states: number): void {
    for (const block of blocks)
      if ('own' in block) this.needed.set(block.own, Math.max(this.needed.get(block.own) ?? 0, states));
  }

  /**
   * An animal's alleles stand in no table, but follow from its parents'. Descendants come first.
   *
   * @returns false where readings would then need too large a joint marginal
   */
  derive(animal: number, derived: Omit<Derived, 'order'>): boolean {
    const others = Math.max(1, (this.needed.get(animal) ?? 1) / derived.states);
    const states = derived.terms.map(
      ({ choice, table }) => (others * table.length * (choice ? choice.candidates : 1)) / derived.states,
    );
    if (Math.max(...states) > MOST_STATES) return false;
    derived.terms.forEach(({ given }, t) => this.need(given, states[t]!));
    this.derived.set(animal, { ...derived, order: this.derived.size });
    return true;
  }

  /** Some table depends on these variables, or will. */
  speakOf(scope: readonly number[]): void {
    for (const variable of scope) if (variable >= 0) this.spokenOf.add(animalOf(variable));
  }

  /** Whether a table depends on what an animal transmits. */
  isSpokenOf(animal: number): boolean {
    return this.spokenOf.has(animal);
  }

  done(): LocusModel {
    const { factors, readings, owns, derived, logConstant } = this;
    for (const place of owns.values()) factors[place]!.isRead = true;
    for (const { needs } of readings)
      for (const need of needs)
        for (const block of need) if ('factor' in block) factors[block.factor]!.isRead = true;
    return { factors, readings, owns, derived, logConstant };
  }
}
