import type { Call, Pedigree, PedigreeAnimal, PedigreeLocus } from '../pedigree/document.ts';
import {
  indexPedigree,
  isFounder,
  sireCount,
  withDescendants,
  type IndexedPedigree,
} from '../pedigree/index-pedigree.ts';
import { holdsTogether } from './conflict/consistency.ts';
import { DomainTable, narrowDomains, WILD_DOMAIN, type LocusDomains } from './domains.ts';
import { LocusEvidence } from './evidence.ts';
import { sameFactor, sexVariable, sireVariable, type Factor } from './factor.ts';
import { LocusModelBuilder, type Distribution, type LocusModel, type NamedFactor } from './locus-model.ts';
import { groupFactors, solvePart, type Estimator, type Part } from './parts.ts';

/** One locus as it stands. */
interface LocusState {
  readonly evidence: LocusEvidence;
  readonly table: DomainTable;
  /** What its own evidence leaves, whichever the sires. */
  alone: LocusDomains;
  /** What is left once other loci have ruled out sires: what the model was built from. */
  domains: LocusDomains;
  model: LocusModel;
  byName: ReadonlyMap<number, NamedFactor>;
  /** Animal -> place in `distributions`; 0 is wild type for certain. */
  distributionOf: Int32Array;
  /** Reading n of the model stands at place n + 1. */
  distributions: Distribution[];
  /** Beside `distributions`, where they are estimates. */
  standardErrors: Map<number, Distribution>;
  /** Left out, since its records contradict one another, or those of other loci. */
  excluded: boolean;
}

/** Where a factor's marginal stands. */
interface Placed {
  readonly part: Part;
  readonly at: number;
}

/** Loci whose records cannot hold together: one alone, or several through an open sire or sex. */
export interface Clash {
  readonly kind: 'locus' | 'sires' | 'sex';
  readonly loci: readonly string[];
}

