import { randomUUID } from 'node:crypto';
import type { WaitingOffer, WishAnswer } from '@karyotome/contract';
import { addDays, daysBetween, RESERVATION_DAYS } from '@karyotome/core';
import type { WishOfferRow } from '../../db/waiting-rows.ts';
import { writing, type Database, type Work } from '../../db/work.ts';
import { invalidField, notFound, Refusal } from '../../refusal.ts';
import { notifyChanged } from '../changes/notify.ts';
import { collectionOf } from '../collection/collection-of.ts';
import { labelOf } from '../genetics/inferred-of-animal.ts';
import { holderAddress } from '../post/letters.queries.ts';
import { writeLetter } from '../post/letters.service.ts';
import { openPublication } from '../animals/animals.queries.ts';
import { happen } from '../sales/status-events.ts';
import { closeWish } from './wishes.service.ts';
import { waitingOf } from './match.ts';
import { overdueOffers, type AvailableAnimal } from './waiting.queries.ts';

/**
 * Offers an animal to the first of those who wait whom it fits and to whom it was not offered yet, and drafts the letter.
 *
 * @param origin - where pages are found; empty where nobody's browser says so
 * @returns null where nobody is left
 */
export async function offerToFirst(
  work: Work,
  { animalId, until }: WaitingOffer,
  origin: string,
): Promise<{ id: string } | null> {
  const { collectionId } = work.actor;
  const { transaction, models } = work;
  if (until < work.today) throw invalidField('until', 'is over already');
  const { animals, matches, genetics } = await waitingOf(work);
  const animal = animals.find(({ id }) => id === animalId);
  if (!animal) throw invalidField('animalId', 'is not to be had: it is neither undecided nor for sale');
  if ((await models.wishOffers.count({ where: { collectionId, animalId, answer: null }, transaction })) > 0)
    throw new Refusal(
      'conflict',
      `${animal.number} is offered to somebody already: their answer comes first.`,
    );
  const [first] = matches(animal);
  if (!first) return null;
  const id = randomUUID();
  await models.wishOffers.create(
    {
      collectionId,
      id,
      wishId: first.wish.id,
      animalId,
      offeredOn: work.today,
      answerUntil: until,
      answer: null,
      answeredOn: null,
    },
    { transaction },
  );
  await draftLetter(
    work,
    { id, personId: first.wish.person.id, animal, until, label: labelOf(genetics, animalId) },
    origin,
  );
  return { id };
}

interface Offered {
  readonly id: string;
  readonly personId: string;
  readonly animal: AvailableAnimal;
  readonly label: string;
  readonly until: string;
}

/** To whoever has agreed to be written to; the others are asked by word of mouth. */
async function draftLetter(
  work: Work,
  { id, personId, animal, label, until }: Offered,
  origin: string,
): Promise<void> {
  const [holder] = await holderAddress(work, { personId });
  if (!holder?.email || !holder.hasAgreed) return;
  const collection = await collectionOf(work);
  const [page] = await openPublication(work, { animalId: animal.id });
  const { number, sex, price, currency } = animal;
  await writeLetter(work, {
    letter: {
      code: 'animal-offered',
      facts: {
        collection: collection.name,
        name: holder.name,
        number,
        label,
        sex,
        price: price === null || currency === null ? null : { amount: price, currency },
        until,
        address: page && origin ? `${origin}/p/${page.slug}` : null,
      },
    },
    to: holder.email,
    sentKey: `animal-offered ${id}`,
    personId: holder.id,
    animalId: animal.id,
    state: 'draft',
  });
}

/** Records an answer: an accepted offer reserves the animal, any other goes to the next who waits. */
export async function answerOffer(
  work: Work,
  offerId: string,
  answer: WishAnswer,
  origin: string,
): Promise<void> {
  const { collectionId } = work.actor;
  const { transaction, models } = work;
  const row = (await models.wishOffers.findOne({ where: { collectionId, id: offerId }, transaction }))?.get();
  if (!row) throw notFound('This offer');
  if (row.answer === answer) return;
  if (row.answer !== null) throw new Refusal('conflict', `This offer was ${row.answer} before.`);
  await models.wishOffers.update(
    { answer, answeredOn: work.today },
    { where: { collectionId, id: offerId }, transaction },
  );
  if (answer === 'accepted') await reserve(work, row);
  else await goToNext(work, row, origin);
}

async function reserve(work: Work, { wishId, animalId }: WishOfferRow): Promise<void> {
  const { collectionId } = work.actor;
  const wish = await work.models.wishes.findOne({
    where: { collectionId, id: wishId },
    transaction: work.transaction,
    rejectOnEmpty: true,
  });
  const { personId } = wish.get();
  await happen(work, animalId, {
    kind: 'reserved',
    on: work.today,
    details: { personId, until: addDays(work.today, RESERVATION_DAYS) },
  });
  await closeWish(work, wishId);
}

/** The next has as long to answer as the one before had. */
async function goToNext(
  work: Work,
  { animalId, offeredOn, answerUntil }: WishOfferRow,
  origin: string,
): Promise<void> {
  const until = addDays(work.today, Math.max(1, daysBetween(offeredOn, answerUntil)));
  const { animals } = await waitingOf(work);
  // It may have been sold or kept meanwhile.
  if (animals.some(({ id }) => id === animalId)) await offerToFirst(work, { animalId, until }, origin);
}

/** Ends, in every collection, what nobody answered in time, and offers it to the next. */
export async function lapseOffers(database: Database): Promise<void> {
  const rows = await database.models.wishOffers.findAll({
    where: { answer: null },
    attributes: ['collectionId'],
  });
  for (const collectionId of new Set(rows.map((row) => row.get().collectionId))) {
    const lapsed = await writing(database, { collectionId }, async (work) => {
      const overdue = await overdueOffers(work);
      for (const { id } of overdue) await answerOffer(work, id, 'lapsed', '');
      return overdue.length;
    });
    if (lapsed > 0) notifyChanged(collectionId, { tags: ['wishes', 'letters'], page: null });
  }
}
