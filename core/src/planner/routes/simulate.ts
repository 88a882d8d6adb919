import { CATALOGUE, type Catalogue } from '../../catalogue/catalogue.ts';
import { appearance, canonical, type WeightedGenotype } from '../../loci/genotype.ts';
import { MOST_ALLELES, WILD, type Locus } from '../../loci/locus.ts';
import { seededRandom } from '../../numeric/random.ts';
import { drawWhole } from '../../numeric/whole-odds.ts';
import { distributionAt, type Parent } from '../../odds/parent.ts';
import { meetsTarget, type Target } from '../../odds/target.ts';
import type { Fertility } from '../chances.ts';
import type { Route, RouteAnimal, RouteParent, RouteTerms } from './route.ts';

export interface SimulationInput {
  readonly route: Route;
  readonly target: Target;
  /** The owned animals that the route uses. */
  readonly animals: readonly RouteAnimal[];
  readonly bought: Pick<RouteAnimal, 'sex' | 'parent'> | null;
  readonly fertilityOf: (animalId: string | null) => Fertility;
  readonly terms: RouteTerms;
  /** Hatchlings held back from each step at most. */
  readonly holdBack: number;
  readonly years: number;
  readonly seed: number;
}

export interface SimulationResult {
  readonly runs: number;
  /** For each year, the share of runs that had the target by its end, and its standard error. */
  readonly byYear: readonly { readonly share: number; readonly se: number }[];
  /** The year by which half of all runs had it; null where fewer than half did. */
  readonly medianYear: number | null;
  /** For each step but the last: the share of runs that held something back, and the median year. */
  readonly steps: readonly { readonly share: number; readonly medianYear: number | null }[];
}

/** An animal of one run: its pairs at the target's loci, as numbers, and the year from which it breeds. */
interface Drawn {
  readonly pairs: Uint16Array;
  readonly ready: number;
  readonly fertility: Fertility;
}

/** A pair of alleles as one number, the first in the upper bits: enough of them for the wild type and `MOST_ALLELES`. */
const ALLELE_BITS = 5;
const ALLELES = 1 << ALLELE_BITS;

interface LocusCode {
  readonly locus: Locus;
  readonly recombination: number | null;
  readonly codeOf: ReadonlyMap<string, number>;
  /** Pair -> what shows, as a number. */
  readonly phenotype: Uint16Array;
  readonly phenotypeNumbers: ReadonlyMap<string, number>;
  readonly meets: Uint16Array;
}

/**
 * Plays a route through, season by season, as it would really go: which genotype an uncertain animal has, whether a female
 * lays, how many eggs, what each is, how long the young take to grow. Runs are independent; `play` may be called again and
 * again, so that a caller can show progress and stop.
 */
export class RouteSimulation {
  private readonly input: SimulationInput;
  private readonly die: () => number;
  private readonly loci: readonly LocusCode[];
  /** For each step, the wanted phenotype at each locus; null on the last. */
  private readonly wanted: readonly (Uint16Array | null)[];
  private readonly successIn: Float64Array;
  private readonly heldIn: readonly Float64Array[];
  private readonly young: Uint16Array;
  private runs = 0;

  constructor(input: SimulationInput, catalogue: Catalogue = CATALOGUE) {
    this.input = input;
    this.die = seededRandom(input.seed);
    this.loci = input.target.map((wanted) => encodeLocus(wanted, catalogue));
    this.wanted = input.route.steps.map(({ keep }) =>
      keep
        ? Uint16Array.from(this.loci, ({ locus, phenotypeNumbers }) =>
            phenotypeNumbers.get(keep.phenotype[locus.id] ?? '')!,
          )
        : null,
    );
    this.successIn = new Float64Array(input.years);
    this.heldIn = input.route.steps.slice(0, -1).map(() => new Float64Array(input.years));
    this.young = new Uint16Array(this.loci.length);
  }

  play(runs: number): void {
    for (let run = 0; run < runs; run++) this.playOnce();
    this.runs += runs;
  }

  result(): SimulationResult {
    const { runs } = this;
    let sum = 0;
    const byYear = Array.from(this.successIn, (count) => {
      sum += count;
      const share = sum / runs;
      return { share, se: Math.sqrt((share * (1 - share)) / runs) };
    });
    return {
      runs,
      byYear,
      medianYear: medianOf(this.successIn, runs),
      steps: this.heldIn.map((counts) => ({
        share: counts.reduce((a, b) => a + b, 0) / runs,
        medianYear: medianOf(counts, runs),
      })),
    };
  }

  private playOnce(): void {
    const { route, years } = this.input;
    const held: Drawn[][] = route.steps.map(() => []);
    const drawn = new Map<string, Drawn>();
    for (let year = 0; year < years; year++) {
      const laid = new Set<Drawn>();
      for (let at = 0; at < route.steps.length; at++) {
        const step = route.steps[at]!;
        const isLast = at === route.steps.length - 1;
        if (!isLast && held[at]!.length >= this.input.holdBack) continue;
        const sires = this.ready(step.sire, held, drawn, year);
        if (sires.length === 0) continue;
        for (const dam of this.ready(step.dam, held, drawn, year)) {
          if (laid.has(dam)) continue;
          laid.add(dam);
          const sire = sires[Math.floor(this.die() * sires.length)]!;
          if (this.layAndLook(dam, sire, at, held, year)) {
            this.successIn[year]! += 1;
            return;
          }
        }
      }
    }
  }

