import { randomUUID } from 'node:crypto';
import type { EggEventView } from '@karyotome/contract';
import { boxPlaces, eggState, type EggEvent } from '@karyotome/core';
import type { EggRow } from '../../db/breeding-rows.ts';
import { select, type Work } from '../../db/work.ts';

export async function eggsOf(work: Work, clutchId: string): Promise<EggRow[]> {
  const rows = await work.models.eggs.findAll({
    where: { collectionId: work.actor.collectionId, clutchId },
    order: [['position', 'ASC']],
    transaction: work.transaction,
  });
  return rows.map((row) => row.get());
}

/** Valid events of the eggs, by clutch, in date order. */
export async function eggEvents(
  work: Work,
  clutchId: string | null = null,
): Promise<Map<string, EggEventView[]>> {
  const rows = await select<EggEventView & { clutchId: string }>(
    work,
    `select e.id, e.clutch_id as "clutchId", e.kind, e.on_day as "on", e.egg_id as "eggId", e.signs, e.young, e.note,
            who.name as author
       from egg_events e join accounts who on who.id = e.author_id
      where e.collection_id = :collectionId and e.voided_at is null
        and (cast(:clutchId as uuid) is null or e.clutch_id = :clutchId)
      order by e.on_day, e.recorded_at`,
    { clutchId },
  );
  const byClutch = new Map<string, EggEventView[]>();
  for (const { clutchId: id, ...event } of rows) byClutch.set(id, [...(byClutch.get(id) ?? []), event]);
  return byClutch;
}

export const toEggEvents = (views: readonly EggEventView[]): EggEvent[] =>
  views.map(({ id, kind, on, eggId, signs, young }) => ({ id, kind, on, eggId, signs, young }));

/** The eggs of a new clutch, lying in rows; the slugs last. */
export async function layEggs(work: Work, clutchId: string, count: number, slugs: number): Promise<void> {
  await work.models.eggs.bulkCreate(
    boxPlaces(count).map((place, i) => ({
      collectionId: work.actor.collectionId,
      id: randomUUID(),
      clutchId,
      position: i + 1,
      verdict: i >= count - slugs ? ('slug' as const) : ('good' as const),
      massG: null,
      stuck: null,
      marked: false,
      ...place,
    })),
    { transaction: work.transaction },
  );
}

/** The eggs that young came out of, one entry for each young, in the order in which they came: with the day. */
export async function youngByEgg(work: Work, clutchId: string): Promise<{ eggId: string; on: string }[]> {
  const events = toEggEvents((await eggEvents(work, clutchId)).get(clutchId) ?? []);
  return (await eggsOf(work, clutchId))
    .map((egg) => ({ egg, state: eggState(egg.id, events) }))
    .filter(({ state }) => state.stage === 'out')
    .toSorted((a, b) =>
      a.state.since! < b.state.since!
        ? -1
        : a.state.since! > b.state.since!
          ? 1
          : a.egg.position - b.egg.position,
    )
    .flatMap(({ egg, state }) =>
      Array.from({ length: state.young }, () => ({ eggId: egg.id, on: state.since! })),
    );
}
