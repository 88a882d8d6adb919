import type { RoomAssumptions, RoomView } from '@karyotome/contract';
import {
  curveByWeek,
  learnPace,
  daysBetween,
  type ComingClutch,
  type LearnedPace,
  type RoomKind,
} from '@karyotome/core';
import { type Work } from '../../db/work.ts';
import { collectionOf } from '../../domain/collection/collection-of.ts';
import { ladderSteps, placedTubs } from '../../domain/enclosures/enclosures.queries.ts';
import { incubationClocks } from '../../domain/incubation/clutch-view.service.ts';
import { changeCollection } from '../../domain/collection/change-collection.ts';
import { offerSpells } from '../../domain/sales/sales.queries.ts';
import { openForecasts } from '../../domain/season/forecasts.ts';
import { basisOf } from '../../domain/states/day-basis.ts';
import { overHerd } from '../../domain/states/kept-animals.ts';
import { groupBy } from '../../group-by.ts';
import { kindKey } from './foresee-masses.ts';
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
  const settings = await collectionOf(work);
  const learned = learnPace(await offerSpells(work), work.today);
  const assumptions = {
    ...ASSUMED,
    ...(learned ? learnedAssumptions(learned) : {}),
    ...settings.roomAssumptions,
  };
  const kinds = await kindsOf(work);
  const { growth } = await basisOf(work);
  const foreseen = await overHerd(work, 'foresee-masses', {
    growth,
    weeks: WEEKS,
    today: work.today,
    saleAgeWeeks: assumptions.saleAgeWeeks,
  });
  const animals = foreseen.flat();
  const clutches = [...(await inTheIncubator(work)), ...(await expected(work))];
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
      hatchling: curveByWeek(growth, WEEKS),
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

/** Kinds of tub the room has places of, and those that its animals grow into. */
async function kindsOf(work: Work): Promise<RoomKind[]> {
  const tubs = await placedTubs(work);
  const places = new Map<string, number>();
  for (const { ladderId, step } of tubs) {
    const key = kindKey(ladderId, step);
    places.set(key, (places.get(key) ?? 0) + 1);
  }
  const used = new Set(tubs.map(({ ladderId }) => ladderId));
  const ladders = groupBy(await ladderSteps(work), ({ ladderId }) => ladderId);
  return [...ladders]
    .filter(([id]) => used.has(id))
    .flatMap(([id, steps]) =>
      steps.map(({ name, ladder, maxG }, i) => ({
        key: kindKey(id, i),
        name: used.size > 1 ? `${name}, ${ladder}` : name,
        places: places.get(kindKey(id, i)) ?? 0,
        maxG,
        next: i + 1 < steps.length ? kindKey(id, i + 1) : null,
      })),
    );
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
async function expected(work: Work): Promise<ComingClutch[]> {
  return (await openForecasts(work)).flatMap(({ forecast }): ComingClutch[] => {
    const laying = forecast.expected.find(({ what }) => what === 'eggs');
    const stage = forecast.stage;
    const chance = stage === 'ovulated' || stage === 'pre-lay' ? CLUTCH_CHANCE[stage] : OPEN_CHANCE;
    const layIn = laying ? Math.max(0, daysBetween(work.today, laying.middle)) : 90;
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