const NOTHING: LocusModel = { factors: [], readings: [], logConstant: 0 };

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
  private sireOpen = new Uint8Array();
  /** The candidates that are ruled out. */
  private closed: number[] = [];
  private placed = new Map<Factor, Placed>();
  private parts = new Set<Part>();
  private tieFactors = new Map<number, Factor>();
  /** Animals whose candidate sires must all stay open, since loci disagree about them: the tables then show the clash. */
  private undecided = new Set<number>();
  private found: Clash[] = [];

  /**
   * @param pedigree - checked (`checkPedigree`)
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
    let sum = 0;
    for (const part of this.parts) sum += part.logTotal;
    for (const { model, domains } of this.loci) sum += model.logConstant + domains.plainLog;
    return sum + this.logOpenSires();
  }

  /** The distribution over ordered pairs of alleles at a locus; undefined where the locus is left out. */
  distribution(animal: number, locus: number): Distribution | undefined {
    const state = this.loci[locus]!;
    return state.excluded ? undefined : state.distributions[state.distributionOf[animal]!];
  }

  standardError(animal: number, locus: number): Distribution | undefined {
    const state = this.loci[locus]!;
    return state.standardErrors.get(state.distributionOf[animal]!);
  }

  /** What `CompactPosterior` stores of a locus. */
  compact(locus: number): { distributionOf: Int32Array; distributions: readonly Distribution[] } | null {
    const state = this.loci[locus]!;
    return state.excluded ? null : state;
  }

  alleles(locus: number): readonly string[] {
    return this.loci[locus]!.evidence.alleles;
  }

  get index(): IndexedPedigree {
    return this.ties;
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
    const touched = new Map<number, Set<number>>();
    if (grown) this.grow();
    next.animals.forEach((animal, i) => {
      if (before.animals[i] !== animal) this.readAnimal(i, animal, touched);
    });
    const sexed = sexBefore.some((sex, i) => sex !== this.ties.sex[i]);
    const anew = new Set<number>();
    this.loci.forEach(({ evidence, alone }, l) => {
      if ((sexed && evidence.locus.sexLinked) || (touched.has(l) && !alone.possible)) anew.add(l);
    });
    for (const l of anew) this.loci[l]!.alone = this.narrowAnew(this.loci[l]!);
    for (const [l, animals] of touched) {
      if (!anew.has(l)) this.loci[l]!.alone = this.narrowAgain(this.loci[l]!, animals);
    }
    const dirty = new Set([...anew, ...touched.keys()]);
    this.loci.forEach(({ excluded }, l) => excluded && dirty.add(l));
    this.recompute(dirty);
  }

  private restart(): void {
    this.ties = indexPedigree(this.current);
    this.placed = new Map();
    this.parts = new Set();
    this.tieFactors = new Map();
    this.loci = this.current.loci.map((locus) => emptyState(locus, this.ties.size));
    this.placeOf = new Map(this.current.loci.map((locus, l) => [locus.id, l]));
    this.callsAt = this.loci.map(() => NONE);
    this.current.animals.forEach((animal, i) => this.readAnimal(i, animal, null));
    for (const state of this.loci) state.alone = this.narrowAnew(state);
    this.recompute(new Set(this.loci.keys()));
  }

  private grow(): void {
    const { size, sire } = this.ties;
    for (const state of this.loci) {
      state.evidence.grow(size);
      const place = new Int32Array(size).fill(UNSEEN);
      place.set(state.alone.place);
      const plain = new Uint8Array(size);
      plain.set(state.alone.plain);
      const sireOpen = new Uint8Array(sire.length).fill(1);
      sireOpen.set(state.alone.sireOpen);
      // The two may be one object, and then stay one: the new animals' calls are added to both.
      const one = state.domains === state.alone;
      state.alone = { ...state.alone, place, plain, sireOpen };
      state.domains = one ? state.alone : { ...state.domains };
      const distributionOf = new Int32Array(size);
      distributionOf.set(state.distributionOf);
      state.distributionOf = distributionOf;
    }
  }

  /** @param touched - takes the animals whose record matters, by locus; null where everything is read anew */
  private readAnimal(i: number, animal: PedigreeAnimal, touched: Map<number, Set<number>> | null): void {
    const founder = isFounder(this.ties, i) ? animal.founder : undefined;
    for (const call of animal.calls ?? NONE) {
      const l = this.placeOf.get(call.locus);
      // A pedigree cut down to some loci keeps its animals' other calls.
      if (l === undefined) continue;
      const list = this.callsAt[l]!;
      this.callsAt[l] = list.length === 0 ? [call] : [...list, call];
    }
    for (let l = 0; l < this.loci.length; l++) {
      const state = this.loci[l]!;
      const before = state.evidence.likelihood[i]!;
      const changed = state.evidence.read(i, this.callsAt[l]!, founder, this.ties.sex[i]!);
      this.callsAt[l] = NONE;
      if (!touched || (!changed && state.alone.place[i] !== UNSEEN)) continue;
      if (this.isIndifferent(state, i, before)) continue;
      const animals = touched.get(l);
      if (animals) animals.add(i);
      else touched.set(l, new Set([i]));
    }
  }

  /** Whether a changed record cannot matter at a locus, but for its own probability: wild type for certain all the same. */
  private isIndifferent(state: LocusState, i: number, before: number): boolean {
    const { ties } = this;
    const { alone, domains, evidence } = state;
    if (!alone.possible) return false;
    const p = evidence.likelihoods[evidence.likelihood[i]!]![0]!;
    const isNew = alone.place[i] === UNSEEN;
    if (alone.plain[i] === 1) {
      const old = Math.log(evidence.likelihoods[before]![0]!);
      alone.plainLog -= old;
      if (domains !== alone) domains.plainLog -= old;
      alone.plain[i] = 0;
    } else if (!isNew || !this.isPlainByBirth(alone, i)) return false;
    if (p === 0 || (isFounder(ties, i) && evidence.prior[i] !== 0)) return false;
    alone.plainLog += Math.log(p);
    if (domains !== alone) domains.plainLog += Math.log(p);
    alone.plain[i] = 1;
    alone.place[i] = WILD_DOMAIN;
    return true;
  }

  /** A founder, or an animal whose parents are wild type for certain. */
  private isPlainByBirth({ plain }: LocusDomains, i: number): boolean {
    const { ties } = this;
    if (isFounder(ties, i)) return true;
    const from = ties.sireStart[i]!;
    const to = ties.sireStart[i + 1]!;
    if (ties.dam[i]! < 0 || from === to || plain[ties.dam[i]!] === 0) return false;
    for (let e = from; e < to; e++) if (plain[ties.sire[e]!] === 0) return false;
    return true;
  }

  private narrowAnew({ evidence, table }: LocusState): LocusDomains {
    const { ties } = this;
    const sireOpen = new Uint8Array(ties.sire.length).fill(1);
    return narrowDomains({ ties, evidence, table, sireOpen, unrecorded: this.current.unrecorded });
  }

  private narrowAgain({ evidence, table, alone }: LocusState, changed: ReadonlySet<number>): LocusDomains {
    const { ties } = this;
    const sireOpen = new Uint8Array(ties.sire.length).fill(1);
    const among = withDescendants(ties, changed);
    const isIn = new Set(among);
    for (const i of alone.live) if (!isIn.has(i)) among.push(i);
    among.sort((a, b) => ties.rank[a]! - ties.rank[b]!);
    const since = { domains: alone, among };
    return narrowDomains({ ties, evidence, table, sireOpen, unrecorded: this.current.unrecorded, since });
  }

  private narrowBySires({ evidence, table, alone }: LocusState): LocusDomains {
    const { ties, sireOpen } = this;
    const since = { domains: alone, among: alone.live };
    return narrowDomains({ ties, evidence, table, sireOpen, unrecorded: this.current.unrecorded, since });
  }

  private recompute(dirty: Set<number>): void {
    this.found = [];
    for (const l of dirty) this.loci[l]!.excluded = !this.loci[l]!.alone.possible;
    for (const { excluded, evidence } of this.loci) {
      if (excluded) this.found.push({ kind: 'locus', loci: [evidence.locus.id] });
    }
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
      const { alone } = state;
      // Ruling out a candidate who is wild type here takes nothing away.
      const minds = this.closed.some(
        (e) => alone.sireOpen[e] === 1 && alone.place[this.ties.sire[e]!] !== WILD_DOMAIN,
      );
      const narrowed = minds ? this.narrowBySires(state) : alone;
      if (!narrowed.possible) {
        this.ties.sireStart.subarray(0, this.ties.size).forEach((from, i) => {
          for (let e = from; e < this.ties.sireStart[i + 1]!; e++) {
            if (this.sireOpen[e] !== alone.sireOpen[e]) this.undecided.add(i);
          }
        });
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
    const changed: number[] = [];
    for (let i = 0; i < ties.size; i++) {
      const from = ties.sireStart[i]!;
      const to = ties.sireStart[i + 1]!;
      if (to - from < 2) continue;
      for (const { alone, excluded } of this.loci) {
        if (!excluded) for (let e = from; e < to; e++) open[e]! &= alone.sireOpen[e]!;
      }
      const none = open.subarray(from, to).every((isOpen) => isOpen === 0);
      if (none || this.undecided.has(i)) open.fill(1, from, to);
      for (let e = from; e < to; e++) if (open[e] !== this.sireOpen[e]) changed.push(i);
    }
    this.sireOpen = open;
    this.closed = [];
    open.forEach((isOpen, e) => isOpen === 0 && this.closed.push(e));
    for (const i of new Set(changed)) this.tieFactors.delete(sireVariable(i));
    this.loci.forEach(({ alone, excluded }, l) => {
      if (excluded || dirty.has(l)) return;
      const minds = (i: number): boolean => {
        if (alone.place[i] !== WILD_DOMAIN) return true;
        for (let e = ties.sireStart[i]!; e < ties.sireStart[i + 1]!; e++) {
          if (alone.place[ties.sire[e]!] !== WILD_DOMAIN) return true;
        }
        return false;
      };
      if (changed.some(minds)) dirty.add(l);
    });
  }

  private solve(dirty: ReadonlySet<number>, domains: ReadonlyMap<number, LocusDomains>): void {
    const dissolved = new Set<Part>();
    const gone = new Set<Factor>();
    const pool: Factor[] = [];
    const dissolve = (factor: Factor | undefined): void => {
      const placed = factor && this.placed.get(factor);
      if (placed) dissolved.add(placed.part);
    };
    for (const l of dirty) {
      const state = this.loci[l]!;
      for (const factor of state.model.factors) {
        dissolve(factor);
        gone.add(factor);
      }
      this.rebuild(l, state, domains.get(l));
      for (const factor of state.model.factors) {
        pool.push(factor);
        for (const variable of factor.scope) if (variable < 0) dissolve(this.tieFactors.get(variable));
      }
    }
    const pooled = new Set(pool);
    for (const part of dissolved) {
      this.parts.delete(part);
      for (const factor of part.factors) {
        this.placed.delete(factor);
        if (!gone.has(factor) && !pooled.has(factor) && isOfLocus(factor)) {
          pool.push(factor);
        }
      }
    }
    const reusable = new Map<Factor, Part>(
      [...dissolved].map((part) => [part.factors.find(isOfLocus)!, part]),
    );
    const fresh = new Set<Factor>();
    for (const group of groupFactors([...pool, ...this.tiesOf(pool)])) {
      const old = reusable.get(group.find((f) => reusable.has(f)) ?? group[0]!);
      const same = old && old.factors.length === group.length && isSameSet(old.factors, group);
      const part = same ? old : solvePart(group, this.estimate);
      this.parts.add(part);
      part.factors.forEach((factor, at) => {
        this.placed.set(factor, { part, at });
        if (!same) fresh.add(factor);
      });
    }
    this.loci.forEach((state, l) => this.read(state, dirty.has(l), fresh));
  }

  private rebuild(l: number, state: LocusState, domains: LocusDomains | undefined): void {
    const before = state.byName;
    state.domains = domains ?? state.alone;
    const model = !domains
      ? NOTHING
      : new LocusModelBuilder({
          ties: this.ties,
          evidence: state.evidence,
          table: state.table,
          domains,
          sireOpen: this.sireOpen,
          unrecorded: this.current.unrecorded,
          locus: l,
        }).build();
    state.model = {
      ...model,
      factors: model.factors.map((factor) => {
        const old = before.get(factor.name);
        return old && sameFactor(old, factor) ? old : factor;
      }),
    };
    state.byName = new Map(state.model.factors.map((factor) => [factor.name, factor]));
  }

  /** The factors of the open sires and sexes that these factors speak of. */
  private tiesOf(factors: readonly Factor[]): Factor[] {
    const wanted = new Set(factors.flatMap(({ scope }) => scope.filter((variable) => variable < 0)));
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
      if (sireCount(this.ties, i) > 1)
        sum += Math.log(
          Math.min(
            1,
            this.openWeights(i).reduce((a, b) => a + b, 0),
          ),
        );
    }
    return sum;
  }

  private read(state: LocusState, isDirty: boolean, fresh: ReadonlySet<Factor>): void {
    const { factors, readings } = state.model;
    if (isDirty) {
      state.distributionOf = new Int32Array(this.ties.size);
      state.distributions = [wildDistribution(state.evidence.alleles.length)];
      state.standardErrors = new Map();
      readings.forEach(({ animals }, at) => {
        for (const animal of animals) state.distributionOf[animal] = at + 1;
      });
    }
    readings.forEach(({ needs, read }, at) => {
      if (!isDirty && !needs.some((need) => fresh.has(factors[need]!))) return;
      const placed = needs.map((need) => this.placed.get(factors[need]!)!);
      if (placed.some(({ part }) => part.logTotal === -Infinity)) return;
      state.distributions[at + 1] = read(placed.map((one) => one.part.marginals[one.at]!));
      const runs = Math.max(0, ...placed.map(({ part }) => part.runs?.length ?? 0));
      if (runs === 0) return;
      const each = Array.from({ length: runs }, (_, run) =>
        read(placed.map((one) => (one.part.runs?.[run] ?? one.part.marginals)[one.at]!)),
      );
      state.standardErrors.set(at + 1, standardErrors(each));
    });
  }

  /** Leaves out what cannot be: first the loci that fail alone, else all that fail together. @returns whom that touches */
  private excludeClashing(): Set<number> {
    const failing = [...this.parts].filter((part) => part.logTotal === -Infinity);
    const touched = new Set<number>();
    for (const part of failing) {
      const loci = [...this.loci.keys()].filter((l) =>
        part.factors.some((f) => isOfLocus(f) && this.loci[l]!.byName.get(f.name) === f),
      );
      const ids = loci.map((l) => this.loci[l]!.evidence.locus.id);
      const alone =
        loci.length === 1
          ? loci
          : loci.filter((l) => !holdsTogether(this.current, [this.loci[l]!.evidence.locus.id]));
      for (const l of alone) this.found.push({ kind: 'locus', loci: [this.loci[l]!.evidence.locus.id] });
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
    const fixedSires = this.current.animals.every((animal) => (animal.sires?.length ?? 0) < 2);
    if (linked.length < 2) return 'sires';
    if (fixedSires) return 'sex';
    // With every sex known by itself at each locus, does a choice of sires remain?
    return holdsTogether(this.current, loci, { splitSex: true }) ? 'sex' : 'sires';
  }
}

