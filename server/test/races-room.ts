import type { Page, AnimalSummary } from '@karyotome/contract';
import { expect } from 'vitest';
import { bodyOf, statuses, type Races } from './race-ground.ts';
import { TODAY } from './days.ts';
import { racksOf } from './wholes.ts';

/** Of tubs, moves and racks. */
export const ROOM_RACES: Races = {
  'two animals are moved into one tub: both live there, and it is said': async ({ one, two }, make) => {
    const animals = [await make.animal('female'), await make.animal('male')];
    const [tub] = await make.tubs(1);
    const move = { kind: 'move', on: TODAY, body: { toTubId: tub, reason: 'cleaning' } };
    const answers = await Promise.all(
      animals.map((id, i) => [one, two][i]!.post(`/animals/${id}/records`, move)),
    );
    expect(statuses(answers)).toEqual([201, 201]);
    // Whoever came second is told at once; both hear it as a notice (see the stream's own test).
    const told = answers.filter((answer) => 'alsoThere' in bodyOf<object>(answer));
    expect(told).toHaveLength(1);
    const racks = await racksOf((path) => one.get(path));
    const inside = racks.flatMap(({ tubs }) => tubs).find(({ id }) => id === tub)!.animals;
    expect(inside.map(({ id }) => id).toSorted()).toEqual(animals.toSorted());
  },

  'two clutches are set up into the same tubs: one lives there, the other is told that they are taken':
    async ({ one, two }, make) => {
      const clutches = [await make.hatched(3), await make.hatched(3)];
      const tubs = await make.tubs(3);
      const answers = await Promise.all(
        clutches.map(({ clutch, young }, i) =>
          [one, two][i]!.post(`/clutches/${clutch}/set-up`, {
            on: TODAY,
            substrate: 'paper',
            places: young.map((animalId, k) => ({ animalId, tubId: tubs[k] })),
            plan: null,
          }),
        ),
      );
      expect(statuses(answers)).toEqual([201, 409]);
      const racks = await racksOf((path) => one.get(path));
      for (const tub of racks.flatMap((rack) => rack.tubs).filter(({ id }) => tubs.includes(id)))
        expect(tub.animals).toHaveLength(1);
    },

  'one clutch is set up twice: each has one tub and one plan': async ({ one, two }, make) => {
    const { clutch, young } = await make.hatched(3);
    const tubs = await make.tubs(6);
    const order = (from: number) => ({
      on: TODAY,
      substrate: 'paper',
      places: young.map((animalId, k) => ({ animalId, tubId: tubs[from + k] })),
      plan: { protocol: 'frozen-first', firstMealOn: TODAY },
    });
    const answers = await Promise.all([
      one.post(`/clutches/${clutch}/set-up`, order(0)),
      two.post(`/clutches/${clutch}/set-up`, order(3)),
    ]);
    expect(statuses(answers)).toEqual([201, 409]);
    for (const id of young) {
      const { records } = await make.view(id);
      expect(records.filter(({ kind }) => kind === 'plan')).toHaveLength(1);
    }
  },

  'many are moved in opposite order: both happen': async ({ one, two }, make) => {
    const tubs = await make.tubs(12);
    const animals = await Promise.all(Array.from({ length: 6 }, () => make.animal('female')));
    const moves = animals.map((animalId, i) => ({ animalId, toTubId: tubs[i] }));
    const others = animals.map((animalId, i) => ({ animalId, toTubId: tubs[6 + i] })).toReversed();
    const answers = await Promise.all([
      one.post('/moves', { moves, reason: 'cleaning', on: TODAY }),
      two.post('/moves', { moves: others, reason: 'cleaning', on: TODAY }),
    ]);
    expect(statuses(answers)).toEqual([201, 201]);
    const places = bodyOf<Page<AnimalSummary>>(await one.get('/animals?limit=200'))
      .items.filter(({ id }) => animals.includes(id))
      .map(({ tub }) => tub!.tubId);
    expect(new Set(places).size).toBe(6);
  },

  'a rack is taken away while an animal is moved into it: one of the two happens': async (
    { one, two },
    make,
  ) => {
    const id = await make.animal('female');
    const [tub] = await make.tubs(1);
    const racks = await racksOf((path) => one.get(path));
    const rack = racks.find(({ tubs }) => tubs.some((place) => place.id === tub))!;
    const answers = await Promise.all([
      one.post(`/racks/${rack.id}/delete`, { reason: 'Sold' }),
      two.post(`/animals/${id}/records`, {
        kind: 'move',
        on: TODAY,
        body: { toTubId: tub, reason: 'cleaning' },
      }),
    ]);
    expect([
      [201, 422],
      [409, 201],
    ]).toContainEqual(answers.map(({ status }) => status));
  },
};
