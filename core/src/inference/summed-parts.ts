import type { LocusDomains } from './domains.ts';
import { sireVariable, type Factor } from './factor.ts';
import type { LocusState, Placed, Setting } from './locus-state.ts';
import type { OpenSires } from './open-sires.ts';
import { groupFactors, solvePart, type Estimator, type Part } from './parts.ts';

/** All factors of a collection in the parts that they fall into, each summed once. */
export class SummedParts {
  private readonly estimate: Estimator | undefined;
  private readonly placed = new Map<Factor, Placed>();
  private readonly parts = new Set<Part>();
  /** The priors of open sires and sexes, by their variable. */
  private readonly tieFactors = new Map<number, Factor>();

  /** @param estimate - answers where a part is too wide to be exact */
  constructor(estimate: Estimator | undefined) {
    this.estimate = estimate;
  }

  get all(): ReadonlySet<Part> {
    return this.parts;
  }

  /** The marginal of an open sire or sex; undefined where nothing says anything of it. */
  tieMarginal(variable: number): Float64Array | undefined {
    const placed = this.placed.get(this.tieFactors.get(variable)!);
    return placed?.part.marginals[placed.at];
  }

  /** These animals have other open candidates than before. */
  forgetSires(animals: readonly number[]): void {
    for (const i of animals) this.tieFactors.delete(sireVariable(i));
  }

  /** Writes the tables of these loci anew, sums what hangs together with them, and reads the answers. */
  rebuild(
    loci: readonly LocusState[],
    dirty: ReadonlySet<number>,
    domains: ReadonlyMap<number, LocusDomains>,
    setting: Setting,
    sires: OpenSires,
  ): void {
    const dissolved = new Set<Part>();
    const gone = new Set<Factor>();
    const pool = new Set<Factor>();
    const dissolve = (factor: Factor | undefined): void => {
      const placed = factor && this.placed.get(factor);
      if (placed) dissolved.add(placed.part);
    };
    for (const l of dirty) {
      const state = loci[l]!;
      for (const factor of state.factors) {
        dissolve(factor);
        gone.add(factor);
      }
      state.rebuild(setting, l, sires.open, domains.get(l));
      for (const factor of state.factors) {
        pool.add(factor);
        for (const variable of factor.scope) if (variable < 0) dissolve(this.tieFactors.get(variable));
      }
    }
    for (const part of dissolved) {
      this.parts.delete(part);
      for (const factor of part.factors) {
        this.placed.delete(factor);
        if (!gone.has(factor) && isOfLocus(factor)) pool.add(factor);
      }
    }
    const fresh = this.sumUp([...pool], dissolved, sires);
    loci.forEach((state, l) => state.read(this.placed, dirty.has(l) ? 'all' : fresh));
  }

  /** Sums the groups that factors fall into, but for those that were a part before. @returns what is new */
  private sumUp(factors: readonly Factor[], before: ReadonlySet<Part>, sires: OpenSires): Set<Factor> {
    const known = new Map<Factor, Part>([...before].map((part) => [part.factors.find(isOfLocus)!, part]));
    const fresh = new Set<Factor>();
    for (const group of groupFactors([...factors, ...this.tiesOf(factors, sires)])) {
      const old = known.get(group.find((factor) => known.has(factor)) ?? group[0]!);
      const same = old && old.factors.length === group.length && isSameSet(old.factors, group);
      const part = same ? old : solvePart(group, this.estimate);
      this.parts.add(part);
      part.factors.forEach((factor, at) => {
        this.placed.set(factor, { part, at });
        if (!same) fresh.add(factor);
      });
    }
    return fresh;
  }

  /** The factors of the open sires and sexes in the scope of these factors. */
  private tiesOf(factors: readonly Factor[], sires: OpenSires): Factor[] {
    const wanted = new Set<number>();
    for (const { scope } of factors) for (const variable of scope) if (variable < 0) wanted.add(variable);
    return [...wanted].map((variable) => {
      const known = this.tieFactors.get(variable);
      if (known) return known;
      const isSex = variable % 2 === 0;
      const weights = isSex ? [0.5, 0.5] : sires.weightsOf((-1 - variable) / 2);
      const sum = weights.reduce((a, b) => a + b, 0);
      const factor: Factor = {
        scope: [variable],
        sizes: [weights.length],
        states: [0],
        table: Float64Array.from(weights, (weight) => weight / sum),
      };
      this.tieFactors.set(variable, factor);
      return factor;
    });
  }
}

/** Whether a factor is of a locus, and not the prior of an open sire or sex. */
function isOfLocus(factor: Factor): boolean {
  return 'name' in factor;
}

function isSameSet(a: readonly Factor[], b: readonly Factor[]): boolean {
  const set = new Set(a);
  return b.every((factor) => set.has(factor));
}
