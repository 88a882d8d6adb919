import {
  isHealthKind,
  isOriginKind,
  type HealthBodies,
  type NewRecord,
  type OriginBodies,
} from '@karyotome/contract';

/* Kinds of records whose fields stand together in one component. */

export type HealthRecord = Extract<NewRecord, { kind: keyof HealthBodies }>;
export const isOfHealth = (record: NewRecord): record is HealthRecord => isHealthKind(record.kind);

export type OriginRecord = Extract<NewRecord, { kind: keyof OriginBodies }>;
export const isOfOrigin = (record: NewRecord): record is OriginRecord => isOriginKind(record.kind);
