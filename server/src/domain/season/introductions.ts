import { randomUUID } from 'node:crypto';
import type { Introduction, SiresChange } from '@karyotome/contract';
import { malesWith, seasonOf, storedCandidates } from '@karyotome/core';
import { touchGenetics, type Actor, type Work } from '../../db/work.ts';
import { invalidField, stale } from '../../refusal.ts';
import { checkParent } from '../animals/animals.service.ts';
import { refuseCircle } from '../animals/ancestry.ts';
import { rulesOf } from './season-rules.ts';
import {
  addSeasonEvent,
  findPairing,
  seasonEvents,
  toSeasonEvents,
  voidSeasonEvent,
} from './season-events.ts';
import { raiseVersion } from '../../db/change-rows.ts';
import { earlierMates, layDaysByPairing, openPairingOf, youngOfPairing } from './introductions.queries.ts';

/**
 * Puts a male to a female. Her pairing of the season begins with it, if it has not yet; a male that is with another female
 * leaves her on that day; mates of earlier seasons come in as weak candidates, by the keeper's own share.
 */
export async function introduce(
  work: Work<Actor>,
  { damId, sireId, on }: Introduction,
): Promise<{ pairingId: string; eventId: string }> {
  await checkParent(work, 'damId', damId, 'dam');
  await checkParent(work, 'sireId', sireId, 'sire');
  if (damId === sireId) throw invalidField('sireId', 'is the female herself', 'same-parent');
  const pairingId = await openPairing(work, damId, on);
  await leaveOthers(work, sireId, pairingId, on);
  await addSire(work, pairingId, damId, sireId, on);
  const { id } = await addSeasonEvent(work, pairingId, { kind: 'introduction', on, sireId });
  return { pairingId, eventId: id };
}

async function openPairing(work: Work, damId: string, on: string): Promise<string> {
  const { collectionId } = work.actor;
  const { rules } = await rulesOf(work);
  const season = seasonOf(on, rules);
  // Two people putting males to one female at once wait for one another here.
  await work.models.animals.findOne({
    where: { collectionId, id: damId },
    transaction: work.transaction,
    lock: true,
  });
  const [open] = await openPairingOf(work, { damId, season, on });
  if (open) return open.id;
  const id = randomUUID();
  await work.models.pairings.create(
    { collectionId, id, season, damId, startedOn: on, note: null, version: 1 },
    { transaction: work.transaction },
  );
  return id;
}

/** A male cannot be with two females: he leaves the one he is with. */
async function leaveOthers(work: Work<Actor>, sireId: string, pairingId: string, on: string): Promise<void> {
  const events = await seasonEvents(work);
  const laid = await layDaysByPairing(work);
  const laidOn = new Map(laid.map((row) => [row.pairingId, row.laidOn]));
  for (const [other, views] of events) {
    if (other === pairingId || laidOn.has(other)) continue;
    if (
      malesWith(toSeasonEvents(views)).includes(sireId) &&
      views.every((view) => view.sireId !== sireId || view.on <= on)
    )
      await addSeasonEvent(work, other, { kind: 'separation', on, sireId, note: 'Put to another female' });
  }
}

async function addSire(
  work: Work,
  pairingId: string,
  damId: string,
  sireId: string,
  on: string,
): Promise<void> {
  const { collectionId } = work.actor;
  const where = { collectionId, pairingId };
  const rows = (await work.models.pairingSires.findAll({ where, transaction: work.transaction })).map((row) =>
    row.get(),
  );
  if (rows.some((row) => row.sireId === sireId && !row.stored)) return;
  const present = [
    ...rows.filter((row) => !row.stored).map((row) => ({ id: row.sireId, weight: row.weight })),
    { id: sireId, weight: 1 },
  ];
  const stored = await storedFor(work, damId, pairingId, present, on);
  await work.models.pairingSires.destroy({ where, transaction: work.transaction });
  await writeSires(work, pairingId, [
    ...present.map((one) => ({ ...one, stored: false })),
    ...stored.map((one) => ({ ...one, stored: true })),
  ]);
}

