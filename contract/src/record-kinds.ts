import type { HealthBodies } from './health-records.ts';
import type { RecordKind } from './records.ts';
import type { Grant } from './session-requests.ts';

/* Apart from the schemas of records, which the browser need not load to know what somebody may do. */

/** What somebody must have been granted to record this kind, correct it or take it back. */
export function grantForRecord(kind: RecordKind): Grant {
  if (kind === 'move') return 'house';
  if (kind === 'acquisition' || kind === 'loan' || kind === 'loan-end') return 'breed';
  return kind === 'identification' || kind === 'sex' ? 'breed' : 'record';
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

/** Whether a kind of record is about health. */
export const isHealthKind = (kind: RecordKind): kind is keyof HealthBodies =>
  Object.hasOwn(HEALTH_KINDS, kind);
