import type { HealthBodies } from './health-records.ts';
import type { OriginBodies } from './origin-records.ts';
import type { RecordKind } from './records.ts';
import type { Grant } from './session-requests.ts';

/* Apart from the schemas of records, which the browser need not load to know what somebody may do. */

/** What somebody must have been granted to record this kind, correct it or take it back. */
export function grantForRecord(kind: RecordKind): Grant {
  if (kind === 'move') return 'house';
  return kind === 'identification' || kind === 'sex' || isOriginKind(kind) ? 'breed' : 'record';
}

const HEALTH_KINDS: Readonly<Record<keyof HealthBodies, true>> = {
  'health-check': true,
  'vet-visit': true,
  treatment: true,
  dose: true,
  'treatment-end': true,
  quarantine: true,
  'post-mortem': true,
};

const ORIGIN_KINDS: Readonly<Record<keyof OriginBodies, true>> = {
  acquisition: true,
  loan: true,
  'loan-end': true,
};

/** Whether a kind of record is about where an animal comes from, or a breeding loan. */
export const isOriginKind = (kind: RecordKind): kind is keyof OriginBodies =>
  Object.hasOwn(ORIGIN_KINDS, kind);

/** Whether a kind of record is about health. */
export const isHealthKind = (kind: RecordKind): kind is keyof HealthBodies =>
  Object.hasOwn(HEALTH_KINDS, kind);
