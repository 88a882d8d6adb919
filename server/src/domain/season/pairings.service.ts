import { randomUUID } from 'node:crypto';
import type { NewPairing, PairingView } from '@karyotome/contract';
import { daysBetween } from '@karyotome/core';
import { type Actor, type Work } from '../../db/work.ts';
import { checkParent, listAnimals } from '../animals/animals.service.ts';
import { kinView } from '../animals/kin.ts';
import { moveIn } from '../bin/bin.service.ts';
import { geneticsSoon } from '../genetics/genetics.service.ts';
import { invalidField, notFound, Refusal } from '../../refusal.ts';
import { addSeasonEvent } from './season-events.ts';
import { cautionsOfPairing } from './pairing-cautions.ts';
import { clutchRows, type ClutchRowSummary, numbersOfPairing, pairingRows } from './pairings.queries.ts';

export async function createPairing(work: Work<Actor>, input: NewPairing): Promise<{ id: string }> {
  const { collectionId } = work.actor;
  await checkParent(work, 'damId', input.damId, 'dam');
  for (const [index, sire] of input.sires.entries()) {
    await checkParent(work, `sires.${index}.animalId`, sire.animalId, 'sire');
    if (sire.animalId === input.damId)
      throw invalidField(`sires.${index}.animalId`, 'is the dam herself', 'same-parent');
  }
  const id = randomUUID();
  const { season, damId, startedOn } = input;
  await work.models.pairings.create(
    { collectionId, id, season, damId, startedOn, note: input.note || null, version: 1 },
    { transaction: work.transaction },
  );
  await work.models.pairingSires.bulkCreate(
    input.sires.map(({ animalId, weight, stored }) => ({
      collectionId,
      pairingId: id,
      sireId: animalId,
      weight,
      stored: stored ?? false,
    })),
    { transaction: work.transaction },
  );
  for (const { animalId: sireId, stored } of input.sires)
    if (!stored) await addSeasonEvent(work, id, { kind: 'introduction', on: startedOn, sireId });
  return { id };
}

/** Puts a pairing that was entered by mistake into the bin, with what was noted of it; one with a clutch stays. */
export async function deletePairing(work: Work<Actor>, id: string, reason: string): Promise<{ id: string }> {
  const { collectionId } = work.actor;
  const clutches = await work.models.clutches.count({
    where: { collectionId, pairingId: id },
    transaction: work.transaction,
  });
  if (clutches > 0) throw new Refusal('conflict', 'This pairing has a clutch: it cannot be deleted.');
  const [named] = await numbersOfPairing(work, { id });
  if (!named) throw notFound('This pairing');
  const { dam, sires } = named;
  return moveIn(work, { kind: 'pairing', id, animalId: null, number: dam, name: sires, reason });
}

/** All pairings with their clutches, the newest season first. */
export async function listPairings(work: Work): Promise<PairingView[]> {
  const genetics = await geneticsSoon(work);
  const byId = new Map((await listAnimals(work)).map((animal) => [animal.id, animal]));
  const rows = await pairingRows(work);
  const clutches = await clutchSummaries(work);
  return rows.map(({ damId, sires, ...row }) => ({
    ...row,
    dam: kinView(genetics, byId, 'dam', damId),
    sires: sires.map(({ id, weight, stored }) => ({
      ...kinView(genetics, byId, 'sire', id),
      weight,
      stored,
    })),
    clutches: clutches.filter((clutch) => clutch.pairingId === row.id),
    cautions: cautionsOfPairing(genetics, { damId, sires }),
  }));
}

/** Clutches with their day count (until hatching) and how many of their young are identified. */
export async function clutchSummaries(work: Work): Promise<ClutchRowSummary[]> {
  const rows = await clutchRows(work);
  return rows.map((row) => ({ ...row, day: daysBetween(row.laidOn, row.hatchedOn ?? work.today) }));
}
