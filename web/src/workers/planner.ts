import type { PlannerView } from '@karyotome/contract';
import {
  bestMates,
  clutchSize,
  createCatalogue,
  findRoutes,
  holdbackGains,
  meanOf,
  missingAlleles,
  pairOdds,
  parseGenes,
  parseParent,
  planPair,
  planSeason,
  stepOdds,
  ROUTE_TERMS,
  RouteSimulation,
  targetChances,
  toAdditions,
  toTarget,
  type Catalogue,
  type Fertility,
  type HoldbackGains,
  type Parent,
  type RouteParent,
  type PlannedPair,
  type Target,
  type WeightedGenotype,
} from '@karyotome/core';
import type {
  GainsQuestion,
  MatesQuestion,
  PairAnswer,
  PairQuestion,
  PlannedParent,
  RankedMate,
  RouteOddsQuestion,
  RoutesAnswer,
  RoutesQuestion,
  SeasonPlanQuestion,
  SimulateQuestion,
} from './planner-questions.ts';

type Animal = PlannerView['animals'][number] & { readonly parent: Parent };
/** Fewer wanted young than this in a clutch are no reason to pair. */
const WORTH_PAIRING = 0.05;
const MATES_SHOWN = 60;
const OUTCOMES_SHOWN = 60;

/** Everything that the planner computes, over one state of the collection. Pure: it runs in a worker, and in tests. */
export class Planner {
  private readonly view: PlannerView;
  private readonly catalogue: Catalogue;
  private readonly animals: readonly Animal[];
  private readonly byId: ReadonlyMap<string, Animal>;
  private readonly indexOf: ReadonlyMap<string, number>;

  constructor(view: PlannerView) {
    this.view = view;
    this.catalogue = createCatalogue(toAdditions(view.entries));
    this.animals = view.animals.map((animal) => ({ ...animal, parent: unpack(animal.loci) }));
    this.byId = new Map(this.animals.map((animal) => [animal.id, animal]));
    this.indexOf = new Map(this.animals.map(({ id }, index) => [id, index]));
  }

  /** The kinship of two animals of the collection: the expected inbreeding of their young. */
  kinship(a: string, b: string): number {
    const i = this.indexOf.get(a)!;
    const j = this.indexOf.get(b)!;
    return this.view.kinship[(Math.max(i, j) * (Math.max(i, j) + 1)) / 2 + Math.min(i, j)]!;
  }

  private targetOf(text: string): Target {
    return toTarget(parseGenes(text, this.catalogue), this.catalogue);
  }

  private parentOf(parent: PlannedParent, sex: 'female' | 'male'): Parent {
    return parent.kind === 'owned'
      ? this.byId.get(parent.animalId)!.parent
      : parseParent(parent.genes, sex, this.catalogue).parent;
  }

  private sizeOf(animalId: string | null): { odds: Fertility['size']; clutches: number } {
    const own = animalId === null ? null : this.byId.get(animalId)?.size;
    if (own) return { odds: own.odds, clutches: own.observations };
    return { odds: clutchSize([]).odds, clutches: 0 };
  }

  private fertilityOf(animalId: string | null): Fertility {
    return { size: this.sizeOf(animalId).odds, hatch: this.view.hatch.share };
  }

  pair({ dam, sire, target }: PairQuestion): PairAnswer {
    const damId = dam.kind === 'owned' ? dam.animalId : null;
    const size = this.sizeOf(damId);
    const unknown = [dam, sire].flatMap((parent) =>
      parent.kind === 'typed' ? parseGenes(parent.genes, this.catalogue).unknown : [],
    );
    const plan = planPair(
      this.parentOf(sire, 'male'),
      this.parentOf(dam, 'female'),
      target.trim() === '' ? null : this.targetOf(target),
      this.fertilityOf(damId),
      OUTCOMES_SHOWN,
      this.catalogue,
    );
    return {
      ...plan,
      size: { odds: size.odds, mean: meanOf(size.odds), clutches: size.clutches },
      hatch: this.view.hatch.share,
      inbreeding: damId !== null && sire.kind === 'owned' ? this.kinship(damId, sire.animalId) : null,
      unknown,
    };
  }

  mates({ target }: MatesQuestion): RankedMate[] {
    const wanted = this.targetOf(target);
    if (wanted.length === 0) return [];
    return bestMates(
      this.animals,
      wanted,
      (dam, sire) => this.kinship(dam, sire),
      this.view.rules.inbreedingBound,
      MATES_SHOWN,
    ).map((pair) => {
      const sire = this.byId.get(pair.sire)!;
      const { inClutch } = targetChances(
        sire.parent,
        this.byId.get(pair.dam)!.parent,
        wanted,
        this.fertilityOf(pair.dam),
      );
      return { ...pair, inClutch, freeLoad: sire.freeLoad };
    });
  }

