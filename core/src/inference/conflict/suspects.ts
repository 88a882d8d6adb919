import { exactly } from '../../errors.ts';
import { canonical, genotypeKey } from '../../loci/genotype.ts';
import type { Call, Pedigree, PedigreeAnimal } from '../../pedigree/document.ts';
import { PedigreeEngine } from '../engine.ts';
import { genotypesOf, type Conflict } from '../infer.ts';
import { sireCount } from '../../pedigree/index-pedigree.ts';
import { ConsistencyCheck } from './consistency.ts';
import { doubting, type ErrorOf } from './doubting.ts';
import type { Explanation } from './explain.ts';
import { leavingOpen, supposing } from './hypotheses.ts';

/** What a record says of one locus, and the chance that it is wrong there. */
export interface Suspect {
  readonly animal: string;
  readonly locus: string;
  /** Left out where the pedigree names no records. */
  readonly record?: string;
  /** Given everything that is recorded, each record being wrong as often as such records are. */
  readonly pWrong: number;
  /**
   * How much of the doubt looking at the animal again is expected to take away: bits of the entropy of which records are
   * wrong, added up over the records.
   */
  readonly gain: number;
  /** One of those that, left out, make everything possible; no one of them can be spared. */
  readonly isEnough: boolean;
}

/** A conflict with what may have gone wrong, the weightiest first. */
export interface ExplainedConflict {
  readonly conflict: Conflict;
  readonly explanations: readonly Explanation[];
}

/** The same where nothing contradicts. */
export type DoubtfulRecord = Omit<Suspect, 'gain' | 'isEnough'>;

export interface Suspicions {
  /** Those hardly likely to be wrong are left out; those that are enough first, then the most telling to look at again. */
  readonly suspects: readonly Suspect[];
  /** All doubt, in bits, of which each `gain` is a part. */
  readonly doubt: number;
  /** What explains a conflict better than any wrong identification, and was taken as true for the rest. */
  readonly supposed: readonly Explanation[];
  /** Loci at which the exact answer needs too large a table. */
  readonly tooWide: readonly string[];
}

/** A record less likely to be wrong than this is not worth a look. */
const WORTH_A_LOOK = 0.05;
/** So many records are asked how much a look at them would tell. */
const MOST_ASKED = 12;
/** A founder that explains a conflict with less than this share is taken as it was stated. */
const SPARED = 0.001;
/** An explanation that holds more than this share is taken as what happened. */
const LIKELIER_THAN_NOT = 0.5;

/**
 * All records of a collection that may have to be looked at again so that its records hold together, in one pass: where the
 * loci clash, every record there is held by its error rate, and its chance of being wrong follows from all others.
 *
 * What a conflict's best explanation blames instead of an identification (another sire, a founder that carries more) is taken
 * as true first: else the young would be blamed for it one by one. Founders that may be behind a conflict can carry more than
 * they were stated with. Where sires are open, their odds come from the loci that hold. The gain of a look is the expected
 * decrease of entropy (Lindley 1956, Annals of Mathematical Statistics 27, "On a measure of the information provided by an
 * experiment").
 *
 * @param engine - of the whole collection
 * @param explained - its conflicts with their explanations, the weightiest first
 * @param errorOf - how often what such a record says is wrong
 * @example suspectRecords(new PedigreeEngine(parsePedigree({ format: 'karyotome-pedigree/1', loci: [], animals: [] })), []).suspects // []
 */
export function suspectRecords(
  engine: PedigreeEngine,
  explained: readonly ExplainedConflict[],
  errorOf?: ErrorOf,
): Suspicions {
  const supposed: Explanation[] = [];
  let pedigree = withSireOdds(engine);
  for (const { conflict, explanations } of explained) {
    const best = explanations[0];
    if (!best || best.kind === 'identification' || best.share <= LIKELIER_THAN_NOT) continue;
    supposed.push(best);
    pedigree = supposing(pedigree, conflict.loci, best);
  }
  const found = explained.map((one) => suspectsAt(pedigree, one, errorOf));
  return {
    suspects: found.flatMap((one) => one?.suspects ?? []).toSorted(moreTelling),
    doubt: found.reduce((sum, one) => sum + (one?.doubt ?? 0), 0),
    supposed,
    tooWide: explained.flatMap(({ conflict: { loci } }, i) => (found[i] ? [] : loci)),
  };
}

/**
 * Records that are more likely wrong than right at a locus where nothing contradicts, given how often such records are wrong.
 *
 * @param errorOf - how often what such a record says is wrong
 * @returns the likeliest to be wrong first; null where the exact answer needs too large a table
 * @example doubtfulRecords(new PedigreeEngine(parsePedigree({ format: 'karyotome-pedigree/1', loci: [{ id: 'x', alleles: ['m'] }], animals: [] })), 'x') // []
 */
export function doubtfulRecords(
  engine: PedigreeEngine,
  locus: string,
  errorOf?: ErrorOf,
): DoubtfulRecord[] | null {
  const chances = exactly(() =>
    chancesIn(new PedigreeEngine(doubting(only(withSireOdds(engine), [locus]), [locus], errorOf))),
  );
  if (!chances) return null;
  return chances
    .filter(({ pWrong }) => pWrong > LIKELIER_THAN_NOT)
    .map(toSuspect)
    .toSorted((a, b) => b.pWrong - a.pWrong);
}

const moreTelling = (a: Suspect, b: Suspect): number =>
  Number(b.isEnough) - Number(a.isEnough) || b.gain - a.gain || b.pWrong - a.pWrong;

