import type { AnimalCare, Milestone } from '@karyotome/contract';
import {
  addDays,
  Growth,
  percentile,
  type AnimalState,
  type KeptAnimal,
  type LadderStep,
  type SaleRules,
} from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { plansOf } from '../husbandry/feeding-plans.ts';
import { workedWith } from '../husbandry/herd-lessons.ts';
import { basisOf } from '../states/day-basis.ts';
import type { StoredState } from '../states/compute-state.ts';
import { comparedWith } from '../states/states.queries.ts';

/** How far ahead the growth curve is drawn. */
const AHEAD_DAYS = 180;
/** A female is bred from about this weight on. Common practice, no source. */
const BREEDING_G = { female: 1500, male: 700 } as const;

/** How one animal is kept: its plan and what worked, its shed, its growth with what is to come, and what is out of the ordinary. */
export async function careOf(
  work: Work,
  animal: KeptAnimal,
  state: StoredState,
  rules: SaleRules,
): Promise<AnimalCare> {
  const { history } = animal;
  const [plans, worked, growth] = await Promise.all([
    plansOf(work),
    workedWith(work, history),
    growthOf(work, animal, state, rules),
  ]);
  return {
    plan: plans.find(({ id }) => id === state.planId)!,
    own: history.own ?? {},
    worked,
    shed: state.shed,
    soak: state.soak,
    health: state.health,
    loan: state.loan,
    concerns: [...state.concerns],
    growth,
  };
}

async function growthOf(
  work: Work,
  animal: KeptAnimal,
  { offCurve }: StoredState,
  rules: SaleRules,
): Promise<AnimalCare['growth']> {
  if (!Growth.knows(animal)) return null;
  const growth = new Growth(animal, (await basisOf(work)).growth);
  return {
    band: growth.band(addDays(work.today, AHEAD_DAYS)),
    outliers: growth.outliers,
    reaches: milestones(animal, rules).map((milestone) => ({
      ...milestone,
      reach: growth.reaches(milestone.massG, work.today),
    })),
    percentile: animal.weights.length === 0 ? null : await percentileOf(work, animal, offCurve),
  };
}

function milestones(
  { sex, weights, housing }: KeptAnimal,
  rules: SaleRules,
): (Milestone & { massG: number })[] {
  const mass = weights.at(-1)?.massG ?? 0;
  const step: LadderStep | undefined = housing?.steps[housing.step];
  const next = housing?.steps[housing.step + 1];
  const all: (Milestone & { massG: number })[] = [
    ...(step?.maxG != null && next
      ? [{ code: 'outgrows-step', facts: { step: step.name }, massG: step.maxG } as const]
      : []),
    { code: 'sale-mass', facts: {}, massG: rules.massG },
    ...(sex === 'unknown' ? [] : [{ code: 'breeding-mass', facts: {}, massG: BREEDING_G[sex] } as const]),
  ];
  return all.filter(({ massG }) => massG > mass);
}

/** Among the others of its sex, as their states were last stored. */
async function percentileOf(
  work: Work,
  { id, sex }: KeptAnimal,
  own: AnimalState['offCurve'],
): Promise<{ share: number; of: number } | null> {
  if (!own) return null;
  return percentile(await comparedWith(work, { animalId: id, sex, age: own.age, off: own.off }));
}
