import type { Correction, NewRecord } from '@karyotome/contract';
import { literal } from 'sequelize';
import type { RecordRow } from '../../db/rows.ts';
import type { Work } from '../../db/work.ts';
import { publishedAnimals } from '../animals/animals.repository.ts';
import { invalidField, notFound, Refusal } from '../../http/problems.ts';
import { claimsOf, geneticsOf, supportOf } from '../genetics/genetics.service.ts';
import { whyPairingCannot } from '../genetics/identification-check.ts';
import { sexDoubts } from '../genetics/sex-check.ts';
import { insertRecord, refreshAnimal } from './insert-record.ts';

export async function addRecord(
  work: Work,
  animalId: string,
  record: NewRecord,
): Promise<{ id: string; warnings: string[] }> {
  const { id } = await insertRecord(work, animalId, record);
  if (record.kind !== 'identification' && record.kind !== 'sex') return { id, warnings: [] };
  const genetics = await geneticsOf(work);
  const impossible =
    record.kind === 'identification' ? await whyPairingCannot(genetics, animalId, record.body.genes) : [];
  return { id, warnings: [...impossible, ...(await sexDoubts(genetics, animalId))] };
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
  return record;
}

async function voidRow(work: Work, id: string, reason: string, replacedBy: string | null): Promise<void> {
  const { collectionId, accountId } = work.actor;
  await work.models.records.update(
    { voidedAt: literal('clock_timestamp()') as never, voidedBy: accountId, voidReason: reason, replacedBy },
    { where: { collectionId, id }, transaction: work.transaction },
  );
}

/** Takes a record out of account, keeping it. Refused where a published claim rests on it. */
export async function voidRecord(work: Work, id: string, reason: string): Promise<void> {
  const record = await findRecord(work, id);
  await refuseIfPublishedRestsOn(work, record);
  await voidRow(work, id, reason, null);
  await refreshAnimal(work, record.animalId, record.kind);
}

/** Puts another record of the same kind in the place of one, which is kept as voided. */
export async function correctRecord(
  work: Work,
  id: string,
  { reason, ...next }: Correction,
): Promise<{ id: string }> {
  const record = await findRecord(work, id);
  if (next.kind !== record.kind) throw invalidField('kind', `must stay ${record.kind}`);
  await voidRow(work, id, reason, null);
  await refreshAnimal(work, record.animalId, record.kind);
  const replacement = await insertRecord(work, record.animalId, next as NewRecord);
  await voidRow(work, id, reason, replacement.id);
  return replacement;
}

async function refuseIfPublishedRestsOn(work: Work, record: RecordRow): Promise<void> {
  if (record.kind !== 'identification') return;
  const genetics = await geneticsOf(work);
  const published = await publishedAnimals(work);
  const resting: string[] = [];
  for (const { id, number } of published) {
    for (const claim of claimsOf(genetics, id)) {
      const support = (await supportOf(genetics, id, claim)) ?? [];
      if (support.some((one) => one.record === record.id))
        resting.push(`${claim.words} on the page of ${number}`);
    }
  }
  if (resting.length > 0) {
    throw new Refusal(
      'conflict',
      `A published claim rests on this record: ${resting.join(', ')}. Correct it instead, or withdraw the page first.`,
    );
  }
}
