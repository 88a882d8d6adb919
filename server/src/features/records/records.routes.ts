import { ROUTES, type NewRecord } from '@karyotome/contract';
import type { Endpoints } from '../../http/endpoint.ts';
import type { Database, Work } from '../../db/work.ts';
import { insertRecord } from './insert-record.ts';
import { correctRecord, voidRecord, warningsInTime } from './records.service.ts';

export function recordRoutes({ write }: Endpoints, database: Database): void {
  const add = async (work: Work, animalId: string, record: NewRecord) => ({
    ...(await insertRecord(work, animalId, record)),
    // Found out once the record stands: see `complete`.
    warnings: [],
    isWarningPending: true,
  });
  write(ROUTES.addRecord, ({ work, id, body }) => add(work, id, body), {
    complete: async ({ id, body }, actor, answer) => {
      const warnings = await warningsInTime(database, actor, id, body);
      return { ...answer, warnings: warnings ?? [], isWarningPending: warnings === null };
    },
  });
  write(ROUTES.voidRecord, ({ work, id, body }) => voidRecord(work, id, body.reason));
  write(ROUTES.correctRecord, ({ work, id, body }) => correctRecord(work, id, body));
}
