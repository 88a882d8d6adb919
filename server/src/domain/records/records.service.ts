import { grantForRecord, type Correction, type NewRecord, type RecordWarning } from '@karyotome/contract';
import { requirePermission } from '../../access/policy.ts';
import type { RecordRow } from '../../db/rows.ts';
import { inferring } from '../../db/turns.ts';
import { reading, type Actor, type Database, type Work } from '../../db/work.ts';
import { invalidField, notFound, Refusal } from '../../refusal.ts';
import { within } from '../../within.ts';
import { geneticsOf } from '../genetics/genetics.service.ts';
import { publishedSupport } from '../publications/published-support.ts';
import { whyPairingCannot } from '../genetics/identification-check.ts';
import { refuseIfDosesStand } from '../health/health-record-body.ts';
import { sexDoubts } from '../genetics/sex-check.ts';
import { insertRecord, refreshAnimal } from './insert-record.ts';
import { voidRows } from '../../db/change-rows.ts';

/** What a genetic record is warned of: that the recorded parents cannot give it, or that its sex does not fit its genes. */
async function warningsOf(work: Work, animalId: string, record: NewRecord): Promise<RecordWarning[]> {
  const genetics = await geneticsOf(work);
  if (!genetics.recorded.has(animalId)) return [];
  const impossible =
    record.kind === 'identification' ? await whyPairingCannot(genetics, animalId, record.body.genes) : [];
  return [
    ...impossible.map((facts) => ({ code: 'pair-cannot-give', facts }) as const),
    ...(await sexDoubts(genetics, animalId)).map((facts) => ({ code: 'sex-does-not-fit', facts }) as const),
  ];
}

/** A record never waits long for what is inferred from it. */
const WARNINGS_MS = 2_000;

/**
 * Warnings of a record that was written. What takes too long to find out is left to the animal's page and to the list of
 * contradictions.
 *
 * @returns `null` where they are not there in time
 */
export async function warningsInTime(
  database: Database,
  actor: Actor,
  animalId: string,
  record: NewRecord,
): Promise<RecordWarning[] | null> {
  if (record.kind !== 'identification' && record.kind !== 'sex') return [];
  const warnings = inferring.take(() =>
    reading(database, actor, (work) => warningsOf(work, animalId, record)),
  );
  return within(Math.max(WARNINGS_MS, database.inferencePatienceMs), warnings).catch((error: unknown) => {
    // The record stands: that nothing can be said about it now is no reason to answer otherwise.
    database.onFault(error);
    return null;
  });
}

async function findRecord(work: Work, id: string): Promise<RecordRow> {
  const { collectionId } = work.actor;
  const row = await work.models.records.findOne({
    where: { collectionId, id },
    transaction: work.transaction,
    lock: true,
  });
  if (!row) throw notFound('This record');
  const record = row.get();
  if (record.voidedAt) throw new Refusal('conflict', 'This record was voided before.');
  if (record.takenId !== null)
    throw new Refusal(
      'conflict',
      'This record came with the animal from its breeder: it is theirs, and stays as it is.',
    );
  return record;
}

/** Takes a record out of account, keeping it. Refused where a published claim rests on it. */
export async function voidRecord(work: Work<Actor>, id: string, reason: string): Promise<void> {
  const record = await findRecord(work, id);
  requirePermission(work.actor, grantForRecord(record.kind));
  await refuseIfPublishedRestsOn(work, record);
  await refuseIfDosesStand(work, record);
  await voidRows(work, work.models.records, { id }, reason);
  await refreshAnimal(work, record.animalId, record.kind);
}

/** Puts another record of the same kind in the place of one, which is kept as voided. */
export async function correctRecord(
  work: Work<Actor>,
  id: string,
  { reason, ...next }: Correction,
): Promise<{ id: string }> {
  const record = await findRecord(work, id);
  requirePermission(work.actor, grantForRecord(record.kind));
  if (next.kind !== record.kind) throw invalidField('kind', `must stay ${record.kind}`);
  await voidRows(work, work.models.records, { id }, reason);
  await refreshAnimal(work, record.animalId, record.kind);
  const replacement = await insertRecord(work, record.animalId, next as NewRecord, {
    corrected: record,
  });
  await voidRows(work, work.models.records, { id }, reason, { replacedBy: replacement.id });
  return replacement;
}

async function refuseIfPublishedRestsOn(work: Work, record: RecordRow): Promise<void> {
  if (record.kind !== 'identification') return;
  const resting = (await publishedSupport(work)).get(record.id);
  if (resting) {
    throw new Refusal(
      'conflict',
      `A published claim rests on this record: ${resting.map(({ label, number }) => `${label} on the page of ${number}`).join(', ')}. Correct it instead, or withdraw the page first.`,
    );
  }
}
