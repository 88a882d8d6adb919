import { randomUUID } from 'node:crypto';
import type { AnimalChange, AnimalSummary, NewAnimal, NewRecord, OriginBodies } from '@karyotome/contract';
import type { AnimalRow } from '../../db/rows.ts';
import { touchGenetics, type Actor, type Work } from '../../db/work.ts';
import { invalidField, notFound, Refusal, stale } from '../../refusal.ts';
import { genesProblems } from '../genetics/identification-check.ts';
import { catalogueOf } from '../catalogue/catalogue.service.ts';
import { geneticsSoon } from '../genetics/genetics.service.ts';
import { insertRecord } from '../records/insert-record.ts';
import { publishedAnimals, summaries } from './animals.repository.ts';
import { refuseCircle, restingOn } from './ancestry.ts';
import { changeAsRead } from '../../db/change-rows.ts';
import { addDays, kindFor } from '@karyotome/core';
import { happen } from '../sales/status-events.ts';

export async function listAnimals(work: Work): Promise<AnimalSummary[]> {
  return summaries(work, await geneticsSoon(work));
}

/** Single animals in summary, by number. */
export async function summariesOf(work: Work, ids: readonly string[]): Promise<AnimalSummary[]> {
  if (ids.length === 0) return [];
  return summaries(work, await geneticsSoon(work), 'and a.id in (:ids)', { ids });
}

/** The same in the order of their ids. */
export async function summariesInOrder(work: Work, ids: readonly string[]): Promise<AnimalSummary[]> {
  const byId = new Map((await summariesOf(work, ids)).map((animal) => [animal.id, animal]));
  return ids.flatMap((id) => byId.get(id) ?? []);
}

export async function findAnimal(work: Work, id: string): Promise<AnimalRow> {
  const { collectionId } = work.actor;
  const row = await work.models.animals.findOne({
    where: { collectionId, id },
    transaction: work.transaction,
  });
  if (!row) throw notFound('This animal');
  return row.get();
}

/** Takes a number for good. The database refuses one that was ever used. */
export async function useNumber(work: Work, number: string): Promise<void> {
  await work.models.usedNumbers.create(
    { collectionId: work.actor.collectionId, number },
    { transaction: work.transaction },
  );
}

/** Refuses a parent that does not exist, has the wrong sex, hatched later, or descends from the animal itself. */
export async function checkParent(
  work: Work,
  field: string,
  parentId: string,
  role: 'dam' | 'sire',
  child?: { id?: string; hatchedOn?: string | null },
): Promise<AnimalRow> {
  const { collectionId } = work.actor;
  const parent = (
    await work.models.animals.findOne({
      where: { collectionId, id: parentId },
      transaction: work.transaction,
    })
  )?.get();
  if (!parent) throw invalidField(field, 'names no animal of this collection');
  const wrong = role === 'dam' ? 'male' : 'female';
  if (parent.sex === wrong) {
    throw invalidField(
      field,
      `must be a ${role === 'dam' ? 'female' : 'male'}: ${parent.number} is ${wrong}`,
      'wrong-sex',
    );
  }
  if (child?.hatchedOn && parent.hatchedOn && parent.hatchedOn >= child.hatchedOn) {
    throw invalidField(field, `hatched on ${parent.hatchedOn}, not before its young`, 'too-young');
  }
  if (child?.id !== undefined) await refuseCircle(work, field, parent, [child.id]);
  return parent;
}

