import type {
  DoseRecord,
  HealthCheckRecord,
  HealthHistory,
  QuarantineRecord,
  TreatmentEndRecord,
  TreatmentRecord,
  VetVisitRecord,
} from '@karyotome/core';
import type { HealthBodies, RecordKind } from '@karyotome/contract';
import type { RecordRow } from '../../db/rows.ts';

type Row = Pick<RecordRow, 'id' | 'kind' | 'onDay' | 'body'>;

const LIST_OF_KIND = {
  'health-check': 'checks',
  'vet-visit': 'visits',
  treatment: 'treatments',
  dose: 'doses',
  'treatment-end': 'ends',
  quarantine: 'quarantines',
} as const satisfies Partial<Record<RecordKind, keyof HealthHistory>>;
type Kind = keyof typeof LIST_OF_KIND;

export const isOfHealth = (kind: RecordKind): kind is Kind => kind in LIST_OF_KIND;

/** Sorts records of health, which come in date order, into what core reasons from. */
export function toHealthHistory(records: readonly Row[]): HealthHistory {
  const of = <K extends Kind, T>(
    wanted: K,
    read: (body: HealthBodies[K] & Record<string, unknown>, is: { id: string; on: string }) => T,
  ): T[] =>
    records
      .filter(({ kind }) => kind === wanted)
      .map(({ id, onDay: on, body }) => read(body as never, { id, on }));
  return {
    checks: of('health-check', ({ signs, words }, is): HealthCheckRecord => ({
      ...is,
      signs,
      ...(words ? { words } : {}),
    })),
    visits: of('vet-visit', ({ veterinarian, nextOn }, is): VetVisitRecord => ({
      ...is,
      veterinarian,
      ...(nextOn ? { nextOn } : {}),
    })),
    treatments: of('treatment', ({ weighEveryDays, courseId, ...body }, is): TreatmentRecord => ({
      ...is,
      ...body,
      courseId: String(courseId),
      ...(weighEveryDays ? { weighEveryDays } : {}),
    })),
    doses: of('dose', (body, is): DoseRecord => ({ ...is, ...body })),
    ends: of('treatment-end', ({ courseId }, is): TreatmentEndRecord => ({ ...is, courseId })),
    quarantines: of('quarantine', (body, is): QuarantineRecord => ({ ...is, ...body })),
  };
}
