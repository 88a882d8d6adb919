import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import { appearance, copies, type Genotype, type WeightedGenotype } from '../loci/genotype.ts';
import { WILD, type Locus } from '../loci/locus.ts';
import type { ParsedGenes } from '../notation/reading.ts';
import { livingShare, locusOutcomes, type LocusOutcome } from './locus-outcomes.ts';
import { distributionAt, type Parent } from './parent.ts';

export interface TargetOdds {
  /** The probability that one egg shows at least what the target names. */
  readonly p: number;
  /** The same among the young that live; given where some eggs of the pair do not. */
  readonly pHatched?: number;
  /** The probability of at least one among the eggs, when a number of eggs was given. */
  readonly atLeastOne?: number;
}

/** What is wanted at one locus: any of the genotypes will do, and further genes do no harm. */
export interface TargetLocus {
  readonly locus: Locus;
  readonly wanted: readonly Genotype[];
  /** Nothing of the locus may show: the target says "normal". */
  readonly isPlain?: boolean;
}
export type Target = readonly TargetLocus[];

/** The chance of the target per egg, by sex, for one possible combination of the parents' genotypes. */
export interface Scenario {
  readonly weight: number;
  readonly pMale: number;
  readonly pFemale: number;
}

/** Whether an egg has at least the copies of each allele that the target's genotype has. */
function hasCopies(locus: Locus, wanted: Genotype, genotype: Genotype): boolean {
  return locus.alleles.every((allele) => copies(genotype, allele.id) >= copies(wanted, allele.id));
}

/** Whether an egg is what is wanted at the locus.
 *
 * @example meetsTarget(toTarget(parseGenes('clown'))[0], ['clown', 'clown']) // true */
export function meetsTarget({ locus, wanted, isPlain }: TargetLocus, genotype: Genotype): boolean {
  if (isPlain && appearance(locus, genotype) !== '') return false;
  return wanted.some((one) => hasCopies(locus, one, genotype));
}

/**
 * The chance that an animal is what is wanted, from what it may be at each locus; loci count as independent.
 *
 * @example chanceOfTarget(parseParent('50% het clown', 'male').parent, toTarget(parseGenes('het clown'))) // 0.5
 */
export const chanceOfTarget = (animal: Parent, target: Target): number =>
  target.reduce(
    (product, wanted) =>
      product *
      distributionAt(animal, wanted.locus.id)
        .filter(({ genotype }) => meetsTarget(wanted, genotype))
        .reduce((sum, { p }) => sum + p, 0),
    1,
  );

/**
 * What a text names as wanted: one of several will do, and what is named with a doubt is wanted all the same.
 *
 * @example toTarget(parseGenes('Super Pastel')).length // 1
 */
export function toTarget(
  parsed: Pick<ParsedGenes, 'loci' | 'either'> & Partial<Pick<ParsedGenes, 'isNormal'>>,
  catalogue: Catalogue = CATALOGUE,
): Target {
  const isPlain = parsed.isNormal === true;
  // "Normal" says of every locus that nothing shows there.
  const others = isPlain ? catalogue.loci.filter(({ id }) => !parsed.loci.has(id)) : [];
  const named = [...parsed.loci].map(([id, genotypes]) => ({
    locus: catalogue.locusById(id)!,
    isPlain,
    wanted: parsed.either.has(id)
      ? genotypes.map(({ genotype }) => genotype).filter((genotype) => genotype.some((a) => a !== WILD))
      : [
          genotypes[0]!.genotype.every((a) => a === WILD)
            ? genotypes.at(-1)!.genotype
            : genotypes[0]!.genotype,
        ],
  }));
  return [...named, ...others.map((locus) => ({ locus, isPlain, wanted: [[WILD, WILD] as const] }))];
}

/**
 * The chance per egg of a living target for every combination of what the parents may be, equal ones merged. All eggs of
 * a clutch share one of them. An egg that does not live is no target; what becomes of it at loci that the target does not
 * name counts by its mean. Cost: the product of the parents' possible genotypes at the target's loci.
 *
 * @example targetScenarios(toParent(parseGenes('het clown'), 'male'), toParent(parseGenes('het clown'), 'female'), toTarget(parseGenes('clown'))) // [{"weight": 1, "pMale": 0.125, "pFemale": 0.125}]
 */
export function targetScenarios(
  sire: Parent,
  dam: Parent,
  target: Target,
  catalogue: Catalogue = CATALOGUE,
): Scenario[] {
  const named = new Set(target.map(({ locus }) => locus.id));
  return scenariosFrom(livingElsewhere(sire, dam, named, catalogue), sire, dam, target, locusScenarios);
}

/**
 * The chance of the target per hatchling, that is per egg that lives, for every combination of what the parents may be. What
 * lives is counted by its mean over the combinations.
 *
 * @returns weights that add up to 1, each with its chance
 * @example hatchedScenarios(toParent(parseGenes('clown'), 'male'), toParent(parseGenes('het clown'), 'female'), toTarget(parseGenes('clown'))) // [{"weight": 1, "p": 0.5}]
 */
