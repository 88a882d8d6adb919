import { isAway } from '@karyotome/core';
import {
  IN_QUARANTINE,
  WITHOUT_TUB,
  type AnimalSummary,
  type RoundAnimal,
  type RoundRack,
  type RoundView,
  type ShedsView,
} from '@karyotome/contract';
import { now } from '../../clock.ts';
import { type Work } from '../../db/work.ts';
import { namedRacks } from '../../domain/enclosures/enclosures.queries.ts';
import { summariesOf } from '../../domain/animals/animals.service.ts';
import { plansOf } from '../../domain/husbandry/feeding-plans.ts';
import { statesOf, unstoredStates } from '../../domain/states/animal-states.ts';
import { isShedding, type StoredState } from '../../domain/states/compute-state.ts';
import { groupBy } from '../../group-by.ts';
import { notFound } from '../../refusal.ts';
import {
  animalsOfRound,
  animalsShedding,
  racksOfRound,
  recordedToday,
  type Unstored,
} from './rounds.queries.ts';

type Done = RoundAnimal['done'][number];

/** The racks that animals live in, in walking order, each with a stamp that changes with what a round shows of it. */
export async function viewRound(work: Work): Promise<RoundView> {
  const racks = await racksOfRound(work, await unstoredOf(work));
  return {
    today: work.today,
    at: now().toISOString(),
    racks: racks.map(({ room, ...rack }) => ({ ...rack, room: room ?? '' })),
    plans: (await plansOf(work)).map(({ id, name, start, steps }) => ({ id, name, start, steps })),
  };
}

async function unstoredOf(work: Work): Promise<Unstored> {
  const states = await unstoredStates(work);
  const apart = states.filter(({ state }) => state.health.quarantine !== null);
  const away = states.filter(({ state }) => isAway(state.loan));
  const ids = (those: typeof states): string[] => those.map(({ id }) => id);
  return { unstored: ids(states), apart: ids(apart), away: ids(away) };
}

/** What a round needs of one rack, for a device that may lose its connection. */
export async function viewRoundRack(work: Work, rackId: string): Promise<RoundRack> {
  const racks = await racksOf(work, await animalsOfRound(work, rackId, await unstoredOf(work)));
  // Those in quarantine live in several racks, and are one round.
  if (rackId === IN_QUARANTINE)
    return {
      id: rackId,
      room: '',
      name: null,
      tubs: racks.flatMap(({ name, tubs }) => tubs.map((tub) => ({ ...tub, rack: name }))),
    };
  const [rack] = racks;
  if (rack) return rack;
  const empty = (await namedRacks(work)).find(({ id }) => id === rackId);
  if (!empty) throw notFound('This rack');
  return { ...empty, tubs: [] };
}

/** Who is in shed, who keeps a rest of it, and who waits for the first: in walking order. */
export async function viewSheds(work: Work): Promise<ShedsView> {
  const fresh = (await unstoredStates(work)).filter(({ state }) => isShedding(state)).map(({ id }) => id);
  const stored = await animalsShedding(work);
  return { today: work.today, racks: await racksOf(work, [...stored, ...fresh]) };
}

/** Racks of a round with these animals alone. */
async function racksOf(work: Work, ids: readonly string[]): Promise<RoundRack[]> {
  const animals = await summariesOf(work, ids);
  const states = await statesOf(work, ids);
  const done = groupBy(await recordedToday(work, { ids }), ({ animalId }) => animalId);
  const byPlace = (a: AnimalSummary, b: AnimalSummary): number =>
    compare(a.tub?.room, b.tub?.room) ||
    compare(a.tub?.rack, b.tub?.rack) ||
    (a.tub?.level ?? 0) - (b.tub?.level ?? 0) ||
    (a.tub?.slot ?? 0) - (b.tub?.slot ?? 0) ||
    compare(a.number, b.number);
  const racks = groupBy(animals.toSorted(byPlace), ({ tub }) => tub?.rackId ?? WITHOUT_TUB);
  return [...racks].map(([id, own]): RoundRack => {
    const place = own[0]!.tub;
    const inTub = groupBy(own, ({ tub, id: animalId }) => tub?.tubId ?? animalId);
    return {
      id,
      room: place?.room ?? '',
      name: place?.rack ?? null,
      tubs: [...inTub.values()].map((mates, i) => ({
        tubId: mates[0]!.tub?.tubId ?? null,
        level: mates[0]!.tub?.level ?? 0,
        slot: mates[0]!.tub?.slot ?? i + 1,
        animals: mates.map((animal) =>
          inRound(
            animal,
            states.get(animal.id)!,
            (done.get(animal.id) ?? []).map(({ animalId: _, ...record }) => record),
          ),
        ),
      })),
    };
  });
}

const compare = (a = '', b = ''): number => (a < b ? -1 : a > b ? 1 : 0);

function inRound(
  { id, number, label, sex, massG, weighedOn }: AnimalSummary,
  { expected, meal, appetite, shed, soak, flags }: StoredState,
  done: Done[],
): RoundAnimal {
  return {
    id,
    number,
    label,
    sex,
    massG,
    weighedOn,
    expected,
    meal,
    appetite,
    shed,
    soak,
    flags: [...flags],
    done,
  };
}
