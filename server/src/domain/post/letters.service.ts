import { randomUUID } from 'node:crypto';
import { DISCARDABLE, SENDABLE, type LetterState } from '@karyotome/contract';
import { DEFAULT_LOCALE, letterText, Reader, type LetterFact } from '@karyotome/words';
import { NOW } from '../../db/change-rows.ts';
import type { Work } from '../../db/work.ts';
import { notFound, Refusal } from '../../refusal.ts';
import { collectionOf } from '../collection/collection-of.ts';

/** A letter to be written. */
export interface Drafted {
  readonly letter: LetterFact;
  readonly to: string;
  /** What it is about: nobody is written to twice for the same reason. */
  readonly sentKey: string;
  readonly personId?: string;
  readonly animalId?: string;
  /** To be looked at first, or sent at once: to oneself. */
  readonly state: Extract<LetterState, 'draft' | 'waiting'>;
}

/** Writes a letter. @returns false where it was written before */
export async function writeLetter(
  work: Work,
  { letter, to, sentKey, personId, animalId, state }: Drafted,
): Promise<boolean> {
  const { collectionId } = work.actor;
  const { letters } = work.models;
  const { transaction } = work;
  if ((await letters.count({ where: { collectionId, sentKey }, transaction })) > 0) return false;
  const { massUnit, temperatureUnit } = await collectionOf(work);
  const { subject, paragraphs } = letterText(
    letter,
    new Reader({ locale: DEFAULT_LOCALE, massUnit, temperatureUnit }),
  );
  await letters.create(
    {
      collectionId,
      id: randomUUID(),
      kind: letter.code,
      sentKey,
      personId: personId ?? null,
      animalId: animalId ?? null,
      toAddress: to,
      subject,
      paragraphs: [...paragraphs],
      state,
      attempts: 0,
      error: null,
    },
    { transaction },
  );
  return true;
}

export async function sendLetters(work: Work, ids: readonly string[]): Promise<void> {
  const { collectionId } = work.actor;
  const { transaction, models } = work;
  for (const id of ids) {
    const row = (await models.letters.findOne({ where: { collectionId, id }, transaction }))?.get();
    if (!row) throw notFound('This letter');
    if (!SENDABLE.includes(row.state))
      throw new Refusal('conflict', `The letter "${row.subject}" is ${row.state}: it cannot be sent again.`);
    if (row.toAddress === null)
      throw new Refusal(
        'conflict',
        `The letter "${row.subject}" has no address any more: the person was erased.`,
      );
    if (row.personId !== null) await refuseWithoutConsent(work, row.personId);
    await models.letters.update(
      { state: 'waiting', stateAt: NOW, nextTryAt: NOW, attempts: 0, error: null },
      { where: { collectionId, id }, transaction },
    );
  }
}

/** Consent is asked again when a letter goes out: it may have been taken back since. */
async function refuseWithoutConsent(work: Work, personId: string): Promise<void> {
  const { collectionId } = work.actor;
  const row = await work.models.persons.findOne({
    where: { collectionId, id: personId },
    transaction: work.transaction,
    rejectOnEmpty: true,
  });
  const { name, consentOn } = row.get();
  if (consentOn === null)
    throw new Refusal(
      'conflict',
      `${name ?? 'This person'} has not agreed to be written to: nothing was sent.`,
    );
}

export async function discardLetter(work: Work, id: string): Promise<void> {
  const { collectionId } = work.actor;
  const { transaction, models } = work;
  const row = (await models.letters.findOne({ where: { collectionId, id }, transaction }))?.get();
  if (!row) throw notFound('This letter');
  if (row.state === 'discarded') return;
  if (!DISCARDABLE.includes(row.state))
    throw new Refusal('conflict', `The letter is ${row.state}: it cannot be discarded.`);
  await models.letters.update(
    { state: 'discarded', stateAt: NOW },
    { where: { collectionId, id }, transaction },
  );
}
