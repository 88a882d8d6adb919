import type { Call, PedigreeAnimal, PedigreeLocus } from '../pedigree/document.ts';
import { isFounder, sireCount, type IndexedPedigree } from '../pedigree/index-pedigree.ts';
import { DomainTable, isSettled, settledCell, WILD_DOMAIN } from './domain-table.ts';
import { narrowDomains, type LocusDomains } from './domains.ts';
import { LocusEvidence } from './evidence.ts';
import { sameFactor, type Factor } from './factor.ts';
import { bytesWithRoom, merged, withRoom } from './growing-arrays.ts';
import { LocusModelBuilder } from './locus-model.ts';
import { LocusNeeds } from './locus-needs.ts';
import { Marginals, type Placed } from './marginals.ts';
import type { Distribution, LocusModel, NamedFactor } from './model.ts';
import type { OpenSires } from './open-sires.ts';
import { pairsBred } from './pairs-bred.ts';

/** What all loci of a pedigree share. */
export interface Setting {
  readonly ties: IndexedPedigree;
  readonly unrecorded: number;
}

const NOTHING: LocusModel = {
  factors: [],
  readings: [],
  owns: new Map(),
  derived: new Map(),
  logConstant: 0,
};

/** The place of an animal that no narrowing has seen yet: that of the empty domain. */
const UNSEEN = 0;

/** Before the first narrowing. */
const NO_DOMAINS: LocusDomains = {
  place: new Int32Array(),
  plain: new Uint8Array(),
  plainLog: 0,
  live: [],
  sireOpen: new Uint8Array(),
  possible: true,
};

/** One locus as it stands: its evidence, what that leaves possible, its tables, and what was found. */
export class LocusState {
  readonly evidence: LocusEvidence;
  /** Left out, since its records contradict one another, or those of other loci. */
  excluded = false;
  private readonly table: DomainTable;
  /** What its own evidence leaves, whichever the sires. */
  private own: LocusDomains = NO_DOMAINS;
  /** What is left once other loci have ruled out sires: what the model was built from. */
  private used: LocusDomains = NO_DOMAINS;
  private model: LocusModel = NOTHING;
  private byName: ReadonlyMap<number, NamedFactor> = new Map();
  private needed = new LocusNeeds(NOTHING);
  /** Animal -> place in `distributions`; 0 is wild type for certain. */
  private places: Int32Array;
  /** Reading n of the model stands at place n + 1. */
  private found: Distribution[];
  /** By place, where they are estimates. */
  private errors = new Map<number, Distribution>();

  constructor(locus: PedigreeLocus, size: number) {
    this.evidence = new LocusEvidence(locus, size);
    this.table = new DomainTable(this.evidence.alleles.length);
    this.places = new Int32Array(size);
    this.found = [this.wild()];
  }

  get id(): string {
    return this.evidence.locus.id;
  }

  get alone(): LocusDomains {
    return this.own;
  }

  get factors(): readonly NamedFactor[] {
    return this.model.factors;
  }

  get needs(): LocusNeeds {
    return this.needed;
  }

  /** Natural logarithm of the probability of what no table covers. */
  get logConstant(): number {
    return this.model.logConstant + this.used.plainLog;
  }

  get distributionOf(): Int32Array {
    return this.places;
  }

  get distributions(): readonly Distribution[] {
    return this.found;
  }

  standardError(animal: number): Distribution | undefined {
    return this.errors.get(this.places[animal]!);
  }

  owns(factor: Factor): boolean {
    return 'name' in factor && this.byName.get((factor as NamedFactor).name) === factor;
  }

  private wild(): Distribution {
    const wild = new Float64Array(this.evidence.alleles.length ** 2);
    wild[0] = 1;
    return wild;
  }

