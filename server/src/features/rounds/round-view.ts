import type { AnimalSummary, RoundAnimal, RoundRack, RoundView } from '@karyotome/contract';
import { appetite, daysBetween, DIGESTING_DAYS, SETTLING_DAYS, shedCycle, soakPlan } from '@karyotome/core';
import { now } from '../../clock.ts';
import { type Work } from '../../db/work.ts';
import { listAnimals } from '../../domain/animals/animals.service.ts';
import { groupBy } from '../../group-by.ts';
import { herdOf } from '../../domain/husbandry/load-herd.ts';
import { type Herd } from '../../domain/husbandry/herd.ts';
import { recordedToday } from './rounds.queries.ts';

/** The id of the place in a round of animals that have no tub. */
const WITHOUT_TUB = 'without-tub';

type Done = RoundAnimal['done'][number];

/** Everything a round needs, for a device that may lose its connection: racks in walking order, tub after tub. */
export async function viewRound(work: Work): Promise<RoundView> {
  const herd = await herdOf(work);
  const summaries = new Map((await listAnimals(work)).map((animal) => [animal.id, animal]));
  const done = await doneToday(work);
  const inTub = groupBy(herd.animals.values(), ({ tubId }) => tubId);
  const racks = new Map<string, RoundRack>();
  for (const { tubId, rackId, room, rack, level, slot } of herd.enclosures.tubs.values()) {
    const known = racks.get(rackId) ?? { id: rackId, room, name: rack, tubs: [] };
    racks.set(rackId, known);
    const animals = (inTub.get(tubId) ?? []).map(({ id }) =>
      inRound(herd, summaries.get(id)!, done.get(id) ?? []),
    );
    if (animals.length > 0) known.tubs.push({ tubId, level, slot, animals });
  }
  const withoutTub = (inTub.get(null) ?? []).toSorted((a, b) => (a.number < b.number ? -1 : 1));
  if (withoutTub.length > 0) {
    racks.set(WITHOUT_TUB, {
      id: WITHOUT_TUB,
      room: '',
      name: null,
      tubs: withoutTub.map(({ id }, i) => ({
        tubId: null,
        level: 0,
        slot: i + 1,
        animals: [inRound(herd, summaries.get(id)!, done.get(id) ?? [])],
      })),
    });
  }
  return {
    today: work.today,
    at: now().toISOString(),
    racks: [...racks.values()].filter(({ tubs }) => tubs.length > 0),
    plans: herd.plans.map(({ id, name, start, steps }) => ({ id, name, start, steps })),
  };
}

function inRound(
  herd: Herd,
  { id, number, label, sex, massG, weighedOn }: AnimalSummary,
  done: Done[],
): RoundAnimal {
  const { history, gravid } = herd.animal(id);
  const { today } = herd;
  const eating = appetite(history);
  const move = history.moves.findLast(({ fromTub }) => fromTub !== null);
  const sinceMove = move ? daysBetween(move.on, today) : Infinity;
  const sinceMeal = eating.lastTakenOn ? daysBetween(eating.lastTakenOn, today) : Infinity;
  const [concern] = herd.concerns(id);
  return {
    id,
    number,
    label,
    sex,
    massG,
    weighedOn,
    expected: herd.expectedToday(id),
    meal: herd.meal(id),
    appetite: eating,
    shed: shedCycle(history, today),
    soak: soakPlan(history, today),
    flags: [
      ...(gravid ? [{ code: 'gravid', facts: {} } as const] : []),
      ...(sinceMeal < DIGESTING_DAYS
        ? [{ code: 'digesting', facts: { daysSinceMeal: sinceMeal } } as const]
        : []),
      ...(sinceMove < SETTLING_DAYS ? [{ code: 'settling', facts: { days: sinceMove } } as const] : []),
      ...(concern ? [concern] : []),
    ],
    done,
  };
}

/** What was recorded of each animal today. */
async function doneToday(work: Work): Promise<Map<string, Done[]>> {
  const rows = await recordedToday(work);
  return new Map(
    [...groupBy(rows, ({ animalId }) => animalId)].map(([animalId, records]) => [
      animalId,
      records.map(({ animalId: _, ...record }) => record),
    ]),
  );
}
