import { randomUUID } from 'node:crypto';
import type { NewRecord } from '@karyotome/contract';
import { literal } from 'sequelize';
import type { AnimalRow, RecordRow } from '../../db/rows.ts';
import { touchGenetics, type Actor, type Work } from '../../db/work.ts';
import { invalidField, notFound, Refusal } from '../../refusal.ts';
import { notify } from '../changes/notify.ts';
import { catalogueOf } from '../catalogue/catalogue.service.ts';
import { healthRecordBody } from '../health/health-record-body.ts';
import { genesProblems } from '../genetics/identification-check.ts';
import { raiseVersion } from '../../db/change-rows.ts';
import { checkLater } from './check-later.ts';
import { isLent, latestOfKind, namesOfTubs, othersInTub } from './records.queries.ts';

/**
 * What was said of an animal as it was entered carries the moment of the animal's own row: it is no history, and goes with
 * the row where that was a mistake.
 */
export const AS_ENTERED = literal('now()') as never;

/** Writes one dated record and what follows from it: the animal's sex, its tub, the inferred genetics. */
export async function insertRecord(
  work: Work<Actor>,
  animalId: string,
  record: NewRecord,
  { isOfEntry = false, corrected = null }: { isOfEntry?: boolean; corrected?: RecordRow | null } = {},
): Promise<{ id: string; alsoThere?: string[] }> {
  const { collectionId, accountId } = work.actor;
  const animal = (
    await work.models.animals.findOne({
      where: { collectionId, id: animalId },
      transaction: work.transaction,
      lock: true,
    })
  )?.get();
  if (!animal) throw notFound('This animal');
  if (animal.hatchedOn && record.on < animal.hatchedOn) {
    throw invalidField('on', `lies before the hatch date, ${animal.hatchedOn}`, 'before-hatching');
  }
  const id = randomUUID();
  const body =
    (await healthRecordBody(work, animal, record, { id, corrected })) ??
    (await completeBody(work, animal, record));
  await work.models.records.create(
    {
      collectionId,
      id,
      animalId,
      kind: record.kind,
      onDay: record.on,
      body,
      note: record.note || null,
      authorId: accountId,
      ...(isOfEntry ? { recordedAt: AS_ENTERED } : {}),
    },
    { transaction: work.transaction },
  );
  await refreshAnimal(work, animalId, record.kind);
  if (record.kind !== 'move' || record.body.toTubId === null) return { id };
  const alsoThere = await livingIn(work, record.body.toTubId, animalId);
  if (alsoThere.length === 0) return { id };
  // Two may live in one tub; that it happened, everybody who moves animals is told.
  const numbers = [animal.number, ...alsoThere];
  work.transaction.afterCommit(() =>
    notify(collectionId, { code: 'tub-shared', facts: { tub: String(body['to']), numbers } }),
  );
  return { id, alsoThere };
}

/** Numbers of the others that live in a tub: two in one is allowed, and said. */
async function livingIn(work: Work, tubId: string, except: string): Promise<string[]> {
  const rows = await othersInTub(work, { tubId, except });
  return rows.map(({ number }) => number);
}

/** Checks what needs the database, and adds what the record itself must remember. */
async function completeBody(
  work: Work,
  animal: AnimalRow,
  record: NewRecord,
): Promise<Record<string, unknown>> {
  if (record.kind === 'identification') {
    const problems = genesProblems(record.body.genes, 'body.genes', await catalogueOf(work));
    if (problems.length > 0)
      throw new Refusal('invalid', 'Some words of the genes need a correction.', problems);
  }
  if (record.kind === 'loan') checkLater('body.until', record.body.until, record.on);
  if (record.kind === 'loan-end' && !(await isLent(work, animal.id, record.on)))
    throw invalidField('on', `lies in no loan of ${animal.number}`, 'no-loan');
  if (record.kind === 'sex') await checkSexFitsYoung(work, animal, record.body.sex);
  if (record.kind === 'move') {
    if (record.body.toTubId === animal.tubId)
      throw invalidField('body.toTubId', 'is the tub it lives in', 'same-tub');
    const places = await tubNames(work, [animal.tubId, record.body.toTubId]);
    if (record.body.toTubId && !places.has(record.body.toTubId)) {
      throw invalidField('body.toTubId', 'names no tub of this collection');
    }
    return {
      ...record.body,
      fromTubId: animal.tubId,
      from: animal.tubId ? (places.get(animal.tubId) ?? null) : null,
      to: record.body.toTubId ? (places.get(record.body.toTubId) ?? null) : null,
    };
  }
  return { ...record.body };
}

async function checkSexFitsYoung(work: Work, animal: AnimalRow, sex: 'female' | 'male'): Promise<void> {
  const column = sex === 'male' ? 'dam' : 'sire';
  if (await isParent(work, animal.id, column))
    throw invalidField(
      'body.sex',
      `cannot be ${sex}: ${animal.number} is recorded as a ${column}`,
      'wrong-sex',
    );
}

async function isParent(
  { models, actor, transaction }: Work,
  id: string,
  column: 'dam' | 'sire',
): Promise<boolean> {
  const { collectionId } = actor;
  const [young, pairings] =
    column === 'dam'
      ? await Promise.all([
          models.animals.count({ where: { collectionId, damId: id }, transaction }),
          models.pairings.count({ where: { collectionId, damId: id }, transaction }),
        ])
      : await Promise.all([
          models.animals.count({ where: { collectionId, sireId: id }, transaction }),
          models.pairingSires.count({ where: { collectionId, sireId: id }, transaction }),
        ]);
  return young + pairings > 0;
}

async function tubNames(work: Work, ids: readonly (string | null)[]): Promise<Map<string, string>> {
  const wanted = ids.filter((id) => id !== null);
  if (wanted.length === 0) return new Map();
  const rows = await namesOfTubs(work, { wanted });
  return new Map(rows.map((row) => [row.id, row.name]));
}

/** Brings what an animal's row says into line with its valid records. */
export async function refreshAnimal(work: Work, animalId: string, kind: NewRecord['kind']): Promise<void> {
  const { collectionId } = work.actor;
  const last = async (): Promise<Record<string, unknown> | undefined> =>
    (await latestOfKind(work, { animalId, kind }))[0]?.body;
  const update = (values: Partial<AnimalRow>): Promise<unknown> =>
    raiseVersion(work, work.models.animals, { collectionId, id: animalId }, values);
  if (kind === 'sex')
    await update({ sex: ((await last())?.['sex'] as AnimalRow['sex'] | undefined) ?? 'unknown' });
  if (kind === 'move') await update({ tubId: ((await last())?.['toTubId'] as string | null) ?? null });
  if (kind === 'sex' || kind === 'identification') await touchGenetics(work);
}
