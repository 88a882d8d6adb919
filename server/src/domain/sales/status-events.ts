import { randomUUID } from 'node:crypto';
import {
  isGone,
  type NewStatusEvents,
  type Reservation,
  type Sale,
  type Status,
  type StatusCorrection,
} from '@karyotome/contract';
import { mayFollow, STATUS_AFTER, statusFrom, type StatusEventKind } from '@karyotome/core';
import { raiseVersion, voidRow } from '../../db/change-rows.ts';
import type { AnimalRow } from '../../db/rows.ts';
import type { StatusEventRow } from '../../db/sale-rows.ts';
import type { Actor, Work } from '../../db/work.ts';
import { invalidField, notFound, Refusal } from '../../refusal.ts';
import { othersInTub } from '../records/records.queries.ts';

/** What happens to one animal's status. */
export interface Happening {
  readonly kind: StatusEventKind;
  readonly on: string;
  readonly note?: string | null | undefined;
  readonly details?: (Sale & Omit<Reservation, 'personId'>) | undefined;
}

/** Something that happens to several animals, each of them or none. @returns the events, one for each that it changed */
export async function addStatusEvents(
  work: Work<Actor>,
  { animalIds, ...happening }: NewStatusEvents,
): Promise<{ ids: string[] }> {
  const ids: string[] = [];
  for (const [i, animalId] of animalIds.entries()) {
    const id = await happen(work, animalId, happening, `animalIds.${i}`);
    if (id !== null) ids.push(id);
  }
  return { ids };
}

/**
 * Records what happened to an animal's status, and brings the animal's row into line.
 *
 * @param author - null where it happened by itself
 * @returns null where it says nothing new
 */
export async function happen(
  work: Work,
  animalId: string,
  { kind, on, note, details }: Happening,
  field = 'animalId',
  author: string | null = (work.actor as Partial<Actor>).accountId ?? null,
): Promise<string | null> {
  const { collectionId } = work.actor;
  const animal = await lockedAnimal(work, animalId, field);
  const hasNothingNew = details === undefined && STATUS_AFTER[kind] === animal.status;
  if (hasNothingNew) return null;
  if (!mayFollow(kind, animal.status))
    throw new Refusal(
      'conflict',
      `${animal.number} is ${spoken(animal.status)}: it cannot be ${spoken(kind)}.`,
    );
  await checkDay(work, animal, on);
  const { personId = null, ...rest } = details ?? {};
  if (personId !== null) await checkPerson(work, personId);
  const id = randomUUID();
  await work.models.statusEvents.create(
    {
      collectionId,
      id,
      animalId,
      kind,
      before: animal.status,
      details: rest,
      personId,
      onDay: on,
      note: note || null,
      authorId: author,
    },
    { transaction: work.transaction },
  );
  await setStatus(work, animal, STATUS_AFTER[kind]);
  return id;
}

const spoken = (word: string): string => word.replaceAll('-', ' ');

async function lockedAnimal(work: Work, id: string, field: string): Promise<AnimalRow> {
  const row = await work.models.animals.findOne({
    where: { collectionId: work.actor.collectionId, id },
    transaction: work.transaction,
    lock: true,
  });
  if (!row) throw invalidField(field, 'names no animal of this collection');
  return row.get();
}

async function checkPerson(work: Work, id: string): Promise<void> {
  const row = await work.models.persons.findOne({
    where: { collectionId: work.actor.collectionId, id, erasedAt: null },
    transaction: work.transaction,
  });
  if (!row) throw invalidField('details.personId', 'names nobody in the address book');
}

/** Events of an animal come one after another, also in their days. */
async function checkDay(work: Work, animal: AnimalRow, on: string): Promise<void> {
  if (animal.hatchedOn && on < animal.hatchedOn)
    throw invalidField('on', `lies before the hatch date, ${animal.hatchedOn}`, 'before-hatching');
  const last = (await eventsOf(work, animal.id)).findLast(({ voidedAt }) => voidedAt === null);
  if (last && on < last.onDay)
    throw invalidField(
      'on',
      `lies before ${last.onDay}, when the status of ${animal.number} last changed`,
      'order',
    );
}

/** In the order in which they were recorded. */
async function eventsOf(work: Work, animalId: string): Promise<StatusEventRow[]> {
  const rows = await work.models.statusEvents.findAll({
    where: { collectionId: work.actor.collectionId, animalId },
    order: [['recordedAt', 'ASC']],
    transaction: work.transaction,
  });
  return rows.map((row) => row.get());
}

async function setStatus(work: Work, animal: AnimalRow, status: Status): Promise<void> {
  const { collectionId } = work.actor;
  const returns = isGone(animal) && !isGone({ status });
  // Somebody else may live in its tub by now.
  const isTubTaken =
    returns &&
    animal.tubId !== null &&
    (await othersInTub(work, { tubId: animal.tubId, except: animal.id })).length > 0;
  await raiseVersion(
    work,
    work.models.animals,
    { collectionId, id: animal.id },
    { status, ...(isTubTaken ? { tubId: null } : {}) },
  );
}

/** An animal's last event: only that one is taken back or corrected, as the others were built upon. */
async function lastStanding(work: Work, id: string): Promise<StatusEventRow> {
  const { collectionId } = work.actor;
  const row = (
    await work.models.statusEvents.findOne({ where: { collectionId, id }, transaction: work.transaction })
  )?.get();
  if (!row) throw notFound('This event');
  const last = (await eventsOf(work, row.animalId)).findLast(({ voidedAt }) => voidedAt === null);
  if (row.voidedAt === null && last?.id !== id)
    throw new Refusal('conflict', 'Something happened to this animal since: take that back first.');
  return row;
}

/** Takes an animal's last event out of account: its status is what it was before. */
export async function voidStatusEvent(
  work: Work<Actor>,
  id: string,
  reason: string,
): Promise<StatusEventRow> {
  const row = await lastStanding(work, id);
  const animal = await lockedAnimal(work, row.animalId, 'id');
  await voidRow(work, work.models.statusEvents, 'This event', id, reason);
  const status = statusFrom(
    (await eventsOf(work, row.animalId)).map(({ kind, before, voidedAt }) => ({
      kind,
      before,
      isVoided: voidedAt !== null,
    })),
  );
  if (status !== null) await setStatus(work, animal, status);
  return row;
}

/** Puts another event in the place of an animal's last one, which is kept as voided. */
export async function correctStatusEvent(
  work: Work<Actor>,
  id: string,
  correction: StatusCorrection,
): Promise<{ id: string }> {
  const { animalId } = await voidStatusEvent(work, id, 'Corrected');
  const replacement = await happen(work, animalId, correction);
  if (replacement === null)
    throw new Refusal('conflict', 'This is what it was before: take the event back instead.');
  return { id: replacement };
}