  /** Makes room for animals added at the end: with some to spare, since the next one comes soon. */
  grow(size: number, sires: number): void {
    this.evidence.grow(size);
    const { place, plain, sireOpen } = this.own;
    if (place.length < size || sireOpen.length < sires) {
      const roomy = new Uint8Array(sires + (sires >> 3)).fill(1);
      roomy.set(sireOpen);
      const isOne = this.used === this.own;
      this.own = {
        ...this.own,
        place: withRoom(place, size),
        plain: bytesWithRoom(plain, size),
        sireOpen: roomy,
      };
      // The two may be one object, and then stay one: the new animals' calls are added to both.
      this.used = isOne ? this.own : { ...this.used, place: withRoom(this.used.place, size) };
    }
    if (this.places.length < size) this.places = withRoom(this.places, size);
  }

  /**
   * Takes in what is recorded of one animal.
   *
   * @returns whether that can matter to anybody: not where it is wild type for certain all the same
   */
  take(setting: Setting, i: number, calls: readonly Call[], founder: PedigreeAnimal['founder']): boolean {
    const { evidence, own } = this;
    const before = evidence.likelihood[i]!;
    const changed = evidence.read(i, calls, founder, setting.ties.sex[i]!);
    if (!changed && own.place[i] !== UNSEEN) return false;
    return !this.isIndifferent(setting.ties, i, before) && !this.isSettledHere(setting.ties, i);
  }

  private isIndifferent(ties: IndexedPedigree, i: number, before: number): boolean {
    const { own, used, evidence } = this;
    if (!own.possible || own === NO_DOMAINS) return false;
    const p = evidence.likelihoods[evidence.likelihood[i]!]![0]!;
    const shift = (log: number): void => {
      own.plainLog += log;
      if (used !== own) used.plainLog += log;
    };
    if (own.plain[i] === 1) {
      shift(-Math.log(evidence.likelihoods[before]![0]!));
      own.plain[i] = 0;
    } else if (own.place[i] !== UNSEEN || !this.isPlainByBirth(ties, i)) return false;
    if (p === 0 || (isFounder(ties, i) && evidence.prior[i] !== 0)) return false;
    shift(Math.log(p));
    own.plain[i] = 1;
    own.place[i] = WILD_DOMAIN;
    return true;
  }

  /**
   * Takes in a new animal without young whose parents hand on known pairs: its record says nothing of anybody else, and its
   * distribution follows at once.
   */
  private isSettledHere(ties: IndexedPedigree, i: number): boolean {
    const { own, used, evidence } = this;
    if (own === NO_DOMAINS || !own.possible || this.excluded || own.place[i] !== UNSEEN) return false;
    if (ties.isParent[i] === 1 || ties.dam[i]! < 0 || sireCount(ties, i) !== 1) return false;
    const dam = this.settledCell(ties, ties.dam[i]!);
    const sire = this.settledCell(ties, ties.sire[ties.sireStart[i]!]!);
    if (dam < 0 || sire < 0) return false;
    const bred = pairsBred({ dam, sire, evidence, likelihood: evidence.likelihood[i]!, sex: ties.sex[i]! });
    if (!bred) return false;
    const { first, second, table, total } = bred;
    const likelihood = evidence.likelihoods[evidence.likelihood[i]!]!;
    own.place[i] = this.table.cross(first, second, evidence.likelihood[i]!, likelihood);
    this.own = { ...own, live: [...own.live, i] };
    this.used = used === own ? this.own : { ...used, live: [...used.live, i] };
    if (this.used !== this.own) this.used.place[i] = own.place[i]!;
    this.model = { ...this.model, logConstant: this.model.logConstant + Math.log(total) };
    this.places[i] = this.found.push(table.map((p) => p / total)) - 1;
    return true;
  }

  /** The cell of the one pair that young of an animal see; -1 where that is open. */
  private settledCell(ties: IndexedPedigree, i: number): number {
    const domain = this.table.domains[this.used.place[i]!]!;
    const linked = this.evidence.locus.sexLinked === true;
    return isSettled(domain, ties.sex[i]!, linked) ? settledCell(domain, ties.sex[i]!, linked) : -1;
  }

