import type { HealthSign, QuarantineReason } from '@karyotome/core';
import { signsWords } from '@karyotome/words';
import type { Entry } from '../rounds/round-acts.ts';

/** A dose by its number, so that two hands cannot both have given it. */
export const doseEntry = (
  { courseId, ordinal, what }: { readonly courseId: string; readonly ordinal: number; readonly what: string },
  isGiven: boolean,
  on: string,
): Entry => ({
  record: { kind: 'dose', on, body: { courseId, ordinal, isGiven } },
  text: `${what}: dose ${ordinal} ${isGiven ? 'given' : 'left out'}`,
});

export const clearCheck = (on: string): Entry => ({
  record: { kind: 'health-check', on, body: { signs: [] } },
  text: 'looked through, nothing found',
});

export const signsFound = (signs: HealthSign[], on: string): Entry => ({
  record: { kind: 'health-check', on, body: { signs } },
  text: signsWords({ signs }),
});

export const quarantineEnd = (reason: QuarantineReason, on: string): Entry => ({
  record: { kind: 'quarantine', on, body: { until: null, reason } },
  text: 'quarantine ended',
});
