import type { NewRecord } from '@karyotome/contract';
import { addDays } from '@karyotome/core';
import { addStock } from '../domain/husbandry/freezer.service.ts';
import { addSurfaceCheck, addZone } from '../domain/enclosures/heat.service.ts';
import { insertRecord } from '../domain/records/insert-record.ts';
import { select, type Actor, type Work } from '../db/work.ts';
import { Chance } from './chance.ts';
import { playHealth } from './health.ts';
import type { Living } from './living.ts';

/** What is in the freezer of the farm: booked in and counted, one kind short on purpose. */
const STOCK = [
  { prey: 'rat fuzzy', came: 90, counted: 41 },
  { prey: 'rat pup', came: 120, counted: 76 },
  { prey: 'rat weaned', came: 80, counted: 52 },
  { prey: 'rat small', came: 90, counted: 44 },
] as const;

/** The daily work besides meals, sheds and weights: tubs cleaned, heat measured, the freezer, and a few that need care. */
export async function playHusbandry(work: Work<Actor>): Promise<void> {
  const chance = new Chance(20_261_126);
  const living = await select<Living>(
    work,
    `select a.id, a.number, a.hatched_on as "hatchedOn", a.tub_id as "tubId",
            (select (r.body ->> 'massG')::float from records r where r.collection_id = a.collection_id
                and r.animal_id = a.id and r.kind = 'weight' and r.voided_at is null
              order by r.on_day desc limit 1) as "massG"
       from animals a where a.collection_id = :collectionId and a.status not in ('sold', 'died') order by a.number`,
  );
  for (const animal of living) if (animal.tubId) await clean(work, animal, chance);
  await measureHeat(work);
  for (const { prey, came, counted } of STOCK) {
    await addStock(work, { prey, kind: 'receipt', quantity: came, on: addDays(work.today, -70) });
    await addStock(work, { prey, kind: 'count', quantity: counted, on: addDays(work.today, -9) });
  }
  await closeSheds(work);
  await tellOwnStories(work, living);
  await playHealth(work, living);
}

async function record(work: Work<Actor>, animalId: string, entry: NewRecord): Promise<void> {
  await insertRecord(work, animalId, entry);
}

/** Every two weeks or so; a handful are behind. */
async function clean(work: Work<Actor>, { id, hatchedOn }: Living, chance: Chance): Promise<void> {
  let day = addDays(work.today, -chance.whole(1, chance.isTrue(0.08) ? 18 : 12));
  for (let i = 0; i < 5 && (hatchedOn === null || day > hatchedOn); i++) {
    await record(work, id, { kind: 'care', on: day, body: { act: 'cleaned' } });
    day = addDays(day, -chance.whole(12, 15));
  }
}

/** After a shed the tub is cleaned, and what was left of the skin came off; but for the last two days. */
async function closeSheds(work: Work<Actor>): Promise<void> {
  const sheds = await select<{ animalId: string; on: string; isBad: boolean }>(
    work,
    `select r.animal_id as "animalId", r.on_day as "on",
            (r.body ->> 'complete')::boolean is false as "isBad"
       from records r join animals a on a.collection_id = r.collection_id and a.id = r.animal_id
      where r.collection_id = :collectionId and r.kind = 'shed' and r.body ->> 'stage' = 'shed' and r.voided_at is null
        and a.status not in ('sold', 'died') and r.on_day between :from and :to order by a.number, r.on_day`,
    { from: addDays(work.today, -40), to: addDays(work.today, -3) },
  );
  for (const { animalId, on, isBad } of sheds) {
    const next = addDays(on, 1);
    if (isBad) await record(work, animalId, { kind: 'care', on: next, body: { act: 'soaked' } });
    if (isBad)
      await record(work, animalId, { kind: 'care', on: addDays(on, 2), body: { act: 'caps-checked' } });
    await record(work, animalId, { kind: 'care', on: next, body: { act: 'cleaned' } });
  }
}

async function measureHeat(work: Work<Actor>): Promise<void> {
  const racks = await select<{ id: string }>(
    work,
    'select id from racks where collection_id = :collectionId order by name',
  );
  for (const [i, { id: rackId }] of racks.entries()) {
    const { id } = await addZone(work, {
      rackId,
      name: 'All levels',
      warmC: 32.8,
      coolC: 27.8,
      thermostat: true,
      everyDays: 30,
    });
    // One rack is due, and one of them ran warm when it was measured.
    const days = i === 1 ? 33 : 8 + i;
    await addSurfaceCheck(work, id, {
      on: addDays(work.today, -days),
      warmC: i === 2 ? 34.9 : 32.6,
      coolC: 27.5,
      probeFixed: true,
    });
  }
}

/** One brought its meal up again, one goes its own way, and one pushes at its tub. */
async function tellOwnStories(work: Work<Actor>, living: readonly Living[]): Promise<void> {
  const young = living.filter(({ massG, tubId }) => tubId !== null && massG > 150 && massG < 700);
  const [first, second, third] = [young[3], young[8], young[12]];
  if (first) {
    const on = addDays(work.today, -4);
    await record(work, first.id, { kind: 'care', on, body: { act: 'regurgitated' } });
  }
  if (second) {
    const body = { share: 0.08, everyDays: 10 };
    await record(work, second.id, { kind: 'own-way', on: addDays(work.today, -30), body });
  }
  if (third) {
    await record(work, third.id, { kind: 'care', on: addDays(work.today, -6), body: { act: 'pushing' } });
  }
}
