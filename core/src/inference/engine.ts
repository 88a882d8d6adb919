import type { Call, Pedigree, PedigreeAnimal } from '../pedigree/document.ts';
import {
  indexPedigree,
  isFounder,
  sireCount,
  withDescendants,
  type IndexedPedigree,
} from '../pedigree/index-pedigree.ts';
import { holdsTogether } from './conflict/consistency.ts';
import type { LocusDomains } from './domains.ts';
import { sexVariable, sireVariable, type Factor } from './factor.ts';
import type { Distribution } from './model.ts';
import { LocusState, type Placed, type Setting } from './locus-state.ts';
import { groupFactors, solvePart, type Estimator, type Part } from './parts.ts';

/** Loci whose records cannot hold together: one alone, or several through an open sire or sex. */
export interface Clash {
  readonly kind: 'locus' | 'sires' | 'sex';
  readonly loci: readonly string[];
}

/**
 * Exact posteriors for a whole collection, kept up to date as records change.
 *
 * Loci are tied together only where a sire is open (or a sex, at sex-linked loci). A change computes anew the loci whose
 * evidence it touches, and of those only the parts whose tables really changed.
 */
export class PedigreeEngine {
  private readonly estimate: Estimator | undefined;
  private current: Pedigree;
  private ties!: IndexedPedigree;
  private loci: LocusState[] = [];
  private placeOf: ReadonlyMap<string, number> = new Map();
  /** Scratch: the calls of the animal being read, by locus. */
  private callsAt: (readonly Call[])[] = [];
  /** 1 for each candidate sire that no locus rules out; `closed` lists the others. */
  private sireOpen = new Uint8Array();
  private closed: number[] = [];
  private placed = new Map<Factor, Placed>();
  private parts = new Set<Part>();
  private tieFactors = new Map<number, Factor>();
  /** Animals whose candidate sires must all stay open, since loci disagree about them: the tables then show the clash. */
  private undecided = new Set<number>();
  private found: Clash[] = [];

  /**
   * @param pedigree - checked (`parsePedigree` checks a document)
   * @param estimate - answers where a part is too wide to be exact
   * @throws CostError where a part is too wide and there is no `estimate`
   */
  constructor(pedigree: Pedigree, estimate?: Estimator) {
    this.estimate = estimate;
    this.current = pedigree;
    this.restart();
  }

  get pedigree(): Pedigree {
    return this.current;
  }

  get index(): IndexedPedigree {
    return this.ties;
  }

  get clashes(): readonly Clash[] {
    return this.found;
  }

  /** False where some part was too wide and its answer is an estimate. */
  get exact(): boolean {
    return ![...this.parts].some((part) => part.runs);
  }

  /** Entries of the widest table. */
  get widest(): number {
    return [...this.parts].reduce((most, part) => Math.max(most, part.largest), 1);
  }

  /** Natural logarithm of the probability of all calls; null where they cannot all be true. */
  get logLikelihood(): number | null {
    if (this.found.length > 0) return null;
    let sum = this.logOpenSires();
    for (const part of this.parts) sum += part.logTotal;
    for (const { logConstant } of this.loci) sum += logConstant;
    return sum;
  }

  alleles(locus: number): readonly string[] {
    return this.loci[locus]!.evidence.alleles;
  }

  /** The distribution over ordered pairs of alleles at a locus; undefined where the locus is left out. */
  distribution(animal: number, locus: number): Distribution | undefined {
    const state = this.loci[locus]!;
    return state.excluded ? undefined : state.distributions[state.distributionOf[animal]!];
  }

  /** Of a distribution that is an estimate. */
  standardError(animal: number, locus: number): Distribution | undefined {
    return this.loci[locus]!.standardError(animal);
  }

  /** All distributions of a locus, and which of them each animal has; null where the locus is left out. */
  compact(locus: number): Pick<LocusState, 'distributionOf' | 'distributions'> | null {
    const state = this.loci[locus]!;
    return state.excluded ? null : state;
  }

