import { randomUUID } from 'node:crypto';
import { addDays } from '@karyotome/core';
import { createCollection } from '../server/src/features/session/first-start.ts';
import { localToday, type Actor, type Database } from '../server/src/db/work.ts';

/**
 * A collection of a size, written straight into the tables: founders, then animals of earlier ones, in tubs, with meals
 * and monthly weights up to yesterday. Ten genes, a tenth of the animals a generation.
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
  const today = localToday();
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
  const rows = ids.map((id, i) => ({
    collectionId,
    id,
    number: `B-${String(i).padStart(5, '0')}`,
    sex: isFemale(i) ? ('female' as const) : ('male' as const),
    hatchedOn: addDays(today, i < founders ? -2000 : -400),
    damId: i < founders ? null : parent(i, true),
    sireId: i < founders ? null : parent(i, false),
    clutchId: null,
    tubId: null,
    status: 'held-back' as const,
    version: 1,
  }));
  await models.usedNumbers.bulkCreate(rows.map(({ number }) => ({ collectionId, number })));
  await models.animals.bulkCreate(rows);
  const record = (
    animalId: string,
    kind: 'weight' | 'feeding' | 'identification',
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
    const batch = ids.slice(from, from + 100).flatMap((id) =>
      Array.from({ length: each }, (_, k) =>
        k % 5 === 4
          ? record(id, 'weight', addDays(today, -1 - k * 4), { massG: 900 - k * 7 })
          : record(id, 'feeding', addDays(today, -1 - k * 4), {
              species: 'rat',
              size: 'small',
              state: 'frozen-thawed',
              taken: k % 7 !== 0,
            }),
      ),
    );
    await models.records.bulkCreate(batch);
  }
  await database.sequelize.query('analyze');
  return { actor, ids };
}
