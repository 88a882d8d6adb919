export type { DoseFacts, HealthFlags, HealthTasks, OpenSigns } from './health-facts.ts';
export {
  HEALTH_SIGNS,
  NO_HEALTH_RECORDS,
  QUARANTINE_REASONS,
  type DoseRecord,
  type HealthCheckRecord,
  type HealthHistory,
  type HealthSign,
  type QuarantineReason,
  type QuarantineRecord,
  type TreatmentEndRecord,
  type TreatmentRecord,
  type VetVisitRecord,
} from './health-records.ts';
export { healthState, type HealthState, type Quarantine } from './health-state.ts';
export {
  healthFlags,
  healthTasks,
  QUARANTINE_CHECK_DAYS,
  QUARANTINE_DAYS,
  RECHECK_DAYS,
} from './health-tasks.ts';
export { MITE_CHECK_DAYS, MITE_WATCH_DAYS, miteTasks, miteWatch, type MiteWatch } from './mite-watch.ts';
export { treatmentCourses, type TreatmentCourse } from './treatment-course.ts';
