import { grantForRecord, ROUTES, type NewRecord } from '@karyotome/contract';
import { requirePermission } from '../../access/policy.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import type { Actor, Database, Work } from '../../db/work.ts';
import { isPlain } from '../../domain/records/insert-plain.ts';
import { insertRecord } from '../../domain/records/insert-record.ts';
import { correctRecord, voidRecord, warningsInTime } from '../../domain/records/records.service.ts';

/** The kind that a body says, which is not checked yet. */
const kindOf = (body: unknown): unknown =>
  typeof body === 'object' && body !== null && 'kind' in body ? body.kind : null;

export function recordRoutes({ write }: Endpoints, database: Database): void {
  const add = async (work: Work<Actor>, animalId: string, record: NewRecord) => {
    requirePermission(work.actor, grantForRecord(record.kind));
    const added = await insertRecord(work, animalId, record);
    // Warnings are found out once the record stands: see `complete`.
    return { ...added, warnings: [], isWarningPending: true };
  };
  write(ROUTES.addRecord, ({ work, id, body }) => add(work, id, body), {
    isBeside: ({ request }) => isPlain(kindOf(request.body)),
    complete: async ({ id, body }, actor, answer) => {
      const warnings = await warningsInTime(database, actor, id, body);
      return { ...answer, warnings: warnings ?? [], isWarningPending: warnings === null };
    },
  });
  write(ROUTES.voidRecord, ({ work, id, body }) => voidRecord(work, id, body.reason));
  write(ROUTES.correctRecord, ({ work, id, body }) => correctRecord(work, id, body));
}
