import { randomUUID } from 'node:crypto';
import { DISCARDABLE, type PersonExport, type PersonInput, type PersonView } from '@karyotome/contract';
import { now } from '../../clock.ts';
import { changeRow, NOW } from '../../db/change-rows.ts';
import type { Work } from '../../db/work.ts';
import { notFound, Refusal } from '../../refusal.ts';
import { eventsOfPerson, personViews } from './sales.queries.ts';

const valuesOf = ({ name, email, phone, note, consentOn }: PersonInput) => ({
  name,
  email: email ?? null,
  phone: phone || null,
  note: note || null,
  consentOn: consentOn ?? null,
});

export async function addPerson(work: Work, input: PersonInput): Promise<{ id: string }> {
  const { collectionId } = work.actor;
  const id = randomUUID();
  await work.models.persons.create(
    { collectionId, id, ...valuesOf(input), erasedAt: null, version: 1 },
    { transaction: work.transaction },
  );
  return { id };
}

export async function findPerson(work: Work, id: string): Promise<PersonView> {
  const [person] = await personViews(work, { id });
  if (!person) throw notFound('This person');
  return person;
}

export async function changePerson(
  work: Work,
  id: string,
  input: PersonInput,
  version: number,
): Promise<{ version: number }> {
  if ((await findPerson(work, id)).erasedAt !== null)
    throw new Refusal('conflict', 'This person was erased: enter them as a new one.');
  return changeRow(work, work.models.persons, 'This person', { id, version }, valuesOf(input));
}

export async function exportPerson(work: Work, id: string): Promise<PersonExport> {
  const { animals: _animals, version: _version, ...person } = await findPerson(work, id);
  return {
    format: 'karyotome-person/1',
    exportedAt: now().toISOString(),
    person,
    events: await eventsOfPerson(work, { id }),
  };
}

/** Forgets who somebody is. That an animal was reserved or sold stays in its history, and notes of those events go. */
export async function erasePerson(work: Work, id: string): Promise<void> {
  const { collectionId } = work.actor;
  const person = await findPerson(work, id);
  if (person.erasedAt !== null) return;
  const { transaction, models } = work;
  await changeRow(work, models.persons, 'This person', person, {
    name: null,
    email: null,
    phone: null,
    note: null,
    consentOn: null,
    erasedAt: NOW,
  });
  await models.letters.update(
    { toAddress: null, subject: '', paragraphs: [] },
    { where: { collectionId, personId: id }, transaction },
  );
  await models.letters.update(
    { state: 'discarded' },
    { where: { collectionId, personId: id, state: [...DISCARDABLE] }, transaction },
  );
  await models.wishes.update(
    { closedOn: work.today, note: null },
    { where: { collectionId, personId: id }, transaction },
  );
  await models.statusEvents.update({ note: null }, { where: { collectionId, personId: id }, transaction });
}