const NONE: readonly Call[] = [];

/** Before the first narrowing. */
const NOWHERE: LocusDomains = {
  place: new Int32Array(),
  plain: new Uint8Array(),
  plainLog: 0,
  live: [],
  sireOpen: new Uint8Array(),
  possible: true,
};

/** The place of an animal that no narrowing has seen yet: that of the empty domain. */
const UNSEEN = 0;

function emptyState(locus: PedigreeLocus, size: number): LocusState {
  const evidence = new LocusEvidence(locus, size);
  return {
    evidence,
    table: new DomainTable(evidence.alleles.length),
    alone: NOWHERE,
    domains: NOWHERE,
    model: NOTHING,
    byName: new Map(),
    distributionOf: new Int32Array(size),
    distributions: [wildDistribution(evidence.alleles.length)],
    standardErrors: new Map(),
    excluded: false,
  };
}

function wildDistribution(alleles: number): Distribution {
  const wild = new Float64Array(alleles * alleles);
  wild[0] = 1;
  return wild;
}

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
      sires.length === (other.sires?.length ?? 0) &&
      sires.every((sire, k) => sire.id === other.sires![k]!.id && sire.weight === other.sires![k]!.weight)
    );
  });
}

/** Whether a factor is of a locus, and not the prior of an open sire or sex. */
function isOfLocus(factor: Factor): factor is NamedFactor {
  return 'name' in factor;
}

function isSameSet(a: readonly Factor[], b: readonly Factor[]): boolean {
  const set = new Set(a);
  return b.every((factor) => set.has(factor));
}

/** Of the mean of equally long independent runs: their spread over the root of their number. */
function standardErrors(runs: readonly Distribution[]): Distribution {
  return runs[0]!.map((_, cell) => {
    const mean = runs.reduce((sum, run) => sum + run[cell]!, 0) / runs.length;
    const squares = runs.reduce((sum, run) => sum + (run[cell]! - mean) ** 2, 0);
    return Math.sqrt(squares / (runs.length - 1) / runs.length);
  });
}
