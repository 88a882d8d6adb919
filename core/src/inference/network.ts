import type { Pedigree, PedigreeAnimal, PedigreeLocus } from '../pedigree/document.ts';
import { tableSize, type Factor } from './factor.ts';
import {
  allStates,
  callLikelihood,
  founderProbability,
  transmission,
  type Source,
  type State,
} from './states.ts';

/** The pedigree as a product of tables: one variable per animal and locus, one per open sire, one per unknown sex. */
export interface Network {
  readonly sizes: readonly number[];
  readonly factors: readonly Factor[];
  /** `animal|locus` -> variable and its states. */
  readonly genotypes: ReadonlyMap<string, { readonly variable: number; readonly states: readonly State[] }>;
  readonly sires: ReadonlyMap<string, number>;
  readonly sexes: ReadonlyMap<string, number>;
}

const at = (animal: string, locus: string): string => `${animal}|${locus}`;

/** Ancestors before descendants. The caller has checked that nobody is its own ancestor. */
export function ancestralOrder(animals: readonly PedigreeAnimal[]): PedigreeAnimal[] {
  const byId = new Map(animals.map((animal) => [animal.id, animal]));
  const ordered = new Set<PedigreeAnimal>();
  const visit = (animal: PedigreeAnimal): void => {
    const stack: [PedigreeAnimal, boolean][] = [[animal, false]];
    while (stack.length > 0) {
      const [next, parentsDone] = stack.pop()!;
      if (ordered.has(next)) continue;
      if (parentsDone) {
        ordered.add(next);
        continue;
      }
      stack.push([next, true]);
      for (const id of [next.dam, ...(next.sires ?? []).map((sire) => sire.id)]) {
        const parent = id === undefined ? undefined : byId.get(id);
        if (parent && !ordered.has(parent)) stack.push([parent, false]);
      }
    }
  };
  animals.forEach(visit);
  return [...ordered];
}

/** Builds the tables. States that hard calls or the parents' states rule out are dropped first. */
export function buildNetwork(pedigree: Pedigree): Network {
  const builder = new Builder(pedigree);
  return builder.build();
}

class Builder {
  private readonly sizes: number[] = [];
  private readonly factors: Factor[] = [];
  private readonly genotypes = new Map<string, { variable: number; states: readonly State[] }>();
  private readonly sires = new Map<string, number>();
  private readonly sexes = new Map<string, number>();
  private readonly ordered: readonly PedigreeAnimal[];
  private readonly pedigree: Pedigree;

  constructor(pedigree: Pedigree) {
    this.pedigree = pedigree;
    this.ordered = ancestralOrder(pedigree.animals);
  }

  build(): Network {
    const sexLinked = this.pedigree.loci.some((locus) => locus.sexLinked);
    for (const animal of this.ordered) {
      if ((animal.sires?.length ?? 0) > 1) this.addSires(animal);
      if (animal.sex === 'unknown' && sexLinked) this.addSex(animal);
      for (const locus of this.pedigree.loci) this.addGenotype(animal, locus);
    }
    return {
      sizes: this.sizes,
      factors: this.factors,
      genotypes: this.genotypes,
      sires: this.sires,
      sexes: this.sexes,
    };
  }

  private addVariable(size: number): number {
    return this.sizes.push(size) - 1;
  }

  private addSires(animal: PedigreeAnimal): void {
    const candidates = animal.sires!;
    const variable = this.addVariable(candidates.length);
    const sum = candidates.reduce((weights, sire) => weights + sire.weight, 0);
    this.sires.set(animal.id, variable);
    this.factors.push({ vars: [variable], table: Float64Array.from(candidates, (c) => c.weight / sum) });
  }

  private addSex(animal: PedigreeAnimal): void {
    const variable = this.addVariable(2);
    this.sexes.set(animal.id, variable);
    this.factors.push({ vars: [variable], table: Float64Array.of(0.5, 0.5) });
  }

  private addGenotype(animal: PedigreeAnimal, locus: PedigreeLocus): void {
    const calls = (animal.calls ?? []).filter((call) => call.locus === locus.id);
    const states = allStates(locus, animal.sex).filter(
      (state) => callLikelihood(calls, state) > 0 && this.reachable(animal, locus, state),
    );
    const variable = this.addVariable(states.length);
    this.genotypes.set(at(animal.id, locus.id), { variable, states });
    const sex = this.sexes.get(animal.id);
    const linkedSex = locus.sexLinked && sex !== undefined ? [sex] : [];
    const parents = this.parentVariables(animal, locus);
    const vars = [variable, ...linkedSex, ...parents.vars];
    const table = new Float64Array(tableSize(vars, this.sizes));
    let index = 0;
    for (const state of states) {
      const likelihood = callLikelihood(calls, state);
      for (const sexIndex of linkedSex.length > 0 ? [0, 1] : [null]) {
        const sexFits = sexIndex === null || (sexIndex === 0) === (state.sex === 'female');
        for (const origin of parents.origins) {
          table[index++] = sexFits ? likelihood * origin(state) : 0;
        }
      }
    }
    this.factors.push({ vars, table });
  }

  private source(
    parent: string | undefined,
    locus: PedigreeLocus,
  ): { variable: number | null; sources: Source[] } {
    const known = parent === undefined ? undefined : this.genotypes.get(at(parent, locus.id));
    if (!known) return { variable: null, sources: [{ unrecorded: this.pedigree.unrecorded }] };
    return { variable: known.variable, sources: known.states.map((state) => ({ state })) };
  }

  /** The variables a genotype hangs on, and for each of their joint states (in table order) the chance of a state. */
  private parentVariables(
    animal: PedigreeAnimal,
    locus: PedigreeLocus,
  ): { vars: number[]; origins: ((state: State) => number)[] } {
    const sires = animal.sires ?? [];
    if (animal.dam === undefined && sires.length === 0) {
      return { vars: [], origins: [(state) => founderProbability(locus, animal, state)] };
    }
    const dam = this.source(animal.dam, locus);
    const candidates = (sires.length > 0 ? sires : [undefined]).map((sire) => this.source(sire?.id, locus));
    const choice = this.sires.get(animal.id);
    const vars = [dam, ...candidates].flatMap(({ variable }) => (variable === null ? [] : [variable]));
    let joint: { dam: Source; sires: Source[] }[] = dam.sources.map((source) => ({ dam: source, sires: [] }));
    for (const { sources } of candidates) {
      joint = joint.flatMap((one) =>
        sources.map((source) => ({ dam: one.dam, sires: [...one.sires, source] })),
      );
    }
    const origins = joint.flatMap((one) =>
      one.sires
        .filter((_, index) => choice !== undefined || index === 0)
        .map((sire) => (state: State) => transmission(locus, state, one.dam, sire)),
    );
    return { vars: choice === undefined ? vars : [...vars, choice], origins };
  }

  private reachable(animal: PedigreeAnimal, locus: PedigreeLocus, state: State): boolean {
    return this.parentVariables(animal, locus).origins.some((origin) => origin(state) > 0);
  }
}
