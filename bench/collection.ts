import { randomUUID } from 'node:crypto';
import { addDays } from '@karyotome/core';
import { createCollection } from '../server/src/domain/collection/create-collection.ts';
import { MACHINE_ZONE, machineToday, type Actor, type Database } from '../server/src/db/work.ts';

/** Days over which the events of an animal are spread: three years and a little. */
const SPAN_DAYS = 1200;
const RACK = { levels: 5, tubsPerLevel: 8 };
/** Every so many females are paired this season, or have a clutch behind them. */
const PAIRED_EVERY = 10;
const GENES = [
  'pastel',
  'clown',
  'het clown',
  'pied',
  'enchi het pied',
  'mojave',
  'yellow belly',
  'leopard het desert ghost',
  'normal',
  'banana',
];

/**
 * A collection of a size, written straight into the tables: founders, then animals of earlier ones, each in its tub, with
 * meals, weights, sheds and cleaned tubs over three years up to yesterday; every tenth female paired this season, another
 * tenth with a clutch behind her. Ten genes, a tenth of the animals a generation.
 */
export async function fillCollection(
  database: Database,
  animals: number,
  events: number,
  password: string,
): Promise<{ actor: Actor; ids: string[]; racks: string[] }> {
  const actor = await createCollection(
    database,
    { email: 'bench@example.test', name: 'Bench', password },
    'Bench',
  );
  const { collectionId, accountId } = actor;
  const { models, sequelize } = database;
  await models.collections.update({ timeZone: MACHINE_ZONE }, { where: { id: collectionId } });
  const today = machineToday();
  const ids = Array.from({ length: animals }, () => randomUUID());
  const founders = Math.max(10, Math.floor(animals / 10));
  const isFemale = (i: number): boolean => i % 2 === 0;
  const parent = (i: number, female: boolean): string => {
    const pick = (i * 7919) % Math.min(i, founders);
    return ids[isFemale(pick) === female ? pick : pick ^ 1]!;
  };
  const { racks, tubs } = await addRacks(database, collectionId, animals);
  const rows = ids.map((id, i) => ({
    collectionId,
    id,
    number: `B-${String(i).padStart(5, '0')}`,
    sex: isFemale(i) ? ('female' as const) : ('male' as const),
    hatchedOn: addDays(today, i < founders ? -2400 : -SPAN_DAYS - 60),
    damId: i < founders ? null : parent(i, true),
    sireId: i < founders ? null : parent(i, false),
    clutchId: null,
    tubId: tubs[i]!,
    status: 'held-back' as const,
    version: 1,
  }));
  await models.usedNumbers.bulkCreate(rows.map(({ number }) => ({ collectionId, number })));
  for (let from = 0; from < rows.length; from += 1000)
    await models.animals.bulkCreate(rows.slice(from, from + 1000));
  await models.records.bulkCreate(
    ids.slice(0, founders).map((animalId, i) => ({
      collectionId,
      id: randomUUID(),
      animalId,
      kind: 'identification' as const,
      onDay: addDays(today, -390),
      body: { genes: GENES[i % GENES.length]!, sure: 'certain', by: 'Bench' },
      authorId: accountId,
    })),
  );
  const each = Math.floor((events - founders) / animals);
  for (let from = 0; from < animals; from += 500)
    await sequelize.query(EVENTS_SQL, {
      bind: [collectionId, accountId, ids.slice(from, from + 500), each, today, SPAN_DAYS],
    });
  await addSeasons(database, collectionId, accountId, ids, today);
  await sequelize.query('vacuum analyze');
  return { actor, ids, racks };
}

