import { isHealthKind, type HealthBodies, type NewRecord } from '@karyotome/contract';

export type HealthRecord = Extract<NewRecord, { kind: keyof HealthBodies }>;

export const isOfHealth = (record: NewRecord): record is HealthRecord => isHealthKind(record.kind);