export function hatchedScenarios(
  sire: Parent,
  dam: Parent,
  target: Target,
  catalogue: Catalogue = CATALOGUE,
): { weight: number; p: number }[] {
  const { pMale, pFemale } = livingElsewhere(sire, dam, new Set(), catalogue);
  const living = pMale + pFemale;
  return targetScenarios(sire, dam, target, catalogue).map((one) => ({
    weight: one.weight,
    p: living > 0 ? Math.min(1, (one.pMale + one.pFemale) / living) : 0,
  }));
}

/** The chance that an egg lives, by sex and times one half, as far as loci decide it that are not named. */
function livingElsewhere(
  sire: Parent,
  dam: Parent,
  named: ReadonlySet<string>,
  catalogue: Catalogue,
): Scenario {
  let [pMale, pFemale] = [0.5, 0.5];
  for (const id of new Set([...sire.loci.keys(), ...dam.loci.keys()])) {
    const locus = catalogue.locusById(id);
    if (!locus?.viability || named.has(id)) continue;
    const { male, female } = livingShare(
      locusOutcomes(locus, distributionAt(sire, id), distributionAt(dam, id)),
    );
    pMale *= male;
    pFemale *= female;
  }
  return { weight: 1, pMale, pFemale };
}

function scenariosFrom(
  first: Scenario,
  sire: Parent,
  dam: Parent,
  target: Target,
  scenariosAt: typeof locusScenarios,
): Scenario[] {
  let scenarios: Scenario[] = [first];
  for (const wanted of target) {
    const { id } = wanted.locus;
    const here = scenariosAt(wanted, distributionAt(sire, id), distributionAt(dam, id));
    scenarios = mergeEqual(
      scenarios.flatMap((one) =>
        here.map((other) => ({
          weight: one.weight * other.weight,
          pMale: one.pMale * other.pMale,
          pFemale: one.pFemale * other.pFemale,
        })),
      ),
    );
  }
  return scenarios;
}

/**
 * The odds that an egg meets a target, and that at least one of N does. Eggs count whether they live or not; among the
 * young that live the share is `pHatched`.
 *
 * All eggs share the same parents: where a parent is uncertain, the chance of at least one is the average over the
 * parents' genotypes of 1-(1-p)^N, not 1-(1-average p)^N.
 *
 * @param eggs - a whole number, 1 or more
 * @example targetOdds(parseParent('het Pied', 'male').parent, parseParent('Pied', 'female').parent, parseGenes('Pied')).p // 0.5
 */
export function targetOdds(
  sire: Parent,
  dam: Parent,
  target: ParsedGenes,
  eggs?: number,
  catalogue: Catalogue = CATALOGUE,
): TargetOdds {
  const wanted = toTarget(target, catalogue);
  const evens = { weight: 1, pMale: 0.5, pFemale: 0.5 };
  const scenarios = scenariosFrom(evens, sire, dam, wanted, eggScenarios);
  const perEgg = ({ pMale, pFemale }: Scenario): number => pMale + pFemale;
  const total = (all: readonly Scenario[]): number => all.reduce((sum, s) => sum + s.weight * perEgg(s), 0);
  const living = perEgg(livingElsewhere(sire, dam, new Set(), catalogue));
  const hatched =
    living < 1 && living > 0
      ? { pHatched: total(targetScenarios(sire, dam, wanted, catalogue)) / living }
      : {};
  const p = total(scenarios);
  if (eggs === undefined) return { p, ...hatched };
  const atLeastOne = scenarios.reduce(
    (sum, s) => sum + s.weight * -Math.expm1(eggs * Math.log1p(-Math.min(1, perEgg(s)))),
    0,
  );
  return { p, ...hatched, atLeastOne };
}

/** Each combination of parental genotypes at a locus, with its weight and the chance per egg of a living target. */
export function locusScenarios(
  target: TargetLocus,
  sire: readonly WeightedGenotype[],
  dam: readonly WeightedGenotype[],
): Scenario[] {
  return scenariosOf(target, sire, dam, ({ viability }) => viability);
}

/** The same, whether an egg lives or not. */
const eggScenarios: typeof locusScenarios = (target, sire, dam) => scenariosOf(target, sire, dam, () => 1);

function scenariosOf(
  target: TargetLocus,
  sire: readonly WeightedGenotype[],
  dam: readonly WeightedGenotype[],
  counts: (outcome: LocusOutcome) => number,
): Scenario[] {
  return sire.flatMap((s) =>
    dam.map((d) => {
      const hits = locusOutcomes(target.locus, [{ ...s, p: 1 }], [{ ...d, p: 1 }]).filter(({ genotype }) =>
        meetsTarget(target, genotype),
      );
      return {
        weight: s.p * d.p,
        pMale: hits.reduce((sum, hit) => sum + hit.pMale * counts(hit), 0),
        pFemale: hits.reduce((sum, hit) => sum + hit.pFemale * counts(hit), 0),
      };
    }),
  );
}

function mergeEqual(scenarios: readonly Scenario[]): Scenario[] {
  const merged = new Map<string, Scenario>();
  for (const scenario of scenarios) {
    if (scenario.weight <= 0) continue;
    const key = `${scenario.pMale}|${scenario.pFemale}`;
    const known = merged.get(key);
    merged.set(key, { ...scenario, weight: scenario.weight + (known?.weight ?? 0) });
  }
  return [...merged.values()];
}