export async function createAnimal(work: Work<Actor>, input: NewAnimal): Promise<{ id: string }> {
  const { collectionId, name: author } = work.actor;
  if (input.genes) {
    const problems = genesProblems(input.genes, 'genes', await catalogueOf(work));
    if (problems.length > 0)
      throw new Refusal('invalid', 'Some words of the genes need a correction.', problems);
  }
  if (input.damId)
    await checkParent(work, 'damId', input.damId, 'dam', { hatchedOn: input.hatchedOn ?? null });
  if (input.sireId)
    await checkParent(work, 'sireId', input.sireId, 'sire', { hatchedOn: input.hatchedOn ?? null });
  await useNumber(work, input.number);
  const id = randomUUID();
  await work.models.animals.create(
    {
      collectionId,
      id,
      number: input.number,
      name: input.name || null,
      sex: 'unknown',
      hatchedOn: input.hatchedOn ?? null,
      damId: input.damId ?? null,
      sireId: input.sireId ?? null,
      clutchId: null,
      tubId: null,
      status: input.status ?? 'undecided',
      note: input.note || null,
      version: 1,
    },
    { transaction: work.transaction },
  );
  const by = input.identifiedBy || author;
  const on = work.today;
  const enter = (record: NewRecord): Promise<unknown> => insertRecord(work, id, record, { isOfEntry: true });
  if (input.sex !== 'unknown')
    await enter({ kind: 'sex', on, body: { sex: input.sex, method: 'stated', sure: 'certain', by } });
  if (input.genes)
    await enter({
      kind: 'identification',
      on,
      body: {
        genes: input.genes,
        sure: input.sure ?? 'certain',
        by,
        ...(input.completeness ? { completeness: input.completeness } : {}),
      },
    });
  if (input.massG) await enter({ kind: 'weight', on, body: { massG: input.massG } });
  if (input.tubId) await enter({ kind: 'move', on, body: { toTubId: input.tubId, reason: 'Moved in' } });
  await enterArrival(input, on, enter);
  await touchGenetics(work);
  return { id };
}

/** How it came, and that it is kept apart at first. */
async function enterArrival(
  { origin, quarantineDays }: NewAnimal,
  today: string,
  enter: (record: NewRecord) => Promise<unknown>,
): Promise<void> {
  const { on = today, ...body } = origin ?? {};
  if (origin) await enter({ kind: 'acquisition', on, body: body as OriginBodies['acquisition'] });
  if (quarantineDays)
    await enter({
      kind: 'quarantine',
      on,
      body: { until: addDays(on, quarantineDays), reason: 'new' },
    });
}

export async function changeAnimal(
  work: Work<Actor>,
  id: string,
  change: AnimalChange,
  version: number,
): Promise<{ id: string; version: number }> {
  const animal = await findAnimal(work, id);
  if (animal.version !== version) throw stale(animal.number);
  const changesParents = change.damId !== undefined || change.sireId !== undefined;
  if (changesParents && animal.clutchId) {
    throw invalidField(
      change.damId === undefined ? 'sireId' : 'damId',
      'comes from the clutch: change its pairing instead',
    );
  }
  const hatchedOn = change.hatchedOn === undefined ? animal.hatchedOn : change.hatchedOn;
  const child = { id, hatchedOn };
  const damId = change.damId === undefined ? animal.damId : change.damId;
  const sireId = change.sireId === undefined ? animal.sireId : change.sireId;
  if (damId) await checkParent(work, 'damId', damId, 'dam', child);
  if (sireId) await checkParent(work, 'sireId', sireId, 'sire', child);
  if (changesParents) await refuseIfPublished(work, id, 'its parents cannot be changed');
  const { name, note, status, ...rest } = change;
  const next = await changeAsRead(
    work,
    work.models.animals,
    animal.number,
    { collectionId: work.actor.collectionId, id },
    version,
    {
      ...rest,
      ...(name === undefined ? {} : { name: name === '' ? null : name }),
      ...(note === undefined ? {} : { note: note === '' ? null : note }),
    },
  );
  if (changesParents) await touchGenetics(work);
  const event = status && (await happen(work, id, { kind: kindFor(status), on: work.today }));
  // What happened raised the version once more.
  return { id, version: event ? next + 1 : next };
}

/** Refuses to take away what something published rests on, and says what. */
export async function refuseIfPublished(work: Work, animalId: string, what: string): Promise<void> {
  const resting = await restingOn(work, await publishedAnimals(work), [animalId]);
  if (resting.length > 0) {
    const names = resting.map(({ number }) => number).join(', ');
    throw new Refusal(
      'conflict',
      `The published page of ${names} shows this animal: ${what}. Withdraw the page first.`,
    );
  }
}
