import { randomUUID } from 'node:crypto';
import type { NewSeasonEvent, SeasonEventCorrection, SeasonEventView } from '@karyotome/contract';
import type { SeasonEvent } from '@karyotome/core';
import type { PairingEventRow, PairingRow } from '../../db/breeding-rows.ts';
import { type Actor, type Work } from '../../db/work.ts';
import { invalidField, notFound, Refusal } from '../../refusal.ts';
import { voidRows } from '../../db/change-rows.ts';
import { eventRows, firstLayDay } from './season-events.queries.ts';

export async function findPairing(work: Work, id: string): Promise<PairingRow> {
  const { collectionId } = work.actor;
  const row = await work.models.pairings.findOne({
    where: { collectionId, id },
    transaction: work.transaction,
    lock: true,
  });
  if (!row) throw notFound('This pairing');
  return row.get();
}

/** Valid events by pairing, in date order. @param pairingIds - of these alone; null: of all */
export async function seasonEvents(
  work: Work,
  pairingIds: readonly string[] | null = null,
): Promise<Map<string, SeasonEventView[]>> {
  const rows = await eventRows(work, { pairingIds });
  const byPairing = new Map<string, SeasonEventView[]>();
  for (const { pairingId: id, ...event } of rows) byPairing.set(id, [...(byPairing.get(id) ?? []), event]);
  return byPairing;
}

/** Records one event of a pairing. Refuses what cannot be in this order. */
export async function addSeasonEvent(
  work: Work<Actor>,
  pairingId: string,
  input: NewSeasonEvent,
): Promise<{ id: string }> {
  const pairing = await findPairing(work, pairingId);
  await checkOrder(work, pairing, input);
  const id = randomUUID();
  await work.models.pairingEvents.create(
    {
      collectionId: work.actor.collectionId,
      id,
      pairingId,
      kind: input.kind,
      onDay: input.on,
      sireId: input.sireId ?? null,
      note: input.note || null,
      authorId: work.actor.accountId,
    },
    { transaction: work.transaction },
  );
  // An introduction that is remembered later than it was made moves the beginning back.
  if (input.kind === 'introduction' && input.on < pairing.startedOn)
    await work.models.pairings.update(
      { startedOn: input.on },
      { where: { collectionId: work.actor.collectionId, id: pairingId }, transaction: work.transaction },
    );
  return { id };
}

async function checkOrder(work: Work, pairing: PairingRow, input: NewSeasonEvent): Promise<void> {
  if (input.kind !== 'introduction' && input.on < pairing.startedOn)
    throw invalidField('on', `lies before the first introduction, ${pairing.startedOn}`, 'before-pairing');
  const [clutch] = await firstLayDay(work, { id: pairing.id });
  if (clutch && input.on > clutch.laidOn)
    throw invalidField('on', `lies after the eggs, laid on ${clutch.laidOn}`, 'after-laying');
  if (!input.sireId) return;
  const sire = await work.models.pairingSires.findOne({
    where: {
      collectionId: work.actor.collectionId,
      pairingId: pairing.id,
      sireId: input.sireId,
      stored: false,
    },
    transaction: work.transaction,
  });
  if (!sire) throw invalidField('sireId', 'is not a male of this pairing', 'other-male');
}

async function findEvent(work: Work, id: string) {
  const { collectionId } = work.actor;
  const row = await work.models.pairingEvents.findOne({
    where: { collectionId, id },
    transaction: work.transaction,
    lock: true,
  });
  if (!row) throw notFound('This event');
  const event = row.get();
  if (event.voidedAt) throw new Refusal('conflict', 'This event was voided before.');
  return event;
}

export async function voidSeasonEvent(
  work: Work<Actor>,
  id: string,
  reason: string,
  replacedBy: string | null = null,
): Promise<PairingEventRow> {
  const event = await findEvent(work, id);
  await voidRows(work, work.models.pairingEvents, { id }, reason, { replacedBy });
  return event;
}

/** Puts another event of the same kind in the place of one, which is kept as voided. */
export async function correctSeasonEvent(
  work: Work<Actor>,
  id: string,
  { reason, ...next }: SeasonEventCorrection,
): Promise<{ id: string }> {
  const event = await findEvent(work, id);
  if (next.kind !== event.kind) throw invalidField('kind', `must stay ${event.kind}`);
  const replacement = await addSeasonEvent(work, event.pairingId, next);
  await voidSeasonEvent(work, id, reason, replacement.id);
  return replacement;
}

export const toSeasonEvents = (views: readonly SeasonEventView[]): SeasonEvent[] =>
  views.map(({ id, kind, on, sireId }) => ({ id, kind, on, sireId }));
