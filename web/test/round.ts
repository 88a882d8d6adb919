import type { RoundAnimal, RoundRack } from '@karyotome/contract';
import { vi } from 'vitest';
import { api } from '../src/api/resources.ts';
import type { WholeRound } from '../src/offline/device.ts';
import { FEEDING_PLANS, nextMeal, type History } from '@karyotome/core';

export const HISTORY: History = {
  hatchedOn: '2026-01-01',
  weights: [{ id: 'w', on: '2026-06-01', massG: 200 }],
  feedings: [{ id: 'f', on: '2026-06-01', taken: true }],
  sheds: [],
  moves: [],
};

/** An animal of a round, due for a meal. */
export function roundAnimal(number: string, more: Partial<RoundAnimal> = {}): RoundAnimal {
  return {
    id: `11111111-1111-4111-8111-1111111111${number.padStart(2, '0')}`,
    number,
    label: 'Pastel',
    sex: 'female',
    massG: 200,
    weighedOn: '2026-06-01',
    expected: { on: '2026-06-20', lowG: 190, midG: 210, highG: 230 },
    meal: nextMeal(HISTORY, '2026-06-20'),
    appetite: {
      inARow: 3,
      refusedInARow: 0,
      takenEver: 3,
      offeredEver: 3,
      lastTakenOn: '2026-06-01',
      lastOfferedOn: '2026-06-01',
      share: 1,
    },
    shed: null,
    soak: null,
    flags: [],
    done: [],
    ...more,
  };
}

/** A round of one rack. */
export function roundView(...numbers: string[]): WholeRound & { racks: RoundRack[] } {
  return {
    today: '2026-06-20',
    at: '2026-06-20T18:00:00.000Z',
    racks: [
      {
        id: 'rack',
        room: 'Room',
        name: 'Left',
        tubs: numbers.map((number, i) => ({
          tubId: `tub${i}`,
          level: 1,
          slot: i + 1,
          animals: [roundAnimal(number)],
        })),
      },
    ],
    plans: [...FEEDING_PLANS],
  };
}

/** The server has this round: its racks are read one by one. */
export function serveRound({ racks, ...round }: WholeRound) {
  vi.spyOn(api, 'roundRack').mockImplementation((id) =>
    Promise.resolve(racks.find((rack) => rack.id === id)!),
  );
  return vi.spyOn(api, 'round').mockResolvedValue({
    ...round,
    racks: racks.map(({ id, room, name, tubs }) => ({
      id,
      room,
      name,
      animals: tubs.length,
      stamp: JSON.stringify(tubs),
    })),
  });
}
