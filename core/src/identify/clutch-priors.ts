import { PedigreeEngine } from '../inference/engine.ts';
import { genotypesOf, infer } from '../inference/infer.ts';
import { createEstimator } from '../inference/sample/estimate.ts';
import type { WeightedGenotype } from '../loci/genotype.ts';
import { WILD } from '../loci/locus.ts';
import type { Pedigree, PedigreeAnimal } from '../pedigree/document.ts';
import { withAncestors } from '../pedigree/kin.ts';
import type { Hypothesis } from './phenotype-space.ts';

export interface ClutchFamily {
  readonly dam: string;
  readonly sires: readonly { readonly id: string }[];
  /** The clutch-mates, in any order. */
  readonly mates: readonly string[];
}

/** What each clutch-mate can be before it is looked at, and the loci at which the records contradict one another. */
export interface ClutchPriors {
  readonly of: ReadonlyMap<string, readonly Hypothesis[]>;
  readonly leftOut: readonly string[];
}

const SEXES = ['female', 'male'] as const;

/**
 * What each one of a clutch can be, given everything that is recorded but its own identification: its parents and theirs,
 * all their young, and its clutch-mates.
 *
 * Loci are independent only once sire and sex are given, and the engine reports each locus by itself. So an unborn sibling
 * of each candidate sire and each sex is added, of which nothing was seen: its distribution is the one wanted. The odds of
 * sire and sex are the animal's own. An animal that has bred is read itself, with what its own young say of it.
 *
 * Cost: one engine for the first question about a family, then an update for each identified clutch-mate.
 */
export class ClutchPriorReader {
  private family = '';
  private unborn: readonly PedigreeAnimal[] = [];
  private engine: PedigreeEngine | null = null;

  read(pedigree: Pedigree, { dam, sires, mates }: ClutchFamily): ClutchPriors {
    const family = JSON.stringify([dam, sires.map(({ id }) => id)]);
    if (family !== this.family) {
      this.family = family;
      this.engine = null;
      this.unborn = sires.flatMap(({ id }) =>
        SEXES.map((sex): PedigreeAnimal => ({
          id: `unborn ${id} ${sex}`,
          sex,
          dam,
          sires: [{ id, weight: 1 }],
          calls: [],
        })),
      );
    }
    const base: Pedigree = { ...pedigree, animals: [...pedigree.animals, ...this.unborn] };
    const bred = new Set(
      pedigree.animals.flatMap(({ dam: mother, sires: fathers }) => [
        mother,
        ...(fathers ?? []).map(({ id }) => id),
      ]),
    );
    const unlooked = new Map<string, readonly Hypothesis[]>();
    const of = new Map<string, readonly Hypothesis[]>();
    const leftOut = new Set<string>();
    for (const id of mates) {
      const at = pedigree.animals.findIndex((animal) => animal.id === id);
      const animal = pedigree.animals[at]!;
      const isPlain = (animal.calls ?? []).length === 0 && !bred.has(id);
      // Clutch-mates of one sex that were not looked at yet are alike.
      const known = isPlain ? unlooked.get(animal.sex) : undefined;
      // From one silent mate straight to the next: each step back to the whole record would cost another update.
      const asked =
        (animal.calls ?? []).length === 0
          ? base
          : { ...base, animals: base.animals.with(at, { ...animal, calls: [] }) };
      if (!known) this.bring(asked);
      const hypotheses = known ?? this.hypothesesOf(asked, at, sires, bred.has(id), leftOut);
      if (isPlain) unlooked.set(animal.sex, hypotheses);
      of.set(id, hypotheses);
    }
    return { of, leftOut: [...leftOut] };
  }

  private bring(pedigree: Pedigree): void {
    if (this.engine?.pedigree === pedigree) return;
    if (this.engine) this.engine.update(pedigree);
    else this.engine = new PedigreeEngine(pedigree, createEstimator());
  }

  private hypothesesOf(
    pedigree: Pedigree,
    at: number,
    sires: ClutchFamily['sires'],
    hasBred: boolean,
    leftOut: Set<string>,
  ): Hypothesis[] {
    const engine = this.engine!;
    const animal = pedigree.animals[at]!;
    const odds = sires.length > 1 ? engine.sireOdds(at) : [1];
    const pFemale = animal.sex === 'unknown' ? engine.femaleOdds(at) : animal.sex === 'female' ? 1 : 0;
    const first = pedigree.animals.length - this.unborn.length;
    const clashing = pedigree.loci.filter((_, l) => engine.compact(l) === null);
    const alone = clashing.length > 0 ? this.fromAncestors(pedigree, clashing) : new Map<string, never>();
    for (const { id } of clashing) if (!alone.get(this.unborn[0]!.id)?.has(id)) leftOut.add(id);
    return sires
      .flatMap(({ id: sire }, k) =>
        SEXES.map((sex, s): Hypothesis => {
          const place = first + 2 * k + s;
          const loci = pedigree.loci.flatMap(({ id: locus }, l) => {
            const genotypes: readonly WeightedGenotype[] | undefined = clashing.some(
              (one) => one.id === locus,
            )
              ? alone.get(this.unborn[2 * k + s]!.id)?.get(locus)
              : genotypesOf(engine, hasBred ? at : place, l);
            const isWild =
              genotypes?.every(({ genotype }) => genotype.every((allele) => allele === WILD)) ?? true;
            return isWild
              ? []
              : [{ locus, genotypes: genotypes!.map(({ genotype, p }) => ({ genotype, p })) }];
          });
          return { sire, sex, weight: odds[k]! * (sex === 'female' ? pFemale : 1 - pFemale), loci };
        }),
      )
      .filter(({ weight }) => weight > 0);
  }

  /** Where the records of a locus contradict one another somewhere, the parents' ancestors alone are asked. */
  private fromAncestors(
    pedigree: Pedigree,
    loci: Pedigree['loci'],
  ): ReadonlyMap<string, ReadonlyMap<string, readonly WeightedGenotype[]>> {
    const animals = withAncestors(
      pedigree.animals,
      this.unborn.map(({ id }) => id),
    );
    return infer({ ...pedigree, loci, animals }, createEstimator()).animals;
  }
}