  gains({ target, candidates }: GainsQuestion): HoldbackGains {
    const wanted = this.targetOf(target);
    const kinship = (dam: string, sire: string): number => this.kinship(dam, sire);
    return holdbackGains(this.animals, candidates, wanted, kinship, this.view.rules.inbreedingBound);
  }

  private readonly terms = () => ({ ...ROUTE_TERMS, missedSeason: this.view.rules.missedSeason });

  private boughtOf(bought: RoutesQuestion['bought']) {
    return bought && bought.genes.trim() !== ''
      ? { sex: bought.sex, parent: parseParent(bought.genes, bought.sex, this.catalogue).parent }
      : null;
  }

  routes({ target, bought }: RoutesQuestion): RoutesAnswer {
    const wanted = this.targetOf(target);
    if (wanted.length === 0) return { routes: [], missing: [] };
    const extra = this.boughtOf(bought);
    const names = missingAlleles(wanted, extra ? [...this.animals, extra] : this.animals).map(
      (id) => wanted.flatMap(({ locus }) => locus.alleles).find((allele) => allele.id === id)?.name ?? id,
    );
    if (names.length > 0) return { routes: [], missing: names };
    const routes = findRoutes(
      {
        target: wanted,
        animals: this.animals,
        bought: extra,
        kinship: (dam, sire) => this.kinship(dam, sire),
        inbreedingBound: this.view.rules.inbreedingBound,
        fertility: this.fertilityOf(null),
        terms: this.terms(),
      },
      this.catalogue,
    );
    return { routes, missing: [] };
  }

  routeOdds({ target, bought, route }: RouteOddsQuestion): (number | null)[] {
    const wanted = this.targetOf(target);
    const extra = this.boughtOf(bought);
    const parentNow = (parent: RouteParent): Parent | undefined =>
      parent.kind === 'owned'
        ? this.byId.get(parent.animalId)?.parent
        : parent.kind === 'bought'
          ? extra?.parent
          : undefined;
    return route.steps.map((step) => {
      const [dam, sire] = [parentNow(step.dam), parentNow(step.sire)];
      return dam && sire ? stepOdds(step, dam, sire, wanted) : null;
    });
  }

  /** A plan to be played; the caller plays it in pieces, so that it can show progress and stop. */
  simulation({ target, bought, route, holdBack, years, seed }: SimulateQuestion): RouteSimulation {
    return new RouteSimulation(
      {
        route,
        target: this.targetOf(target),
        animals: this.animals,
        bought: this.boughtOf(bought),
        fertilityOf: (animalId) => this.fertilityOf(animalId),
        terms: this.terms(),
        holdBack,
        years,
        seed,
      },
      this.catalogue,
    );
  }

  /** Males for the season's females: a pair is worth the young of the targets that its clutch will have on average. */
  season({ targets, females, fixed, inbreedingBound }: SeasonPlanQuestion): PlannedPair[] {
    const wanted = targets
      .map(({ genes, worth }) => ({ target: this.targetOf(genes), worth }))
      .filter(({ target }) => target.length > 0)
      .map(({ target, worth }) => ({ odds: pairOdds(target), worth }));
    return planSeason({
      females,
      males: this.animals
        .filter(({ sex, notReady }) => sex === 'male' && notReady.length === 0)
        .map(({ id, freeLoad }) => ({ id, load: freeLoad }))
        .concat(fixedOnly(fixed, this.animals)),
      fixed: new Map(fixed),
      inbreeding: (female, male) => this.kinship(female, male),
      inbreedingBound,
      value: (female, male) => {
        const { size, hatch } = this.fertilityOf(female);
        const young = meanOf(size) * hatch;
        const sire = this.byId.get(male)!.parent;
        const dam = this.byId.get(female)!.parent;
        const value = wanted.reduce((sum, { odds, worth }) => sum + worth * odds(sire, dam) * young, 0);
        return value < WORTH_PAIRING ? 0 : value;
      },
    });
  }
}

/** A male that is not ready but was fixed by the keeper stands only where he was put. */
function fixedOnly(
  fixed: SeasonPlanQuestion['fixed'],
  animals: readonly Animal[],
): { id: string; load: number }[] {
  const unready = new Set(animals.filter(({ notReady }) => notReady.length > 0).map(({ id }) => id));
  const counts = new Map<string, number>();
  for (const [, male] of fixed)
    if (male !== null && unready.has(male)) counts.set(male, (counts.get(male) ?? 0) + 1);
  return [...counts].map(([id, load]) => ({ id, load }));
}

const unpack = (loci: PlannerView['animals'][number]['loci']): Parent => ({
  loci: new Map(
    loci.map(([locus, genotypes]) => [
      locus,
      genotypes.map(([a, b, p]): WeightedGenotype => ({ genotype: [a, b], p })),
    ]),
  ),
});
