import { randomUUID } from 'node:crypto';
import { addDays } from '@karyotome/core';
import { createCollection } from '../server/src/features/session/first-start.ts';
import { machineToday, type Actor, type Database } from '../server/src/db/work.ts';

/** Days over which the events of an animal are spread: three years and a little. */
const SPAN_DAYS = 1200;
const RACK = { levels: 5, tubsPerLevel: 8 };

/**
 * A collection of a size, written straight into the tables: founders, then animals of earlier ones, each in its tub, with
 * meals, weights, sheds and cleaned tubs over three years up to yesterday. Ten genes, a tenth of the animals a generation.
 */
export async function fillCollection(
  database: Database,
  animals: number,
  events: number,
  password: string,
): Promise<{ actor: Actor; ids: string[] }> {
  const actor = await createCollection(
    database,
    { email: 'bench@example.test', name: 'Bench', password },
    'Bench',
  );
  const { collectionId, accountId } = actor;
  const { models } = database;
  const today = machineToday();
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
  const ids = Array.from({ length: animals }, () => randomUUID());
  const founders = Math.max(10, Math.floor(animals / 10));
  const isFemale = (i: number): boolean => i % 2 === 0;
  const parent = (i: number, female: boolean): string => {
    const pick = (i * 7919) % Math.min(i, founders);
    return ids[isFemale(pick) === female ? pick : pick ^ 1]!;
  };
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
  await models.tubs.bulkCreate(tubs);
  const rows = ids.map((id, i) => ({
    collectionId,
    id,
    number: `B-${String(i).padStart(5, '0')}`,
    sex: isFemale(i) ? ('female' as const) : ('male' as const),
    hatchedOn: addDays(today, i < founders ? -2400 : -SPAN_DAYS - 60),
    damId: i < founders ? null : parent(i, true),
    sireId: i < founders ? null : parent(i, false),
    clutchId: null,
    tubId: tubs[i]!.id,
    status: 'held-back' as const,
    version: 1,
  }));
  await models.usedNumbers.bulkCreate(rows.map(({ number }) => ({ collectionId, number })));
  await models.animals.bulkCreate(rows);
  const record = (
    animalId: string,
    kind: 'weight' | 'feeding' | 'identification' | 'shed' | 'care',
    onDay: string,
    body: Record<string, unknown>,
  ) => ({
    collectionId,
    id: randomUUID(),
    animalId,
    kind,
    onDay,
    body,
    authorId: accountId,
  });
  const identified = ids.slice(0, founders).map((id, i) =>
    record(id, 'identification', addDays(today, -390), {
      genes: GENES[i % GENES.length]!,
      sure: 'certain',
      by: 'Bench',
    }),
  );
  await models.records.bulkCreate(identified);
  const each = Math.floor((events - identified.length) / animals);
  for (let from = 0; from < animals; from += 100) {
    const batch = ids.slice(from, from + 100).flatMap((id, i) =>
      Array.from({ length: each }, (_, k) => {
        const on = addDays(today, -1 - Math.floor((k * SPAN_DAYS) / each) - (i % 4));
        if (k % 6 === 4)
          return record(id, 'weight', on, {
            massG: Math.round(1500 * Math.exp((-2.6 * k) / each)) + (k % 5),
          });
        if (k % 25 === 3) return record(id, 'shed', on, { stage: 'shed', complete: true, eyeCaps: true });
        if (k % 12 === 7) return record(id, 'care', on, { act: 'cleaned' });
        return record(id, 'feeding', on, {
          species: 'rat',
          size: 'small',
          state: 'frozen-thawed',
          taken: (k + i) % 11 !== 0,
        });
      }),
    );
    await models.records.bulkCreate(batch);
  }
  await database.sequelize.query('analyze');
  return { actor, ids };
}