  /** The probability of each candidate sire, in the order of the document. */
  sireOdds(animal: number): number[] {
    const from = this.ties.sireStart[animal]!;
    const count = sireCount(this.ties, animal);
    const open = Array.from({ length: count }, (_, k) => this.sireOpen[from + k]! === 1);
    const marginal = this.tieMarginal(sireVariable(animal));
    const weights = open.map((isOpen, k) => (isOpen ? this.ties.sireWeight[from + k]! : 0));
    const sum = weights.reduce((a, b) => a + b, 0);
    let at = 0;
    return open.map((isOpen, k) => (!isOpen ? 0 : marginal ? marginal[at++]! : weights[k]! / sum));
  }

  /** The probability that an animal of unrecorded sex is female. */
  femaleOdds(animal: number): number {
    return this.tieMarginal(sexVariable(animal))?.[0] ?? 0.5;
  }

  private tieMarginal(variable: number): Float64Array | undefined {
    const placed = this.placed.get(this.tieFactors.get(variable)!);
    return placed?.part.marginals[placed.at];
  }

  private get setting(): Setting {
    return { ties: this.ties, unrecorded: this.current.unrecorded };
  }

  /**
   * Brings the answers into line with a changed pedigree.
   *
   * Changed records and animals added at the end are cheap. New loci, other parents, or an animal taken out start anew.
   */
  update(next: Pedigree): void {
    const before = this.current;
    this.current = next;
    if (!isExtension(before, next)) {
      this.restart();
      return;
    }
    const sexBefore = this.ties.sex;
    const grown = next.animals.length > before.animals.length;
    // Records alone change no ties.
    const retied = grown || next.animals.some((animal, i) => animal.sex !== before.animals[i]!.sex);
    if (retied) this.ties = indexPedigree(next);
    if (grown) for (const state of this.loci) state.grow(this.ties.size, this.ties.sire.length);
    const touched = new Map<number, Set<number>>();
    next.animals.forEach((animal, i) => {
      if (before.animals[i] !== animal) this.readAnimal(i, animal, touched);
    });
    const descents = new Map<string, number[]>();
    const descending = (animals: ReadonlySet<number>): number[] => {
      const key = [...animals].join();
      const known = descents.get(key) ?? withDescendants(this.ties, animals);
      descents.set(key, known);
      return known;
    };
    const sexed = sexBefore.some((sex, i) => sex !== this.ties.sex[i]);
    const dirty = new Set(touched.keys());
    this.loci.forEach((state, l) => {
      const anew = (sexed && state.evidence.locus.sexLinked) || (touched.has(l) && !state.alone.possible);
      if (anew) state.narrowAnew(this.setting);
      else if (touched.has(l)) state.narrowAgain(this.setting, descending(touched.get(l)!));
      if (anew || state.excluded) dirty.add(l);
    });
    this.recompute(dirty);
  }

  private restart(): void {
    this.ties = indexPedigree(this.current);
    this.placed = new Map();
    this.parts = new Set();
    this.tieFactors = new Map();
    this.loci = this.current.loci.map((locus) => new LocusState(locus, this.ties.size));
    this.placeOf = new Map(this.current.loci.map((locus, l) => [locus.id, l]));
    this.callsAt = this.loci.map(() => NONE);
    this.current.animals.forEach((animal, i) => this.readAnimal(i, animal, null));
    for (const state of this.loci) state.narrowAnew(this.setting);
    this.recompute(new Set(this.loci.keys()));
  }

  /** @param touched - takes the animals whose record matters, by locus; null where everything is read anew */
  private readAnimal(i: number, animal: PedigreeAnimal, touched: Map<number, Set<number>> | null): void {
    const { setting } = this;
    const founder = isFounder(this.ties, i) ? animal.founder : undefined;
    for (const call of animal.calls ?? NONE) {
      const l = this.placeOf.get(call.locus);
      // A pedigree cut down to some loci keeps its animals' other calls.
      if (l === undefined) continue;
      const list = this.callsAt[l]!;
      this.callsAt[l] = list.length === 0 ? [call] : [...list, call];
    }
    for (let l = 0; l < this.loci.length; l++) {
      const matters = this.loci[l]!.take(setting, i, this.callsAt[l]!, founder);
      this.callsAt[l] = NONE;
      if (!touched || !matters) continue;
      const animals = touched.get(l);
      if (animals) animals.add(i);
      else touched.set(l, new Set([i]));
    }
  }