const only = (pedigree: Pedigree, loci: readonly string[]): Pedigree => ({
  ...pedigree,
  loci: pedigree.loci.filter(({ id }) => loci.includes(id)),
});

/** The loci that hold have told what they can of open sires: it stands for them where they are left out. */
function withSireOdds(engine: PedigreeEngine): Pedigree {
  const { pedigree, index } = engine;
  const animals = pedigree.animals.map((animal, i) => {
    if (sireCount(index, i) < 2) return animal;
    const odds = engine.sireOdds(i);
    const sires = animal.sires!.map(({ id }, k) => ({ id, weight: odds[k]! }));
    return { ...animal, sires: sires.filter(({ weight }) => weight > 0) };
  });
  return { ...pedigree, animals };
}

interface Chance {
  /** Place in the pedigree. */
  readonly at: number;
  readonly animal: string;
  readonly call: Call;
  readonly pWrong: number;
}

const toSuspect = ({ animal, call: { locus, record }, pWrong }: Chance): DoubtfulRecord => ({
  animal,
  locus,
  ...(record === undefined ? {} : { record }),
  pWrong,
});

function suspectsAt(
  pedigree: Pedigree,
  { conflict: { loci }, explanations }: ExplainedConflict,
  errorOf?: ErrorOf,
): { suspects: Suspect[]; doubt: number } | null {
  return exactly(() => {
    const founders = explanations.filter(({ kind, share }) => kind === 'carries-more' && share > SPARED);
    const open = leavingOpen(doubting(only(pedigree, loci), loci, errorOf), loci, founders);
    const engine = new PedigreeEngine(open);
    const chances = chancesIn(engine);
    const doubt = doubtOf(chances);
    const telling = chances.toSorted((a, b) => entropy(b.pWrong) - entropy(a.pWrong)).slice(0, MOST_ASKED);
    const gains = new Map(telling.map((one) => [one, doubt - doubtAfter(engine, open, one)]));
    const enough = enoughToMend(pedigree, loci, chances);
    const suspects = chances.map((one) => ({
      ...toSuspect(one),
      gain: gains.get(one) ?? 0,
      isEnough: enough.has(one.at),
    }));
    return {
      suspects: suspects.filter(({ pWrong, isEnough }) => isEnough || pWrong >= WORTH_A_LOOK),
      doubt,
    };
  });
}

/** The chance of every call that it is wrong. */
function chancesIn(engine: PedigreeEngine): Chance[] {
  const places = new Map(engine.pedigree.loci.map(({ id }, l) => [id, l]));
  return engine.pedigree.animals.flatMap((animal, at) =>
    (animal.calls ?? []).flatMap((call) => {
      const l = places.get(call.locus);
      if (l === undefined || call.isSurvival || !engine.compact(l)) return [];
      const called = new Set(call.is.map(([a, b]) => genotypeKey(canonical(a, b))));
      const pWrong = genotypesOf(engine, at, l).reduce(
        (sum, { genotype: [a, b], p }) => (called.has(genotypeKey(canonical(a, b))) ? sum : sum + p),
        0,
      );
      return [{ at, animal: animal.id, call, pWrong }];
    }),
  );
}

/** The doubt that is expected to remain once it is known whether a call is right. */
function doubtAfter(engine: PedigreeEngine, pedigree: Pedigree, { at, call, pWrong }: Chance): number {
  const known = (error: 0 | 1): number => {
    const settle = (animal: PedigreeAnimal): PedigreeAnimal => ({
      ...animal,
      calls: animal.calls!.map((one) => (one === call ? { ...one, error, outside: error } : one)),
    });
    engine.update({ ...pedigree, animals: pedigree.animals.with(at, settle(pedigree.animals[at]!)) });
    return doubtOf(chancesIn(engine));
  };
  const after = (1 - pWrong) * known(0) + pWrong * known(1);
  engine.update(pedigree);
  return after;
}

const doubtOf = (chances: readonly Chance[]): number =>
  chances.reduce((sum, { pWrong }) => sum + entropy(pWrong), 0);

/** Of a yes or no, in bits. */
function entropy(p: number): number {
  return p <= 0 || p >= 1 ? 0 : -p * Math.log2(p) - (1 - p) * Math.log2(1 - p);
}

/**
 * Animals whose records at these loci, left out, let the rest hold: the most suspect first, and none that can be spared.
 *
 * @returns their places in the pedigree
 */
function enoughToMend(
  pedigree: Pedigree,
  loci: readonly string[],
  chances: readonly Chance[],
): ReadonlySet<number> {
  const check = new ConsistencyCheck(pedigree, loci);
  const callers = check.callers();
  const pWrong = new Map<number, number>();
  for (const one of chances) pWrong.set(one.at, Math.max(one.pWrong, pWrong.get(one.at) ?? 0));
  const order = callers.toSorted((a, b) => (pWrong.get(b) ?? 0) - (pWrong.get(a) ?? 0) || a - b);
  const holdsWithout = (left: ReadonlySet<number>): boolean =>
    check.holds(new Set(callers.filter((animal) => !left.has(animal))));
  // The fewest of the most suspect that will do, found by halving.
  let [low, high] = [0, order.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (holdsWithout(new Set(order.slice(0, middle)))) high = middle;
    else low = middle + 1;
  }
  const left = new Set(order.slice(0, low));
  for (const animal of order.slice(0, low).toReversed()) {
    left.delete(animal);
    if (!holdsWithout(left)) left.add(animal);
  }
  return left;
}