  /** A founder, or an animal whose parents are wild type for certain. */
  private isPlainByBirth(ties: IndexedPedigree, i: number): boolean {
    const { plain } = this.own;
    if (isFounder(ties, i)) return true;
    const from = ties.sireStart[i]!;
    const to = ties.sireStart[i + 1]!;
    if (ties.dam[i]! < 0 || from === to || plain[ties.dam[i]!] === 0) return false;
    for (let e = from; e < to; e++) if (plain[ties.sire[e]!] === 0) return false;
    return true;
  }

  /** Narrows down all animals by this locus alone. */
  narrowAnew({ ties, unrecorded }: Setting): void {
    const { evidence, table } = this;
    const sireOpen = new Uint8Array(ties.sire.length).fill(1);
    this.own = narrowDomains({ ties, evidence, table, sireOpen, unrecorded });
  }

  /** Narrows down again after the records of some animals changed. @param descending - they and their descendants */
  narrowAgain({ ties, unrecorded }: Setting, descending: readonly number[]): void {
    const { evidence, table } = this;
    const sireOpen = new Uint8Array(ties.sire.length).fill(1);
    const among = merged(descending, this.own.live, ties.rank);
    this.own = narrowDomains({
      ties,
      evidence,
      table,
      sireOpen,
      unrecorded,
      since: { domains: this.own, among },
    });
  }

  /** What is left with only these sires open. */
  narrowedBySires(
    { ties, unrecorded }: Setting,
    { open: sireOpen, closed }: Pick<OpenSires, 'open' | 'closed'>,
  ): LocusDomains {
    const { evidence, table, own } = this;
    // Ruling out a candidate who is wild type here takes nothing away.
    const minds = closed.some((e) => own.sireOpen[e] === 1 && own.place[ties.sire[e]!] !== WILD_DOMAIN);
    if (!minds) return own;
    return narrowDomains({
      ties,
      evidence,
      table,
      sireOpen,
      unrecorded,
      since: { domains: own, among: own.live },
    });
  }

  /** Whether it makes a difference here which of an animal's candidates are open. */
  mindsSiresOf({ ties }: Setting, i: number): boolean {
    const { place } = this.own;
    if (place[i] !== WILD_DOMAIN) return true;
    for (let e = ties.sireStart[i]!; e < ties.sireStart[i + 1]!; e++) {
      if (place[ties.sire[e]!] !== WILD_DOMAIN) return true;
    }
    return false;
  }

  /** Writes the tables anew; those that came out the same stay the same objects. @param domains - none: left out */
  rebuild(setting: Setting, locus: number, sireOpen: Uint8Array, domains: LocusDomains | undefined): void {
    const before = this.byName;
    this.used = domains ?? this.own;
    const { evidence, table } = this;
    const built = domains
      ? new LocusModelBuilder({ ...setting, evidence, table, domains, sireOpen, locus }).build()
      : NOTHING;
    const factors = built.factors.map((factor) => {
      const old = before.get(factor.name);
      return old && old.isRead === factor.isRead && sameFactor(old, factor) ? old : factor;
    });
    this.model = { ...built, factors };
    this.needed = new LocusNeeds(this.model);
    this.byName = new Map(factors.map((factor) => [factor.name, factor]));
    this.places = new Int32Array(setting.ties.size);
    this.found = [this.wild()];
    this.errors = new Map();
    built.readings.forEach(({ animals }, at) => {
      for (const animal of animals) this.places[animal] = at + 1;
    });
  }

  /** Reads the distributions whose tables were summed anew, or all of them. */
  read(
    placed: ReadonlyMap<Factor, Placed>,
    tie: (variable: number) => Factor,
    fresh: ReadonlySet<Factor> | 'all',
  ): void {
    const blocks = this.needs.blocks(tie);
    const marginals = new Marginals(placed, blocks);
    this.model.readings.forEach((reading, at) => {
      if (fresh !== 'all' && !this.needs.touches(at, fresh, blocks)) return;
      const found = marginals.read(reading, this.needs.of(at));
      if (!found) return;
      this.found[at + 1] = found.distribution;
      if (found.error) this.errors.set(at + 1, found.error);
    });
  }
}