/** Earlier mates of a female as weak candidates, by the keeper's rules. */
export async function storedFor(
  work: Work,
  damId: string,
  pairingId: string | null,
  present: readonly { id: string; weight: number }[],
  on: string,
): Promise<{ id: string; weight: number }[]> {
  const { rules } = await rulesOf(work);
  const earlier = await earlierMates(work, { damId, pairingId, on });
  return storedCandidates(earlier, present, rules, on);
}

async function writeSires(
  work: Work,
  pairingId: string,
  sires: readonly { id: string; weight: number; stored: boolean }[],
): Promise<void> {
  await work.models.pairingSires.bulkCreate(
    sires.map(({ id, weight, stored }) => ({
      collectionId: work.actor.collectionId,
      pairingId,
      sireId: id,
      weight,
      stored,
    })),
    { transaction: work.transaction },
  );
}

/**
 * Takes an event back. A male that was never with her after all is no candidate any more; a pairing of which nothing is left
 * is gone, as if it had not been entered.
 */
export async function takeBack(work: Work<Actor>, eventId: string, reason: string): Promise<void> {
  const { pairingId, sireId, kind } = await voidSeasonEvent(work, eventId, reason);
  if (kind !== 'introduction' || sireId === null) return;
  const { collectionId } = work.actor;
  const laid = await work.models.clutches.count({
    where: { collectionId, pairingId },
    transaction: work.transaction,
  });
  const left = (await seasonEvents(work, [pairingId])).get(pairingId) ?? [];
  // Eggs have fathers: who they may be is then changed by hand, not in passing.
  if (laid > 0 || left.some((event) => event.sireId === sireId)) return;
  await work.models.pairingSires.destroy({
    where: { collectionId, pairingId, sireId, stored: false },
    transaction: work.transaction,
  });
  const remaining = await work.models.pairingSires.count({
    where: { collectionId, pairingId, stored: false },
    transaction: work.transaction,
  });
  if (remaining === 0 && left.length === 0)
    await work.models.pairings.destroy({
      where: { collectionId, id: pairingId },
      transaction: work.transaction,
    });
}

/** Sets the candidates and their weights by hand. One who was with her by the record cannot be left out. */
export async function changeSires(
  work: Work,
  pairingId: string,
  { sires }: SiresChange,
  version: number,
): Promise<{ version: number }> {
  const { collectionId } = work.actor;
  const pairing = await findPairing(work, pairingId);
  if (pairing.version !== version) throw stale('The pairing');
  const young = await youngOfPairing(work, { pairingId });
  const eldest = { hatchedOn: young[0]?.hatchedOn ?? null };
  for (const [index, sire] of sires.entries()) {
    const field = `sires.${index}.animalId`;
    const animal = await checkParent(work, field, sire.animalId, 'sire', eldest);
    if (animal.id === pairing.damId) throw invalidField(field, 'is the dam of this pairing', 'same-parent');
    if (young.length > 0)
      await refuseCircle(
        work,
        field,
        animal,
        young.map(({ id }) => id),
      );
  }
  const named = (await seasonEvents(work, [pairingId])).get(pairingId) ?? [];
  const missing = named.find(
    ({ sireId }) => sireId !== null && !sires.some((sire) => sire.animalId === sireId && !sire.stored),
  );
  if (missing)
    throw invalidField(
      'sires',
      'must keep every male that was with her: void his events first',
      'has-events',
    );
  await work.models.pairingSires.destroy({
    where: { collectionId, pairingId },
    transaction: work.transaction,
  });
  await writeSires(
    work,
    pairingId,
    sires.map(({ animalId, weight, stored }) => ({ id: animalId, weight, stored: stored ?? false })),
  );
  await raiseVersion(work, work.models.pairings, { collectionId, id: pairingId });
  await touchGenetics(work);
  return { version: version + 1 };
}
