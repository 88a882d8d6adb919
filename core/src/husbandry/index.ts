export {
  animalState,
  type AnimalState,
  type HandlingFlag,
  type HandlingFlags,
  type HerdBasis,
  type Housing,
  type KeptAnimal,
} from './animal-state.ts';
export {
  appetite,
  DIGESTING_DAYS,
  SETTLING_DAYS,
  informativeOffers,
  type Appetite,
  type FastingSeason,
} from './appetite.ts';
export {
  appetiteBaseline,
  concerns,
  type AppetiteBaseline,
  type Concern,
  type Concerns,
  type Watched,
} from './concern.ts';
export { heatTasks } from './heat-tasks.ts';
export {
  heatFaults,
  USUAL_HEAT,
  type HeatFault,
  type HeatFaults,
  type HeatZone,
  type SurfaceReading,
} from './heat.ts';
export {
  CARE_ACTS,
  lastCare,
  type FeedingRecord,
  type History,
  type MoveRecord,
  type ShedRecord,
  type StartPlan,
  type ShedStage,
  type WeightRecord,
  type CareAct,
  type CareRecord,
  type OwnWay,
} from './history.ts';
export { judgeMove, type MoveOutcome } from './judge-move.ts';
export { LADDER_PRESETS, type LadderPreset, type LadderStep } from './ladders.ts';
export { adviseMove, type MoveAdvice, type MoveCircumstances } from './move-advice.ts';
export {
  learnFromMoves,
  moveEpisodes,
  type LearnedMoves,
  type MoveEpisode,
  type TubKind,
} from './move-outcomes.ts';
export type { MoveReason, MoveReasons, Reason, WeighedReason } from './move-reasons.ts';
export { shedCycle, soakPlan, type ShedCycle, type SoakPlan } from './shed-cycle.ts';
export { inShed, SOAK, type InShed } from './shed-state.ts';
export {
  ACT_OF_KIND,
  isOverdue,
  task,
  TASK_ACTS,
  TASK_KINDS,
  type Cutting,
  type MealFacts,
  type StockFacts,
  type Task,
  type TaskAct,
  type TaskCode,
  type TaskFact,
  type TaskKind,
  type Tasks,
} from './task.ts';
export { animalTasks, cleaningTasks, nextWeighing } from './today.ts';
