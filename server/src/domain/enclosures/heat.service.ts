import { randomUUID } from 'node:crypto';
import type { HeatZoneInput, HeatZoneView, SurfaceCheck } from '@karyotome/contract';
import { addDays, heatFaults, type HeatFault } from '@karyotome/core';
import { changeRow, voidRow } from '../../db/change-rows.ts';
import { type Actor, type Work } from '../../db/work.ts';
import { invalidField, notFound } from '../../refusal.ts';
import { moveIn } from '../bin/bin.service.ts';
import { zoneRows } from './enclosures.queries.ts';

/** The heat zones of all racks with their last check, and what is wrong. */
export async function heatZones(work: Work): Promise<HeatZoneView[]> {
  const rows = await zoneRows(work);
  return rows.map((zone) => ({
    ...zone,
    faults: heatFaults(zone, zone.lastCheck),
    dueOn: zone.lastCheck ? addDays(zone.lastCheck.on, zone.everyDays) : work.today,
  }));
}

async function checkRack(work: Work, rackId: string): Promise<void> {
  const found = await work.models.racks.count({
    where: { collectionId: work.actor.collectionId, id: rackId },
    transaction: work.transaction,
  });
  if (found === 0) throw invalidField('rackId', 'names no rack of this collection');
}

export async function addZone(work: Work, input: HeatZoneInput): Promise<{ id: string }> {
  await checkRack(work, input.rackId);
  const id = randomUUID();
  await work.models.heatZones.create(
    { collectionId: work.actor.collectionId, id, ...input, version: 1 },
    { transaction: work.transaction },
  );
  return { id };
}

export async function changeZone(
  work: Work,
  id: string,
  input: HeatZoneInput,
  version: number,
): Promise<{ id: string; version: number }> {
  await checkRack(work, input.rackId);
  return changeRow(work, work.models.heatZones, 'This heat zone', { id, version }, input);
}

/** Puts a zone into the bin, with its checks. */
export async function deleteZone(work: Work<Actor>, id: string, reason: string): Promise<{ id: string }> {
  const { models, actor, transaction } = work;
  const where = { collectionId: actor.collectionId, id };
  const zone = (await models.heatZones.findOne({ where, transaction }))?.get();
  if (!zone) throw notFound('This heat zone');
  const rack = { collectionId: actor.collectionId, id: zone.rackId };
  const { name } = (await models.racks.findOne({ where: rack, transaction }))!.get();
  return moveIn(work, { kind: 'heat-zone', id, animalId: null, number: name, name: zone.name, reason });
}

export async function addSurfaceCheck(
  work: Work<Actor>,
  zoneId: string,
  { on, note, ...check }: SurfaceCheck,
): Promise<{ id: string; faults: HeatFault[] }> {
  const { collectionId, accountId } = work.actor;
  const zone = (
    await work.models.heatZones.findOne({
      where: { collectionId, id: zoneId },
      transaction: work.transaction,
    })
  )?.get();
  if (!zone) throw notFound('This heat zone');
  const id = randomUUID();
  await work.models.surfaceChecks.create(
    { collectionId, id, zoneId, ...check, onDay: on, note: note || null, authorId: accountId },
    { transaction: work.transaction },
  );
  return { id, faults: heatFaults(zone, check) };
}

export function voidSurfaceCheck(work: Work<Actor>, id: string, reason: string): Promise<void> {
  return voidRow(work, work.models.surfaceChecks, 'This check', id, reason);
}