  private ready(
    parent: RouteParent,
    held: readonly Drawn[][],
    drawn: Map<string, Drawn>,
    year: number,
  ): readonly Drawn[] {
    const all = parent.kind === 'held-back' ? held[parent.step]! : [this.drawOwned(parent, drawn)];
    return all.filter((animal) => animal.ready <= year);
  }

  /** What an animal really is, drawn once for a run. */
  private drawOwned(parent: Exclude<RouteParent, { kind: 'held-back' }>, drawn: Map<string, Drawn>): Drawn {
    const key = parent.kind === 'owned' ? parent.animalId : '';
    const known = drawn.get(key);
    if (known) return known;
    const { input } = this;
    const found =
      parent.kind === 'owned' ? input.animals.find(({ id }) => id === parent.animalId)! : input.bought!;
    const animal: Drawn = {
      pairs: Uint16Array.from(this.loci, (code) => this.drawPair(found.parent, code)),
      ready: 'readyIn' in found ? (found as RouteAnimal).readyIn : 0,
      fertility: input.fertilityOf(parent.kind === 'owned' ? parent.animalId : null),
    };
    drawn.set(key, animal);
    return animal;
  }

  private drawPair(parent: Parent, { locus, codeOf }: LocusCode): number {
    const distribution: readonly WeightedGenotype[] = distributionAt(parent, locus.id);
    let left = this.die();
    let chosen = distribution.at(-1)!;
    for (const entry of distribution) {
      left -= entry.p;
      if (left < 0) {
        chosen = entry;
        break;
      }
    }
    return codeOf.get(chosen.genotype[0])! * ALLELES + codeOf.get(chosen.genotype[1])!;
  }

  /** One season of a pair. @returns whether the target came out */
  private layAndLook(dam: Drawn, sire: Drawn, at: number, held: readonly Drawn[][], year: number): boolean {
    const { die, young } = this;
    const { terms, route, holdBack } = this.input;
    if (die() < terms.missedSeason) return false;
    const { size, hatch } = dam.fertility;
    const eggs = drawWhole(size, die());
    const step = route.steps[at]!;
    const wanted = this.wanted[at]!;
    for (let egg = 0; egg < eggs; egg++) {
      if (die() >= hatch) continue;
      const isMale = die() < 0.5;
      this.breed(dam.pairs, sire.pairs, isMale);
      if (step.keep === null) {
        if (this.loci.every(({ meets }, i) => meets[young[i]!] === 1)) return true;
        continue;
      }
      if (held[at]!.length >= holdBack || isMale !== (step.keep.sex === 'male')) continue;
      if (!this.loci.every(({ phenotype }, i) => phenotype[young[i]!] === wanted[i])) continue;
      const growth = terms.growth[step.keep.sex];
      if (held[at]!.length === 0) this.heldIn[at]![year]! += 1;
      held[at]!.push({
        pairs: young.slice(),
        ready: year + growth.from + (growth.to - growth.from) * die(),
        fertility: this.input.fertilityOf(null),
      });
    }
    return false;
  }

  private breed(dam: Uint16Array, sire: Uint16Array, isMale: boolean): void {
    const { die, loci, young } = this;
    for (let i = 0; i < loci.length; i++) {
      const fromDam = die() < 0.5 ? dam[i]! >> ALLELE_BITS : dam[i]! & (ALLELES - 1);
      const { recombination } = loci[i]!;
      // A sire's pair at a sex-linked locus is [X, Y]: a daughter gets the first, a son the second, crossovers aside.
      const takesFirst = recombination === null ? die() < 0.5 : die() < recombination === isMale;
      const fromSire = takesFirst ? sire[i]! >> ALLELE_BITS : sire[i]! & (ALLELES - 1);
      young[i] = fromDam * ALLELES + fromSire;
    }
  }
}

function encodeLocus(wanted: Target[number], catalogue: Catalogue): LocusCode {
  const locus = catalogue.locusById(wanted.locus.id) ?? wanted.locus;
  const alleles = [WILD, ...locus.alleles.map(({ id }) => id)];
  if (alleles.length > MOST_ALLELES + 1)
    throw new RangeError(`${locus.name} has more than ${MOST_ALLELES} alleles`);
  const phenotypeNumbers = new Map<string, number>();
  const phenotype = new Uint16Array(ALLELES * ALLELES);
  const meets = new Uint16Array(ALLELES * ALLELES);
  for (const [i, a] of alleles.entries()) {
    for (const [j, b] of alleles.entries()) {
      const pair = canonical(a, b);
      const shown = appearance(locus, pair);
      if (!phenotypeNumbers.has(shown)) phenotypeNumbers.set(shown, phenotypeNumbers.size);
      phenotype[i * ALLELES + j] = phenotypeNumbers.get(shown)!;
      meets[i * ALLELES + j] = meetsTarget(wanted, pair) ? 1 : 0;
    }
  }
  return {
    locus,
    recombination: locus.sexLinked?.recombination ?? null,
    codeOf: new Map(alleles.map((id, i) => [id, i])),
    phenotype,
    phenotypeNumbers,
    meets,
  };
}

/** The first year by whose end half of all runs are counted; years count from 1. */
function medianOf(counts: Float64Array, runs: number): number | null {
  let sum = 0;
  for (const [year, count] of counts.entries()) {
    sum += count;
    if (sum * 2 >= runs) return year + 1;
  }
  return null;
}
