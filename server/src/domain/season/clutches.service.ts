import { randomUUID } from 'node:crypto';
import type { Hatching, NewClutch } from '@karyotome/contract';
import { nextNumbers } from '@karyotome/core';
import type { ClutchRow } from '../../db/breeding-rows.ts';
import { touchGenetics, type Work } from '../../db/work.ts';
import { invalidField, Refusal, stale } from '../../refusal.ts';
import { useNumber } from '../animals/animals.service.ts';
import { findClutch } from './clutches.repository.ts';
import { collectionOf } from '../collection/collection-of.ts';
import { layEggs, youngByEgg } from '../incubation/eggs.repository.ts';
import { namedIncubator } from '../incubation/incubators.service.ts';
import { changeAsRead } from '../../db/change-rows.ts';
import { usedNumbers } from '../animals/animals.queries.ts';
import { clutchesNear, lastOrdinal } from './clutches.queries.ts';

/** Records the eggs of a pairing. Clutches of a season are numbered in the order of entering. */
export async function createClutch(work: Work, input: NewClutch): Promise<{ id: string }> {
  const { collectionId } = work.actor;
  const pairing = (
    await work.models.pairings.findOne({
      where: { collectionId, id: input.pairingId },
      transaction: work.transaction,
    })
  )?.get();
  if (!pairing) throw invalidField('pairingId', 'names no pairing of this collection');
  if (input.laidOn < pairing.startedOn) {
    throw invalidField('laidOn', `lies before the pairing began, ${pairing.startedOn}`, 'before-pairing');
  }
  if ((input.slugs ?? 0) > input.eggs)
    throw invalidField('slugs', `must be at most the number of eggs, ${input.eggs}`);
  await refuseSameClutch(work, pairing.id, input.laidOn);
  const incubator = input.incubatorId ? await namedIncubator(work, input.incubatorId) : null;
  const [last] = await lastOrdinal(work, { season: pairing.season });
  const id = randomUUID();
  await work.models.clutches.create(
    {
      collectionId,
      id,
      pairingId: pairing.id,
      season: pairing.season,
      ordinal: last!.ordinal + 1,
      laidOn: input.laidOn,
      eggs: input.eggs,
      slugs: input.slugs ?? null,
      incubationC: input.incubationC ?? incubator?.setC ?? null,
      incubatorId: incubator?.id ?? null,
      note: input.note || null,
      version: 1,
    },
    { transaction: work.transaction },
  );
  await layEggs(work, id, input.eggs, input.slugs ?? 0);
  return { id };
}

async function refuseSameClutch(work: Work, pairingId: string, laidOn: string): Promise<void> {
  const [same] = await clutchesNear(work, { pairingId, laidOn });
  if (same)
    throw new Refusal(
      'conflict',
      `The eggs of this pairing are entered already: clutch ${same.name}, laid on ${same.laidOn}.`,
    );
}

/** The numbers the next hatchlings of a clutch would get. */
export async function proposeNumbers(work: Work, clutch: ClutchRow, count: number): Promise<string[]> {
  const collection = await collectionOf(work);
  return nextNumbers(
    {
      pattern: collection.numberPattern,
      season: clutch.season,
      clutch: clutch.ordinal,
      used: new Set(await usedNumbers(work)),
    },
    count,
  );
}

/** Turns the eggs that hatched into numbered hatchlings, all at once or none. */
export async function hatch(
  work: Work,
  id: string,
  input: Hatching,
  version: number,
): Promise<{ ids: string[]; numbers: string[] }> {
  const { collectionId } = work.actor;
  const clutch = await findClutch(work, id);
  if (clutch.version !== version) throw stale('The clutch');
  if (clutch.hatchedOn) throw new Refusal('conflict', 'This clutch has hatched already.');
  if (input.hatchedOn < clutch.laidOn) {
    throw invalidField('hatchedOn', `lies before the lay date, ${clutch.laidOn}`, 'before-laying');
  }
  // An egg can hold twins, so more may hatch than were laid, but not more than two an egg.
  if (input.hatched > 2 * clutch.eggs)
    throw invalidField('hatched', `must be at most two an egg, ${2 * clutch.eggs}`);
  const numbers = await chooseNumbers(work, clutch, input);
  const { hatchedOn, hatched } = input;
  await changeAsRead(work, work.models.clutches, 'The clutch', { collectionId, id }, version, {
    hatchedOn,
    hatched,
  });
  // Where the eggs were followed one by one, each hatchling is known by its egg.
  const eggs = await youngByEgg(work, id);
  const ids: string[] = [];
  for (const [i, number] of numbers.entries()) {
    await useNumber(work, number);
    const animalId = randomUUID();
    await work.models.animals.create(
      {
        collectionId,
        id: animalId,
        number,
        sex: 'unknown',
        hatchedOn: eggs[i]?.on ?? input.hatchedOn,
        clutchId: id,
        eggId: eggs[i]?.eggId ?? null,
        status: 'undecided',
        version: 1,
      },
      { transaction: work.transaction },
    );
    ids.push(animalId);
  }
  await touchGenetics(work);
  return { ids, numbers };
}

async function chooseNumbers(work: Work, clutch: ClutchRow, input: Hatching): Promise<string[]> {
  if (input.numbers && input.numbers.length > 0) {
    if (input.numbers.length !== input.hatched) {
      throw invalidField('numbers', `must be ${input.hatched}, one for each hatchling`);
    }
    return input.numbers;
  }
  const proposed = await proposeNumbers(work, clutch, input.hatched);
  if (proposed.length === 0)
    throw invalidField('numbers', 'is missing: this collection numbers by your own text');
  return proposed;
}
