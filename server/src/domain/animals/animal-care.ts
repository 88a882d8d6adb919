import type { AnimalCare, Milestone } from '@karyotome/contract';
import { addDays, percentile, planOf, shedCycle, soakPlan, type SaleRules } from '@karyotome/core';
import { workedOf } from '../husbandry/feeding.service.ts';
import type { Herd } from '../husbandry/herd.ts';

/** How far ahead the growth curve is drawn. */
const AHEAD_DAYS = 180;
/** A female is bred from about this weight on. Common practice, no source. */
const BREEDING_G = { female: 1500, male: 700 } as const;

/** How one animal is kept: its plan and what worked, its shed, its growth with what is to come, and what is out of the ordinary. */
export function careOf(herd: Herd, rules: SaleRules, id: string): AnimalCare {
  const animal = herd.animal(id);
  const { history } = animal;
  return {
    plan: planOf(history, herd.plans),
    own: history.own ?? {},
    worked: workedOf(herd, [animal]),
    shed: shedCycle(history, herd.today),
    soak: soakPlan(history, herd.today),
    concerns: [...herd.concerns(id)],
    growth: growthOf(herd, rules, id),
  };
}

function growthOf(herd: Herd, rules: SaleRules, id: string): AnimalCare['growth'] {
  const growth = herd.growth(id);
  if (!growth) return null;
  return {
    band: growth.band(addDays(herd.today, AHEAD_DAYS)),
    outliers: growth.outliers,
    reaches: milestones(herd, rules, id).map((milestone) => ({
      ...milestone,
      reach: growth.reaches(milestone.massG, herd.today),
    })),
    percentile: percentileOf(herd, id),
  };
}

function milestones(herd: Herd, rules: SaleRules, id: string): (Milestone & { massG: number })[] {
  const { tubId, sex, history } = herd.animal(id);
  const mass = history.weights.at(-1)?.massG ?? 0;
  const tub = tubId === null ? undefined : herd.enclosures.tubs.get(tubId);
  const steps = tub && herd.enclosures.ladders.get(tub.ladderId)?.steps;
  const step = steps?.[tub!.step];
  const next = steps?.[tub!.step + 1];
  const all: (Milestone & { massG: number })[] = [
    ...(step?.maxG != null && next
      ? [{ code: 'outgrows-step', facts: { step: step.name }, massG: step.maxG } as const]
      : []),
    { code: 'sale-mass', facts: {}, massG: rules.massG },
    ...(sex === 'unknown' ? [] : [{ code: 'breeding-mass', facts: {}, massG: BREEDING_G[sex] } as const]),
  ];
  return all.filter(({ massG }) => massG > mass);
}

function percentileOf(herd: Herd, id: string): { share: number; of: number } | null {
  const { sex, history } = herd.animal(id);
  if (history.weights.length === 0) return null;
  const others = [...herd.animals.values()]
    .filter((other) => other.id !== id && other.sex === sex && other.history.weights.length > 0)
    .flatMap((other) => herd.offCurve(other.id) ?? []);
  const own = herd.offCurve(id);
  return own && percentile(own, others);
}