  private recompute(dirty: Set<number>): void {
    this.found = [];
    for (const l of dirty) this.loci[l]!.excluded = !this.loci[l]!.alone.possible;
    for (const { excluded, id } of this.loci) if (excluded) this.found.push({ kind: 'locus', loci: [id] });
    this.undecided = new Set();
    let todo = dirty;
    do {
      let domains = this.settleSires(todo);
      while (!domains) domains = this.settleSires(todo);
      this.solve(todo, domains);
      todo = this.excludeClashing();
    } while (todo.size > 0);
  }

  /**
   * Narrows the loci down with the sires that all of them leave open.
   *
   * @returns null where that leaves nothing at a locus that is sound alone: then the sires in question stay open
   */
  private settleSires(dirty: Set<number>): Map<number, LocusDomains> | null {
    this.closeSires(dirty);
    const domains = new Map<number, LocusDomains>();
    for (const l of dirty) {
      const state = this.loci[l]!;
      if (state.excluded) continue;
      const narrowed = state.narrowedBySires(this.setting, this.sireOpen, this.closed);
      if (!narrowed.possible) {
        for (let i = 0; i < this.ties.size; i++) {
          for (let e = this.ties.sireStart[i]!; e < this.ties.sireStart[i + 1]!; e++) {
            if (this.sireOpen[e] !== state.alone.sireOpen[e]) this.undecided.add(i);
          }
        }
        return null;
      }
      domains.set(l, narrowed);
    }
    return domains;
  }

  /** Rules out the candidate sires that any locus rules out, and adds the loci at which that makes a difference. */
  private closeSires(dirty: Set<number>): void {
    const { ties } = this;
    const open = new Uint8Array(ties.sire.length).fill(1);
    const changed = new Set<number>();
    for (let i = 0; i < ties.size; i++) {
      const from = ties.sireStart[i]!;
      const to = ties.sireStart[i + 1]!;
      if (to - from < 2) continue;
      for (const { alone, excluded } of this.loci) {
        if (!excluded) for (let e = from; e < to; e++) open[e]! &= alone.sireOpen[e]!;
      }
      const none = open.subarray(from, to).every((isOpen) => isOpen === 0);
      if (none || this.undecided.has(i)) open.fill(1, from, to);
      for (let e = from; e < to; e++) if (open[e] !== this.sireOpen[e]) changed.add(i);
    }
    this.sireOpen = open;
    this.closed = [];
    open.forEach((isOpen, e) => isOpen === 0 && this.closed.push(e));
    for (const i of changed) this.tieFactors.delete(sireVariable(i));
    this.loci.forEach((state, l) => {
      if (!state.excluded && [...changed].some((i) => state.mindsSiresOf(this.setting, i))) dirty.add(l);
    });
  }

