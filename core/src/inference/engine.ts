import type { Call, Pedigree, PedigreeAnimal } from '../pedigree/document.ts';
import {
  indexPedigree,
  isFounder,
  sireCount,
  withDescendants,
  type IndexedPedigree,
} from '../pedigree/index-pedigree.ts';
import { isExtension } from '../pedigree/is-extension.ts';
import { holdsTogether } from './conflict/consistency.ts';
import type { LocusDomains } from './domains.ts';
import { sexVariable, sireVariable } from './factor.ts';
import { LocusState, type Setting } from './locus-state.ts';
import type { Distribution } from './model.ts';
import { OpenSires } from './open-sires.ts';
import type { Estimator, Part } from './parts.ts';
import { SummedParts } from './summed-parts.ts';

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
  private sires!: OpenSires;
  private sums!: SummedParts;
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

  /** The independent parts that the collection falls into, each with its marginals. */
  get parts(): ReadonlySet<Part> {
    return this.sums.all;
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
    let sum = this.sires.logWeight();
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
    const open = Array.from({ length: count }, (_, k) => this.sires.open[from + k]! === 1);
    const marginal = this.sums.tieMarginal(sireVariable(animal));
    const weights = open.map((isOpen, k) => (isOpen ? this.ties.sireWeight[from + k]! : 0));
    const sum = weights.reduce((a, b) => a + b, 0);
    let at = 0;
    return open.map((isOpen, k) => (!isOpen ? 0 : marginal ? marginal[at++]! : weights[k]! / sum));
  }

  /** The probability that an animal of unrecorded sex is female. */
  femaleOdds(animal: number): number {
    return this.sums.tieMarginal(sexVariable(animal))?.[0] ?? 0.5;
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
    this.sires = OpenSires.none(this.ties);
    this.sums = new SummedParts(this.estimate);
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
      this.sums.rebuild(this.loci, todo, domains, this.setting, this.sires);
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
      const narrowed = state.narrowedBySires(this.setting, this.sires);
      if (!narrowed.possible) {
        for (const i of this.sires.differingFrom(state.alone.sireOpen)) this.undecided.add(i);
        return null;
      }
      domains.set(l, narrowed);
    }
    return domains;
  }

  /** Rules out the candidate sires that any locus rules out, and adds the loci at which that makes a difference. */
  private closeSires(dirty: Set<number>): void {
    const before = this.sires;
    this.sires = OpenSires.of(this.ties, this.loci, this.undecided);
    const changed = this.sires.differingFrom(before.open);
    this.sums.forgetSires(changed);
    this.loci.forEach((state, l) => {
      if (!state.excluded && changed.some((i) => state.mindsSiresOf(this.setting, i))) dirty.add(l);
    });
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
