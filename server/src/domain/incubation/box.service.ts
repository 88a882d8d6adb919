import { randomUUID } from 'node:crypto';
import type { BoxChange, ClutchChange, EggEventsVoiding, NewEggEvents } from '@karyotome/contract';
import { eggState } from '@karyotome/core';
import { type Actor, type Work } from '../../db/work.ts';
import { invalidField, notFound, Refusal } from '../../refusal.ts';
import { findClutch } from '../season/clutches.repository.ts';
import { namedIncubator } from './incubators.service.ts';
import { eggEvents, eggsOf, toEggEvents } from './eggs.repository.ts';
import { changeAsRead, voidRows } from '../../db/change-rows.ts';
import type { ClutchRow } from '../../db/breeding-rows.ts';
import { firstEggEvent, pairingStart, youngOfEggs } from './box.queries.ts';

/** Takes a new version of a clutch, or refuses a stale one. */
const takeVersion = (
  work: Work,
  id: string,
  version: number,
  values: Partial<ClutchRow> = {},
): Promise<number> =>
  changeAsRead(
    work,
    work.models.clutches,
    'The clutch',
    { collectionId: work.actor.collectionId, id },
    version,
    values,
  );

/** Sets the eggs as they lie in the box: all of them at once. An egg of which something was recorded cannot be left out. */
export async function changeBox(
  work: Work,
  clutchId: string,
  { eggs }: BoxChange,
  version: number,
): Promise<{ version: number }> {
  const { collectionId } = work.actor;
  const clutch = await findClutch(work, clutchId);
  if (clutch.hatchedOn)
    throw new Refusal('conflict', 'This clutch has hatched: its eggs are not changed any more.');
  const old = await eggsOf(work, clutchId);
  const known = new Set(old.map(({ id }) => id));
  const strange = eggs.findIndex(({ id }) => id !== undefined && !known.has(id));
  if (strange >= 0) throw invalidField(`eggs.${strange}.id`, 'names no egg of this clutch');
  const kept = new Set(eggs.flatMap(({ id }) => id ?? []));
  const gone = old.filter(({ id }) => !kept.has(id));
  if (gone.length > 0) {
    const events = (await eggEvents(work, clutchId)).get(clutchId) ?? [];
    const recorded = gone.find(({ id }) => events.some(({ eggId }) => eggId === id));
    if (recorded)
      throw invalidField(
        'eggs',
        `must keep egg ${recorded.position}: something was recorded of it`,
        'has-events',
      );
    await work.models.eggs.destroy({
      where: { collectionId, id: gone.map(({ id }) => id) },
      transaction: work.transaction,
    });
  }
  for (const [i, { id, ...values }] of eggs.entries()) {
    const row = { ...values, position: i + 1 };
    if (id)
      await work.models.eggs.update(row, { where: { collectionId, id }, transaction: work.transaction });
    else
      await work.models.eggs.create(
        { collectionId, id: randomUUID(), clutchId, ...row },
        { transaction: work.transaction },
      );
  }
  const slugs = eggs.filter(({ verdict }) => verdict === 'slug').length;
  return { version: await takeVersion(work, clutchId, version, { eggs: eggs.length, slugs }) };
}

export async function changeClutch(
  work: Work,
  id: string,
  change: ClutchChange,
  version: number,
): Promise<{ version: number }> {
  const clutch = await findClutch(work, id);
  if (change.incubatorId) await namedIncubator(work, change.incubatorId);
  if (change.laidOn) {
    const [pairing] = await pairingStart(work, { id: clutch.pairingId });
    if (change.laidOn < pairing!.startedOn)
      throw invalidField('laidOn', `lies before the pairing began, ${pairing!.startedOn}`, 'before-pairing');
    if (clutch.hatchedOn && change.laidOn > clutch.hatchedOn)
      throw invalidField('laidOn', `lies after the hatching, ${clutch.hatchedOn}`, 'after-hatching');
    const [early] = await firstEggEvent(work, { id });
    if (early?.on && change.laidOn > early.on)
      throw invalidField('laidOn', `lies after what was recorded of the eggs on ${early.on}`, 'after-events');
  }
  const values = {
    ...change,
    ...(change.note === '' ? { note: null } : {}),
  };
  return { version: await takeVersion(work, id, version, values) };
}

/** Records the same event of some eggs, or a look at the whole clutch, in one act. */
export async function addEggEvents(
  work: Work<Actor>,
  clutchId: string,
  input: NewEggEvents,
): Promise<{ ids: string[] }> {
  const { collectionId, accountId } = work.actor;
  const clutch = await findClutch(work, clutchId);
  if (input.on < clutch.laidOn)
    throw invalidField('on', `lies before the lay date, ${clutch.laidOn}`, 'before-laying');
  if (clutch.hatchedOn && input.kind !== 'check')
    throw new Refusal('conflict', 'This clutch has hatched and its young are numbered.');
  const eggs = await eggsOf(work, clutchId);
  const events = toEggEvents((await eggEvents(work, clutchId)).get(clutchId) ?? []);
  for (const [i, eggId] of (input.eggIds ?? []).entries()) {
    const egg = eggs.find(({ id }) => id === eggId);
    if (!egg) throw invalidField(`eggIds.${i}`, 'names no egg of this clutch');
    const { stage } = eggState(eggId, events);
    const isOver = stage === 'out' || stage === 'died' || stage === 'removed';
    if (isOver) {
      const message = `is egg ${egg.position}, which is ${STAGE_WORDS[stage]} already: take that back first`;
      throw new Refusal('conflict', `Egg ${egg.position} is ${STAGE_WORDS[stage]} already.`, [
        { field: `eggIds.${i}`, code: 'is-over', message },
      ]);
    }
    if (egg.verdict === 'slug' && (input.kind === 'pip' || input.kind === 'out'))
      throw invalidField(`eggIds.${i}`, `is egg ${egg.position}, a slug: correct that first`, 'slug');
  }
  const rows = (input.eggIds ?? [null]).map((eggId) => ({
    collectionId,
    id: randomUUID(),
    clutchId,
    eggId,
    kind: input.kind,
    onDay: input.on,
    signs: input.kind === 'check' ? (input.signs ?? []) : [],
    young: input.kind === 'out' ? (input.young ?? 1) : 1,
    note: input.note || null,
    authorId: accountId,
  }));
  await work.models.eggEvents.bulkCreate(rows, { transaction: work.transaction });
  return { ids: rows.map(({ id }) => id) };
}

const STAGE_WORDS = { out: 'out', died: 'dead', removed: 'removed' } as const;

/** Takes events back, all or none. */
export async function voidEggEvents(work: Work<Actor>, { ids, reason }: EggEventsVoiding): Promise<void> {
  const { collectionId } = work.actor;
  const found = await work.models.eggEvents.findAll({
    where: { collectionId, id: ids },
    transaction: work.transaction,
    lock: true,
  });
  if (found.length < ids.length) throw notFound('One of these events');
  if (found.some((row) => row.get().voidedAt))
    throw new Refusal('conflict', 'One of these was voided before.');
  const numbered = await youngOfEggs(work, {
    eggs: [...found.flatMap((row) => row.get().eggId ?? []), collectionId],
  });
  if (numbered.length > 0 && found.some((row) => row.get().kind === 'out'))
    throw new Refusal('conflict', `${numbered[0]!.number} came out of this egg and is numbered.`);
  await voidRows(work, work.models.eggEvents, { id: ids }, reason);
}