  /** Writes the tables of these loci anew, sums what hangs together with them, and reads the answers. */
  private solve(dirty: ReadonlySet<number>, domains: ReadonlyMap<number, LocusDomains>): void {
    const dissolved = new Set<Part>();
    const gone = new Set<Factor>();
    const pool = new Set<Factor>();
    const dissolve = (factor: Factor | undefined): void => {
      const placed = factor && this.placed.get(factor);
      if (placed) dissolved.add(placed.part);
    };
    for (const l of dirty) {
      const state = this.loci[l]!;
      for (const factor of state.factors) {
        dissolve(factor);
        gone.add(factor);
      }
      state.rebuild(this.setting, l, this.sireOpen, domains.get(l));
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
    const fresh = this.sumUp([...pool], dissolved);
    this.loci.forEach((state, l) => state.read(this.placed, dirty.has(l) ? 'all' : fresh));
  }

  /** Sums the groups that factors fall into, but for those that were a part before. @returns what is new */
  private sumUp(factors: readonly Factor[], before: ReadonlySet<Part>): Set<Factor> {
    const known = new Map<Factor, Part>([...before].map((part) => [part.factors.find(isOfLocus)!, part]));
    const fresh = new Set<Factor>();
    for (const group of groupFactors([...factors, ...this.tiesOf(factors)])) {
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
  private tiesOf(factors: readonly Factor[]): Factor[] {
    const wanted = new Set<number>();
    for (const { scope } of factors) for (const variable of scope) if (variable < 0) wanted.add(variable);
    return [...wanted].map((variable) => {
      const known = this.tieFactors.get(variable);
      if (known) return known;
      const isSex = variable % 2 === 0;
      const weights = isSex ? [0.5, 0.5] : this.openWeights((-1 - variable) / 2);
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

  private openWeights(animal: number): number[] {
    const weights: number[] = [];
    for (let e = this.ties.sireStart[animal]!; e < this.ties.sireStart[animal + 1]!; e++) {
      if (this.sireOpen[e]) weights.push(this.ties.sireWeight[e]!);
    }
    return weights;
  }

  /** What ruling out candidates costs: the logarithm of the weight that is left, over all animals. */
  private logOpenSires(): number {
    let sum = 0;
    for (let i = 0; i < this.ties.size; i++) {
      if (sireCount(this.ties, i) < 2) continue;
      sum += Math.log(
        Math.min(
          1,
          this.openWeights(i).reduce((a, b) => a + b, 0),
        ),
      );
    }
    return sum;
  }

  /** Leaves out what cannot be: first the loci that fail alone, else all that fail together. @returns whom that touches */
  private excludeClashing(): Set<number> {
    const touched = new Set<number>();
    for (const part of [...this.parts].filter(({ logTotal }) => logTotal === -Infinity)) {
      const loci = [...this.loci.keys()].filter((l) =>
        part.factors.some((factor) => this.loci[l]!.owns(factor)),
      );
      const ids = loci.map((l) => this.loci[l]!.id);
      const alone =
        loci.length === 1 ? loci : loci.filter((l) => !holdsTogether(this.current, [this.loci[l]!.id]));
      for (const l of alone) this.found.push({ kind: 'locus', loci: [this.loci[l]!.id] });
      if (alone.length === 0) this.found.push({ kind: this.clashKind(ids), loci: ids });
      for (const l of alone.length > 0 ? alone : loci) {
        this.loci[l]!.excluded = true;
        touched.add(l);
      }
    }
    return touched;
  }

  /** Whether it is the choice of sires that cannot be made, or the sexes that cannot be. */
  private clashKind(loci: readonly string[]): 'sires' | 'sex' {
    const linked = this.current.loci.filter((locus) => loci.includes(locus.id) && locus.sexLinked);
    if (linked.length < 2) return 'sires';
    if (this.current.animals.every((animal) => (animal.sires?.length ?? 0) < 2)) return 'sex';
    // With every sex open at each locus by itself, does a choice of sires remain?
    return holdsTogether(this.current, loci, { splitSex: true }) ? 'sex' : 'sires';
  }
}

const NONE: readonly Call[] = [];

/** Whether the loci, the animals so far and their parents are the same. */
function isExtension(before: Pedigree, next: Pedigree): boolean {
  if (before.unrecorded !== next.unrecorded || next.animals.length < before.animals.length) return false;
  if (before.loci !== next.loci && JSON.stringify(before.loci) !== JSON.stringify(next.loci)) return false;
  return before.animals.every((animal, i) => {
    const other = next.animals[i]!;
    if (animal === other) return true;
    const sires = animal.sires ?? [];
    return (
      animal.id === other.id &&
      animal.dam === other.dam &&
      animal.bredAlone === other.bredAlone &&
      sires.length === (other.sires?.length ?? 0) &&
      sires.every((sire, k) => sire.id === other.sires![k]!.id && sire.weight === other.sires![k]!.weight)
    );
  });
}

/** Whether a factor is of a locus, and not the prior of an open sire or sex. */
function isOfLocus(factor: Factor): boolean {
  return 'name' in factor;
}

function isSameSet(a: readonly Factor[], b: readonly Factor[]): boolean {
  const set = new Set(a);
  return b.every((factor) => set.has(factor));
}
