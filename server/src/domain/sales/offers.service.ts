import { randomUUID } from 'node:crypto';
import type { OfferInput, OfferView, PricesInput } from '@karyotome/contract';
import { changeAsRead, raiseVersion } from '../../db/change-rows.ts';
import type { OfferRow } from '../../db/sale-rows.ts';
import type { Work } from '../../db/work.ts';
import { invalidField, stale } from '../../refusal.ts';
import { findAnimal } from '../animals/animals.service.ts';
import { pictureViews } from '../animals/animals.repository.ts';
import { saleRulesOf } from './sale-rules.ts';

const toView = (row: OfferRow | undefined, currency: string): OfferView => ({
  price: row?.price ?? null,
  currency: row?.currency ?? currency,
  text: row?.text ?? null,
  pictureIds: row?.pictureIds ?? null,
  ancestors: row?.ancestors ?? {},
  version: row?.version ?? 0,
});

/** What buyers are told, of each animal of which something was said; of any other, the empty offer. */
export async function offersOf(work: Work): Promise<(animalId: string) => OfferView> {
  const { collectionId } = work.actor;
  const { currency } = (await saleRulesOf(work)).rules;
  const rows = await work.models.offers.findAll({ where: { collectionId }, transaction: work.transaction });
  const byAnimal = new Map(rows.map((row) => [row.get().animalId, row.get()]));
  return (animalId) => toView(byAnimal.get(animalId), currency);
}

async function offerRow(work: Work, animalId: string): Promise<OfferRow | undefined> {
  const row = await work.models.offers.findOne({
    where: { collectionId: work.actor.collectionId, animalId },
    transaction: work.transaction,
  });
  return row?.get();
}

export async function offerOf(work: Work, animalId: string): Promise<OfferView> {
  return toView(await offerRow(work, animalId), (await saleRulesOf(work)).rules.currency);
}

/** @param version - as it was read; 0 where nothing was said yet */
export async function changeOffer(
  work: Work,
  animalId: string,
  input: OfferInput,
  version: number,
): Promise<{ version: number }> {
  const animal = await findAnimal(work, animalId);
  await checkPictures(work, animalId, input.pictureIds ?? []);
  const values = {
    price: input.price ?? null,
    currency: input.currency ?? null,
    text: input.text || null,
    pictureIds: input.pictureIds ?? null,
    ancestors: input.ancestors ?? {},
  };
  const row = await offerRow(work, animalId);
  const what = `The offer of ${animal.number}`;
  if (!row) {
    if (version !== 0) throw stale(what);
    await createOffer(work, animalId, values);
    return { version: 1 };
  }
  const where = { collectionId: work.actor.collectionId, id: row.id };
  return { version: await changeAsRead(work, work.models.offers, what, where, version, values) };
}

async function checkPictures(work: Work, animalId: string, ids: readonly string[]): Promise<void> {
  const own = new Set((await pictureViews(work, animalId)).map(({ id }) => id));
  const strange = ids.findIndex((id) => !own.has(id));
  if (strange >= 0) throw invalidField(`pictureIds.${strange}`, 'names no picture of this animal');
}

async function createOffer(work: Work, animalId: string, values: Partial<OfferRow>): Promise<void> {
  await work.models.offers.create(
    {
      collectionId: work.actor.collectionId,
      id: randomUUID(),
      animalId,
      ancestors: {},
      version: 1,
      ...values,
    },
    { transaction: work.transaction },
  );
}

/** Changes a part of what buyers are told, and leaves the rest. */
export async function setOffer(
  work: Work,
  animalId: string,
  values: Partial<Pick<OfferRow, 'price' | 'currency' | 'text'>>,
): Promise<void> {
  const row = await offerRow(work, animalId);
  if (!row) return createOffer(work, animalId, values);
  await raiseVersion<OfferRow>(
    work,
    work.models.offers,
    { collectionId: work.actor.collectionId, id: row.id },
    values,
  );
}

/** Prices typed down a column: all of them or none. */
export async function changePrices(work: Work, { currency, prices }: PricesInput): Promise<void> {
  for (const [i, { animalId, price }] of prices.entries()) {
    const { collectionId } = work.actor;
    const { transaction, models } = work;
    const isThere = await models.animals.count({ where: { collectionId, id: animalId }, transaction });
    if (isThere === 0) throw invalidField(`prices.${i}.animalId`, 'names no animal of this collection');
    await setOffer(work, animalId, { price, currency });
  }
}
