import { parseGenes, toTarget, wishChance, type Catalogue, type Wish } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { parentOf } from '../genetics/inferred-of-animal.ts';
import { geneticsOf, type Genetics } from '../genetics/genetics.service.ts';
import { availableAnimals, openWishes, type AvailableAnimal, type OpenWish } from './waiting.queries.ts';

/** Fainter than this, an animal is not what somebody waits for. */
const WORTH_TELLING = 0.05;

export interface Match {
  readonly wish: OpenWish;
  readonly p: number;
}

/** A wish as core reads it. */
const readWish = (
  { must, mustNot, sex }: Pick<OpenWish, 'must' | 'mustNot' | 'sex'>,
  catalogue: Catalogue,
): Wish => ({
  must: toTarget(parseGenes(must, catalogue), catalogue),
  mustNot: mustNot ? toTarget(parseGenes(mustNot, catalogue), catalogue) : [],
  sex,
});

export interface Waiting {
  readonly genetics: Genetics;
  readonly wishes: readonly OpenWish[];
  /** What each wish, by its id, asks of an animal. */
  readonly read: ReadonlyMap<string, Wish>;
  readonly animals: readonly AvailableAnimal[];
  /** Who waits for an animal, in the order of joining. */
  readonly matches: (animal: AvailableAnimal) => Match[];
}

export async function waitingOf(work: Work): Promise<Waiting> {
  const genetics = await geneticsOf(work);
  const wishes = await openWishes(work);
  const read = new Map(wishes.map((wish) => [wish.id, readWish(wish, genetics.catalogue)]));
  return {
    genetics,
    wishes,
    read,
    animals: await availableAnimals(work),
    matches: (animal) =>
      wishes.flatMap((wish) => {
        if (!isOpenTo(wish, animal)) return [];
        const pFemale = animal.sex === 'unknown' ? 0.5 : animal.sex === 'female' ? 1 : 0;
        const p = wishChance(read.get(wish.id)!, parentOf(genetics, animal.id), pFemale);
        return p < WORTH_TELLING ? [] : [{ wish, p }];
      }),
  };
}

/** Price, pairing, and that it was not offered to them before. */
function isOpenTo({ priceLimit, currency, pairingId, offers }: OpenWish, animal: AvailableAnimal): boolean {
  if (pairingId !== null && pairingId !== animal.pairingId) return false;
  const isSameMoney = currency === null || animal.currency === null || currency === animal.currency;
  if (priceLimit !== null && animal.price !== null && isSameMoney && animal.price > priceLimit) return false;
  return !offers.some(({ animalId, answer }) => animalId === animal.id && answer !== null);
}
