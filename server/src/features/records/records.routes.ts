import { ROUTES, type NewRecord } from '@karyotome/contract';
import type { Endpoints } from '../../http/endpoint.ts';
import type { Actor, Database, Work } from '../../db/work.ts';
import { isPlain } from '../../domain/records/insert-plain.ts';
import { insertRecord } from '../../domain/records/insert-record.ts';
import { correctRecord, voidRecord, warningsInTime } from '../../domain/records/records.service.ts';

/** The kind that a body says, which is not checked yet. */
const kindOf = (body: unknown): unknown =>
  typeof body === 'object' && body !== null && 'kind' in body ? body.kind : null;

export function recordRoutes({ write }: Endpoints, database: Database): void {
  const add = async (work: Work<Actor>, animalId: string, record: NewRecord) => ({
    ...(await insertRecord(work, animalId, record)),
    // Found out once the record stands: see `complete`.
    warnings: [],
    isWarningPending: true,
  });
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
