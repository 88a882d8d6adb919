import type { PlannerView, ProjectView } from '@karyotome/contract';
import {
  ownedParents,
  remainingRoute,
  type NotReady,
  type RemainingRoute,
  type RouteStep,
} from '@karyotome/core';

type Planned = PlannerView['animals'][number];

/** A pairing of what is left of a project's plan. */
export interface PlanStep {
  readonly step: RouteStep;
  /** Which one of the whole plan it is, counted from 0. */
  readonly number: number;
  /** Both parents are here: it can be the next. */
  readonly pair: { readonly dam: Planned; readonly sire: Planned } | null;
  /** Years until both may breed, 0 for now; null where one is not here yet. */
  readonly readyIn: number | null;
  readonly notReady: readonly NotReady[];
  /** The season for which it is planned already. */
  readonly plannedFor: number | null;
}

export interface PlanState {
  readonly left: RemainingRoute;
  readonly steps: readonly PlanStep[];
  /** Animals of the plan that cannot be planned with: gone, reserved, or not sexed. */
  readonly missing: readonly string[];
}

/** What is left of a project's plan, and what of it can be done. @returns null where no route was chosen */
export function planState(project: ProjectView, planner: PlannerView): PlanState | null {
  if (!project.plan) return null;
  const held = new Map(
    project.projectAnimals.flatMap(({ step, animal }) => (step === null ? [] : [[step, animal.id] as const])),
  );
  const left = remainingRoute(project.plan.route, held);
  const byId = new Map(planner.animals.map((animal) => [animal.id, animal]));
  return {
    left,
    missing: ownedParents(left.route).filter((id) => !byId.has(id)),
    steps: left.route.steps.map((step, i) => ({
      step,
      number: left.stepOf[i]!,
      ...readinessOf(step, byId),
      plannedFor: plannedFor(project, step, planner.season),
    })),
  };
}

function readinessOf(
  { dam, sire }: RouteStep,
  byId: ReadonlyMap<string, Planned>,
): Pick<PlanStep, 'pair' | 'readyIn' | 'notReady'> {
  const mother = dam.kind === 'owned' ? byId.get(dam.animalId) : undefined;
  const father = sire.kind === 'owned' ? byId.get(sire.animalId) : undefined;
  if (!mother || !father) return { pair: null, readyIn: null, notReady: [] };
  return {
    pair: { dam: mother, sire: father },
    readyIn: Math.max(mother.readyIn, father.readyIn),
    notReady: [...mother.notReady, ...father.notReady],
  };
}

function plannedFor({ pairings }: ProjectView, { dam, sire }: RouteStep, season: number): number | null {
  if (dam.kind !== 'owned' || sire.kind !== 'owned') return null;
  const planned = pairings.find(
    (one) =>
      one.plannedId !== null &&
      one.season >= season &&
      one.dam.id === dam.animalId &&
      one.sires.some(({ id }) => id === sire.animalId),
  );
  return planned?.season ?? null;
}

/** The first season in which a pair may breed. */
export const seasonFor = (readyIn: number, season: number): number =>
  season + Math.ceil(Math.max(0, readyIn - 1e-9));
