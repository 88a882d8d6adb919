import type { LocusDomains } from './domains.ts';
import { sireVariable, type Axes, type Factor } from './factor.ts';
import type { LocusState, Setting } from './locus-state.ts';
import { askGroups, type Placed } from './marginals.ts';
import type { OpenSires } from './open-sires.ts';
import { groupFactors, solvePart, type Asked, type Estimator, type Part } from './parts.ts';

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
    const tie = (variable: number): Factor => this.tieOf(variable, sires);
    for (const l of dirty) {
      const state = loci[l]!;
      for (const factor of state.factors) {
        dissolve(factor);
        gone.add(factor);
      }
      state.rebuild(setting, l, sires.open, domains.get(l));
      for (const factor of state.factors) pool.add(factor);
      for (const variable of state.needs.ties()) dissolve(this.tieFactors.get(variable));
    }
    const fresh = new Set<Factor>();
    for (const part of dissolved) {
      this.parts.delete(part);
      for (const factor of part.factors) {
        this.placed.delete(factor);
        if (!isOfLocus(factor)) fresh.add(factor);
        else if (!gone.has(factor)) pool.add(factor);
      }
    }
    this.sumUp([...pool], { before: dissolved, loci, tie, fresh });
    loci.forEach((state, l) => state.read(this.placed, tie, dirty.has(l) ? 'all' : fresh));
  }

  /** Sums the groups that factors fall into, but for those that were a part before. @param fresh - takes what is new */
  private sumUp(factors: readonly Factor[], { before, loci, tie, fresh }: Summing): void {
    const known = new Map<Factor, Part>([...before].map((part) => [part.factors.find(isOfLocus)!, part]));
    const ties = new Set<number>();
    for (const { scope } of factors) for (const variable of scope) if (variable < 0) ties.add(variable);
    const groups = groupFactors([...factors, ...[...ties].map(tie)]);
    const questions = askedOf(groups, loci, tie);
    groups.forEach((group, g) => {
      const old = known.get(group.find((factor) => known.has(factor)) ?? group[0]!);
      const asked = questions.get(g) ?? NOTHING_ASKED;
      const same = old && isSame(old, group, asked);
      const part = same ? old : solvePart(group, asked, this.estimate);
      this.parts.add(part);
      part.factors.forEach((factor, at) => {
        this.placed.set(factor, { part, at });
        if (!same) fresh.add(factor);
      });
    });
  }

  /** The prior of an open sire or sex. */
  private tieOf(variable: number, sires: OpenSires): Factor {
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
  }
}

interface Summing {
  /** The parts that the factors stood in, taken apart. */
  readonly before: ReadonlySet<Part>;
  readonly loci: readonly LocusState[];
  readonly tie: (variable: number) => Factor;
  readonly fresh: Set<Factor>;
}

const NOTHING_ASKED: Asked = new Map<string, Axes>();

/** The joint marginals that readings need, by group. */
function askedOf(
  groups: readonly (readonly Factor[])[],
  loci: readonly LocusState[],
  tie: (variable: number) => Factor,
): Map<number, Map<string, Axes>> {
  const asked = new Map<number, Map<string, Axes>>();
  if (loci.every((state) => state.needs.joints.length === 0)) return asked;
  const groupOf = new Map<Factor, number>();
  groups.forEach((group, g) => {
    for (const factor of group) groupOf.set(factor, g);
  });
  for (const state of loci)
    for (const need of state.needs.joints)
      askGroups(need, state.needs.blocks(tie), (factor) => groupOf.get(factor), asked);
  return asked;
}

/** Whether a factor is of a locus, and not the prior of an open sire or sex. */
function isOfLocus(factor: Factor): boolean {
  return 'name' in factor;
}

/** Whether a part holds just these factors, and has answered just that. */
function isSame(part: Part, group: readonly Factor[], asked: Asked): boolean {
  if (part.factors.length !== group.length || part.joints.size !== asked.size) return false;
  const set = new Set(part.factors);
  return group.every((factor) => set.has(factor)) && [...asked.keys()].every((key) => part.joints.has(key));
}
