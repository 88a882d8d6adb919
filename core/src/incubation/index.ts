export { boxPlaces } from './box.ts';
export {
  climateAlarms,
  simulatedReading,
  steadyClimate,
  type ClimateAlarm,
  type ClimateAlarms,
  type ClimateLimits,
  type Reading,
  type SensorPlay,
  type SteadyClimate,
} from './climate.ts';
export {
  CHECK_LATE_DAYS,
  EGG_CHECK_DAYS,
  incubationClock,
  YOLK_DAYS,
  type Incubation,
  type IncubationClock,
  type Milestone,
} from './clock.ts';
export {
  EGG_EVENTS,
  EGG_SIGNS,
  EGG_VERDICTS,
  eggState,
  type EggEvent,
  type EggEventKind,
  type EggSign,
  type EggStage,
  type EggState,
  type EggVerdict,
} from './egg.ts';
export { hatchRates, type DoneClutch, type RateBy, type RateGroup, type RateRow } from './hatch-rates.ts';
export { climateTasks, clutchTasks, seasonTasks } from './tasks.ts';
export { rateAt, REFERENCE_C, referenceDays, type DailyMeans } from './thermal-time.ts';
