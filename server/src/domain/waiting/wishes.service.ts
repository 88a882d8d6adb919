import { randomUUID } from 'node:crypto';
import type { AnimalWaitView, PairingWaitView, WishInput, WishView } from '@karyotome/contract';
import { clutchSize, hatchShare, meanOf, wishChanceOfYoung } from '@karyotome/core';
import { changeRow } from '../../db/change-rows.ts';
import type { Work } from '../../db/work.ts';
import { invalidField, notFound, Refusal } from '../../refusal.ts';
import { catalogueOf } from '../catalogue/catalogue.service.ts';
import { genesProblems } from '../genetics/identification-check.ts';
import { parentOf } from '../genetics/inferred-of-animal.ts';
import { waitingOf } from './match.ts';
import { comingYoung } from './waiting.queries.ts';

const MOST_FITS = 5;

/** Who waits for what, with the animals here that fit. */
export async function wishViews(work: Work): Promise<WishView[]> {
  const { wishes, animals, matches } = await waitingOf(work);
  const fits = animals.flatMap((animal) => matches(animal).map(({ wish, p }) => ({ wish, animal, p })));
  const pairings = new Map(
    (await comingYoung(work)).map(({ id, dam, sires }) => [id, `${dam} × ${sires.join(' or ')}`]),
  );
  return wishes.map(({ pairingId, ...wish }) => ({
    ...wish,
    pairing:
      pairingId === null ? null : { id: pairingId, name: pairings.get(pairingId) ?? 'a pairing of before' },
    fits: fits
      .filter((fit) => fit.wish.id === wish.id)
      .toSorted((a, b) => b.p - a.p)
      .slice(0, MOST_FITS)
      .map(({ animal, p }) => ({ animalId: animal.id, number: animal.number, p })),
  }));
}

/** For how many of those who wait an open pairing, or a clutch in its box, can be expected to give at least one young. */
export async function pairingWaits(work: Work): Promise<PairingWaitView[]> {
  const { wishes, read, genetics } = await waitingOf(work);
  const hatch = hatchShare(0, 0);
  const usual = meanOf(clutchSize([]).odds);
  return (await comingYoung(work)).map(({ id, season, dam, sires, damId, sireIds, eggs }) => {
    const young = (eggs ?? usual) * hatch;
    const open = wishes.filter(({ pairingId }) => pairingId === null || pairingId === id);
    const total = sireIds.reduce((sum, { weight }) => sum + weight, 0);
    const chances = open.map((wish) =>
      sireIds.reduce(
        (sum, sire) =>
          sum +
          (sire.weight / total) *
            wishChanceOfYoung(read.get(wish.id)!, parentOf(genetics, sire.id), parentOf(genetics, damId)),
        0,
      ),
    );
    const fitting = chances.filter((chance) => chance > 0);
    return {
      id,
      season,
      name: `${dam} × ${sires.join(' or ')}`,
      young,
      expected: fitting.reduce((sum, chance) => sum + 1 - (1 - chance) ** young, 0),
      waiting: fitting.length,
    };
  });
}

/** Who waits for the young of a clutch. */
export async function animalWaits(work: Work, clutchId: string): Promise<AnimalWaitView[]> {
  const { animals, matches } = await waitingOf(work);
  return animals
    .filter((animal) => animal.clutchId === clutchId)
    .map((animal) => {
      const fitting = matches(animal);
      const [first] = fitting;
      return {
        animalId: animal.id,
        count: fitting.length,
        first: first ? { wishId: first.wish.id, name: first.wish.person.name ?? '', p: first.p } : null,
      };
    });
}

async function valuesOf(work: Work, input: WishInput) {
  const { collectionId } = work.actor;
  const { transaction, models } = work;
  const catalogue = await catalogueOf(work);
  const problems = [
    ...genesProblems(input.must, 'must', catalogue),
    ...(input.mustNot ? genesProblems(input.mustNot, 'mustNot', catalogue) : []),
  ];
  if (problems.length > 0)
    throw new Refusal('invalid', 'Some words of the genes need a correction.', problems);
  const person = await models.persons.findOne({
    where: { collectionId, id: input.personId, erasedAt: null },
    transaction,
  });
  if (!person) throw invalidField('personId', 'names nobody in the address book');
  if (input.pairingId) {
    const found = await models.pairings.count({ where: { collectionId, id: input.pairingId }, transaction });
    if (found === 0) throw invalidField('pairingId', 'names no pairing of this collection');
  }
  return {
    personId: input.personId,
    must: input.must,
    mustNot: input.mustNot || null,
    sex: input.sex ?? null,
    priceLimit: input.priceLimit ?? null,
    currency: input.currency ?? null,
    pairingId: input.pairingId ?? null,
    joinedOn: input.joinedOn,
    note: input.note || null,
  };
}

export async function addWish(work: Work, input: WishInput): Promise<{ id: string }> {
  const id = randomUUID();
  await work.models.wishes.create(
    {
      collectionId: work.actor.collectionId,
      id,
      ...(await valuesOf(work, input)),
      closedOn: null,
      version: 1,
    },
    { transaction: work.transaction },
  );
  return { id };
}

export async function changeWish(
  work: Work,
  id: string,
  input: WishInput,
  version: number,
): Promise<{ version: number }> {
  return changeRow(work, work.models.wishes, 'This wish', { id, version }, await valuesOf(work, input));
}

export async function closeWish(work: Work, id: string): Promise<void> {
  const where = { collectionId: work.actor.collectionId, id };
  const { transaction, models } = work;
  if ((await models.wishes.count({ where, transaction })) === 0) throw notFound('This wish');
  await models.wishes.update({ closedOn: work.today }, { where: { ...where, closedOn: null }, transaction });
}
