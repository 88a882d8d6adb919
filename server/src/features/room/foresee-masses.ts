import { addDays, daysBetween, Growth, type CollectionGrowth, type RoomAnimal } from '@karyotome/core';
import { toKeptAnimal } from '../../domain/states/compute-state.ts';
import type { KeptRow } from '../../domain/states/kept-animals.queries.ts';

interface Foreseen {
  readonly rows: readonly KeptRow[];
  readonly growth: CollectionGrowth;
  readonly weeks: number;
  readonly today: string;
  readonly saleAgeWeeks: number;
}

declare module '../../threads/pool.ts' {
  interface Tasks {
    /** What animals in tubs will weigh at the end of each week. */
    'foresee-masses': (input: Foreseen) => RoomAnimal[];
  }
}

/** Names a kind of tub: a step of a ladder. */
export const kindKey = (ladderId: string, step: number): string => `${ladderId}|${step}`;

const NO_LADDERS = new Map<string, never>();

/** Every animal in a tub, with what it will weigh at the end of each week. */
export function foreseeMasses({
  rows,
  growth: collection,
  weeks,
  today,
  saleAgeWeeks,
}: Foreseen): RoomAnimal[] {
  const days = Array.from({ length: weeks }, (_, week) => addDays(today, 7 * (week + 1)));
  return rows.flatMap((row): RoomAnimal[] => {
    const animal = toKeptAnimal(row, NO_LADDERS, today);
    const { place, status, hatchedOn } = row;
    if (!place || !Growth.knows(animal)) return [];
    const growth = new Growth(animal, collection);
    const masses = days.map((day) => growth.logMass(day));
    const age = hatchedOn === null ? Infinity : daysBetween(hatchedOn, today) / 7;
    const forSale = status === 'for-sale' || status === 'reserved' || (status === 'undecided' && age < 52);
    return [
      {
        kind: kindKey(place.ladderId, place.step),
        mean: masses.map(({ mean }) => mean),
        sd: masses.map(({ sd }) => sd),
        forSaleFrom: forSale ? Math.max(0, Math.ceil(saleAgeWeeks - age)) : null,
      },
    ];
  });
}