/** Of the k-th event of an animal: a weight, a shed, a cleaning, or a meal. */
const EVENTS_SQL = `
  insert into records (collection_id, id, animal_id, kind, on_day, body, author_id)
  select $1, gen_random_uuid(), a.id, e.kind, cast($5 as date) - 1 - (k * $6::int / $4::int) - (i % 4)::int, e.body, $2
    from unnest($3::uuid[]) with ordinality as a (id, i)
    cross join generate_series(0, $4::int - 1) as k
    cross join lateral (select
      case when k % 6 = 4 then 'weight' when k % 25 = 3 then 'shed' when k % 12 = 7 then 'care' else 'feeding' end as kind,
      case when k % 6 = 4 then jsonb_build_object('massG', round(1500 * exp(-2.6 * k / $4::float)) + k % 5)
           when k % 25 = 3 then '{"stage": "shed", "complete": true, "eyeCaps": true}'::jsonb
           when k % 12 = 7 then '{"act": "cleaned"}'::jsonb
           else jsonb_build_object('species', 'rat', 'size', 'small', 'state', 'frozen-thawed', 'taken', (k + i) % 11 <> 0)
      end as body) e`;

async function addRacks(
  { models }: Database,
  collectionId: string,
  animals: number,
): Promise<{ racks: string[]; tubs: string[] }> {
  const [ladder] = await models.ladders.findAll({ where: { collectionId, name: 'Four-step rack' } });
  const racks = Array.from({ length: Math.ceil(animals / (RACK.levels * RACK.tubsPerLevel)) }, (_, i) => ({
    collectionId,
    id: randomUUID(),
    room: 'Room',
    name: `Rack ${String(i).padStart(3, '0')}`,
    ...RACK,
    ladderId: ladder!.get().id,
    stepPosition: 2,
    version: 1,
  }));
  const tubs = racks.flatMap(({ id: rackId }) =>
    Array.from({ length: RACK.levels * RACK.tubsPerLevel }, (_, i) => ({
      collectionId,
      id: randomUUID(),
      rackId,
      level: Math.floor(i / RACK.tubsPerLevel) + 1,
      slot: (i % RACK.tubsPerLevel) + 1,
    })),
  );
  await models.racks.bulkCreate(racks);
  for (let from = 0; from < tubs.length; from += 1000)
    await models.tubs.bulkCreate(tubs.slice(from, from + 1000));
  return { racks: racks.map(({ id }) => id), tubs: tubs.map(({ id }) => id) };
}

async function addSeasons(
  { models }: Database,
  collectionId: string,
  authorId: string,
  ids: readonly string[],
  today: string,
): Promise<void> {
  const females = ids.filter((_, i) => i % 2 === 0);
  const males = ids.filter((_, i) => i % 2 === 1);
  const year = Number(today.slice(0, 4));
  const pairings = females.flatMap((damId, i) => {
    const isNow = i % PAIRED_EVERY === 0;
    if (!isNow && i % PAIRED_EVERY !== 1) return [];
    const startedOn = addDays(today, isNow ? -40 : -400);
    const season = isNow ? year + 1 : year;
    return [{ collectionId, id: randomUUID(), season, damId, startedOn, note: null, version: 1, isNow }];
  });
  await models.pairings.bulkCreate(pairings.map(({ isNow: _, ...row }) => row));
  const sireOf = (i: number): string => males[(i * 13) % males.length]!;
  await models.pairingSires.bulkCreate(
    pairings.map(({ id }, i) => ({
      collectionId,
      pairingId: id,
      sireId: sireOf(i),
      weight: 1,
      stored: false,
    })),
  );
  await models.pairingEvents.bulkCreate(
    pairings.flatMap(({ id, startedOn }, i) =>
      (['introduction', 'lock', 'separation'] as const).map((kind, k) => ({
        collectionId,
        id: randomUUID(),
        pairingId: id,
        kind,
        onDay: addDays(startedOn, 2 * k),
        sireId: sireOf(i),
        note: null,
        authorId,
      })),
    ),
  );
  const laid = pairings.filter(({ isNow }) => !isNow);
  await models.clutches.bulkCreate(
    laid.map(({ id, startedOn }, i) => ({
      collectionId,
      id: randomUUID(),
      pairingId: id,
      season: year,
      ordinal: i + 1,
      laidOn: addDays(startedOn, 90),
      eggs: 6,
      slugs: 0,
      hatchedOn: addDays(startedOn, 148),
      hatched: 6,
      version: 1,
    })),
  );
}
