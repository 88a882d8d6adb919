export { kaplanMeier, medianWait, type Duration, type SurvivalStep } from './kaplan-meier.ts';
export { fitHazards, type HazardFit } from './proportional-hazards.ts';
