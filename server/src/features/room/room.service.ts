import type { RoomAssumptions, RoomView } from '@karyotome/contract';
import {
  addDays,
  curveByWeek,
  learnPace,
  daysBetween,
  type ComingClutch,
  type LearnedPace,
  type RoomAnimal,
  type RoomKind,
} from '@karyotome/core';
import { type Work } from '../../db/work.ts';
import { collectionOf } from '../../domain/collection/collection-of.ts';
import { herdOf } from '../../domain/husbandry/load-herd.ts';
import { type Herd } from '../../domain/husbandry/herd.ts';
import { incubationClocks } from '../../domain/incubation/clutch-view.service.ts';
import { changeCollection } from '../../domain/collection/change-collection.ts';
import { offerSpells } from '../../domain/sales/sales.queries.ts';
import { lyingClutches } from './room.queries.ts';

const WEEKS = 52;
const RUNS = 2000;
const SEED = 20_261_126;
/** Places are asked for half a year ahead: sold a quarter held back, the rest within some two months. No source. */
const ASSUMED: RoomAssumptions = { saleAgeWeeks: 10, salePace: 0.08, heldBack: 0.15 };
/** Of a pairing without eggs, that a clutch comes of it, by how far it is; of an egg, that it hatches. Assumed; see docs. */
const CLUTCH_CHANCE = { ovulated: 0.9, 'pre-lay': 0.95 } as const;
const OPEN_CHANCE = 0.5;
const HATCH_SHARE = 0.85;
const EGGS = 6;
const INCUBATION_DAYS = 58;
/** Eight in ten of a normal distribution lie within a span of so many standard deviations. */
const EIGHT_IN_TEN_SDS = 2.563;

/** What a forecast of places rests on; the simulation itself runs where it is asked, off the main thread. */
export async function viewRoom(work: Work): Promise<RoomView> {
  const herd = await herdOf(work);
  const settings = await collectionOf(work);
  const learned = learnPace(await offerSpells(work), work.today);
  const assumptions = {
    ...ASSUMED,
    ...(learned ? learnedAssumptions(learned) : {}),
    ...settings.roomAssumptions,
  };
  const kinds = kindsOf(herd);
  const animals = roomAnimals(herd, assumptions);
  const clutches = [...(await inTheIncubator(work)), ...expected(herd)];
  const first = kinds.find(({ key }) => key.endsWith('|0')) ?? kinds[0];
  return {
    today: work.today,
    assumptions,
    learned,
    version: settings.version,
    question: {
      kinds,
      animals,
      clutches,
      hatchlingKind: first?.key ?? '',
      hatchling: curveByWeek(herd.collectionGrowth, WEEKS),
      ...assumptions,
      weeks: WEEKS,
      runs: RUNS,
      seed: SEED,
    },
    rests: {
      animals: animals.length,
      forSale: animals.filter(({ forSaleFrom }) => forSaleFrom !== null).length,
      clutches: clutches.length,
    },
  };
}

/** Bounds of what the form takes. */
function learnedAssumptions({ perWeek, offeredAtWeeks }: LearnedPace): Partial<RoomAssumptions> {
  return {
    salePace: Math.min(1, Number(perWeek.toFixed(3))),
    ...(offeredAtWeeks === null ? {} : { saleAgeWeeks: Math.round(offeredAtWeeks) }),
  };
}

const keyOf = (ladderId: string, step: number): string => `${ladderId}|${step}`;

/** Kinds of tub the room has places of, and those that its animals grow into. */
function kindsOf(herd: Herd): RoomKind[] {
  const places = new Map<string, number>();
  for (const { ladderId, step } of herd.enclosures.tubs.values()) {
    const key = keyOf(ladderId, step);
    places.set(key, (places.get(key) ?? 0) + 1);
  }
  const used = new Set([...herd.enclosures.tubs.values()].map(({ ladderId }) => ladderId));
  return [...herd.enclosures.ladders]
    .filter(([id]) => used.has(id))
    .flatMap(([id, { name, steps }]) =>
      steps.map((step, i) => ({
        key: keyOf(id, i),
        name: used.size > 1 ? `${step.name}, ${name}` : step.name,
        places: places.get(keyOf(id, i)) ?? 0,
        maxG: step.maxG,
        next: i + 1 < steps.length ? keyOf(id, i + 1) : null,
      })),
    );
}

/** Every animal in a tub, with what it will weigh at the end of each week. */
function roomAnimals(herd: Herd, { saleAgeWeeks }: RoomAssumptions): RoomAnimal[] {
  const days = Array.from({ length: WEEKS }, (_, week) => addDays(herd.today, 7 * (week + 1)));
  return [...herd.animals.values()].flatMap(({ id, tubId, status, hatchedOn }): RoomAnimal[] => {
    const tub = tubId === null ? undefined : herd.enclosures.tubs.get(tubId);
    const growth = herd.growth(id);
    if (!tub || !growth) return [];
    const masses = days.map((day) => growth.logMass(day));
    const age = hatchedOn === null ? Infinity : daysBetween(hatchedOn, herd.today) / 7;
    const forSale = status === 'for-sale' || status === 'reserved' || (status === 'undecided' && age < 52);
    return [
      {
        kind: keyOf(tub.ladderId, tub.step),
        mean: masses.map(({ mean }) => mean),
        sd: masses.map(({ sd }) => sd),
        forSaleFrom: forSale ? Math.max(0, Math.ceil(saleAgeWeeks - age)) : null,
      },
    ];
  });
}

/** Clutches in the incubator: their eggs, and the day they are expected to hatch. */
async function inTheIncubator(work: Work): Promise<ComingClutch[]> {
  const eggs = new Map((await lyingClutches(work)).map((row) => [row.id, row.eggs]));
  return (await incubationClocks(work)).flatMap(({ id, clock }) => {
    const count = eggs.get(id) ?? 0;
    if (count <= 0) return [];
    const { from, to } = clock.out;
    const span = daysBetween(from, to);
    return [
      {
        hatchInDays: Math.max(0, daysBetween(work.today, from) + span / 2),
        sdDays: Math.max(1, span / EIGHT_IN_TEN_SDS),
        eggs: count,
        hatchShare: HATCH_SHARE,
        chance: 1,
      },
    ];
  });
}

/** Pairings without eggs: when they are expected to lay, and how likely at all. */
function expected(herd: Herd): ComingClutch[] {
  return herd.forecasts.flatMap(({ forecast }): ComingClutch[] => {
    const laying = forecast.expected.find(({ what }) => what === 'eggs');
    const stage = forecast.stage;
    const chance = stage === 'ovulated' || stage === 'pre-lay' ? CLUTCH_CHANCE[stage] : OPEN_CHANCE;
    const layIn = laying ? Math.max(0, daysBetween(herd.today, laying.middle)) : 90;
    return [
      {
        hatchInDays: layIn + INCUBATION_DAYS,
        sdDays: laying ? Math.max(4, daysBetween(laying.from, laying.to) / EIGHT_IN_TEN_SDS) : 30,
        eggs: EGGS,
        hatchShare: HATCH_SHARE,
        chance,
      },
    ];
  });
}

export function changeAssumptions(
  work: Work,
  input: RoomAssumptions,
  version: number,
): Promise<{ version: number }> {
  return changeCollection(work, { roomAssumptions: input }, version);
}
