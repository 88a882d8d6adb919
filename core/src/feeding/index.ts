export {
  byPreySize,
  frozenPrey,
  freezer,
  ORDER_RULES,
  reorderPoint,
  stockOf,
  thawList,
  type FreezerLine,
  type OrderRules,
  type StockEntry,
  type StockUse,
} from './freezer.ts';
export {
  nextMeal,
  planOf,
  type FeedingCircumstances,
  type Meal,
  type MealBasis,
  type MealNote,
  type MealNotes,
  type MealVerdict,
} from './next-meal.ts';
export { offeredStep, planState, type PlanState } from './plan-state.ts';
export { FEEDING_PLANS, REFUSAL_STEPS, type FeedingPlan, type PlanStep } from './plans.ts';
export { preyFor, preyMass, PREY_SIZES, type PreySize, type PreySpecies, type PreyState } from './prey.ts';
export { FEEDING_RULES, weightClass, type FeedingRules, type WeightClass } from './rules.ts';
export {
  mealIntervals,
  tallyWorked,
  whatWorked,
  type Worked,
  type WorkedBy,
  type WorkedSubject,
  type WorkedTally,
} from './what-worked.ts';
