import type { ClutchView } from '@karyotome/contract';
import { expect } from 'vitest';
import { bodyOf, statuses, type Races } from './race-ground.ts';
import { ago, TODAY } from './days.ts';
import { boardOf } from './wholes.ts';

/** Of pairings, clutches and their numbers. */
export const BREEDING_RACES: Races = {
  'eggs are laid for two females: both are entered, and their clutches’ numbers follow on': async (
    { one, two },
    make,
  ) => {
    const pairs = [await make.pair(), await make.pair()];
    const answers = await Promise.all(
      pairs.map(({ pairingId }, i) =>
        [one, two][i]!.post('/clutches', { pairingId, laidOn: ago(20), eggs: 4, slugs: 0 }),
      ),
    );
    expect(statuses(answers)).toEqual([201, 201]);
    const names = await Promise.all(
      answers.map(async (answer) =>
        // 2601 is the first clutch of 2026, 26100 its hundredth.
        Number(
          bodyOf<ClutchView>(await one.get(`/clutches/${bodyOf<{ id: string }>(answer).id}`)).name.slice(2),
        ),
      ),
    );
    expect(Math.abs(names[0]! - names[1]!)).toBe(1);
  },

  'eggs are laid twice for one pairing: the second is told of the first': async ({ one, two }, make) => {
    const { pairingId } = await make.pair();
    const laid = { pairingId, laidOn: ago(20), eggs: 4, slugs: 0 };
    const answers = await Promise.all([one.post('/clutches', laid), two.post('/clutches', laid)]);
    expect(statuses(answers)).toEqual([201, 409]);
    expect(answers.find(({ status }) => status === 409)!.body).toMatchObject({
      detail: expect.stringContaining('entered already') as string,
    });
  },

  'two clutches are numbered by one running number: the numbers follow on': async ({ one, two }, make) => {
    const settings = bodyOf<{ collection: Record<string, unknown> & { version: number } }>(
      await one.get('/session'),
    ).collection;
    if (settings['numberPattern'] !== 'running') {
      const { name, massUnit, temperatureUnit, ladderId, version } = settings;
      const changed = await one.put(
        '/settings',
        { name, massUnit, temperatureUnit, ladderId, numberPattern: 'running' },
        { 'If-Match': `"${version}"` },
      );
      expect(changed.status).toBe(200);
    }
    const clutches = [await make.clutch(3), await make.clutch(3)];
    const answers = await Promise.all(
      clutches.map(({ id, version }, i) =>
        [one, two][i]!.post(
          `/clutches/${id}/hatchlings`,
          { hatchedOn: ago(5), hatched: 3 },
          { 'If-Match': `"${version}"` },
        ),
      ),
    );
    expect(statuses(answers)).toEqual([201, 201]);
    const numbers = answers
      .flatMap((answer) => bodyOf<{ numbers: string[] }>(answer).numbers)
      .map(Number)
      .toSorted((a, b) => a - b);
    expect(new Set(numbers).size).toBe(6);
    expect(numbers.at(-1)! - numbers[0]!).toBe(5);
  },

  'one male is put to two females: he is with one': async ({ one, two }, make) => {
    const sireId = await make.animal('male', { massG: 900, hatchedOn: ago(1200) });
    const dams = [await make.animal('female', { massG: 1900 }), await make.animal('female', { massG: 1900 })];
    const answers = await Promise.all(
      dams.map((damId, i) => [one, two][i]!.post('/season/introductions', { damId, sireId, on: TODAY })),
    );
    expect(statuses(answers)).toEqual([201, 201]);
    const board = await boardOf((path) => one.get(path));
    const together = board.females
      .filter(({ id }) => dams.includes(id))
      .filter(({ pairing }) => {
        const own = (pairing?.events ?? []).filter((event) => event.sireId === sireId);
        return own.at(-1)?.kind === 'introduction' || own.every(({ kind }) => kind !== 'separation');
      });
    expect(together).toHaveLength(1);
    expect(dams).toContain(board.males.find(({ id }) => id === sireId)!.with!.id);
  },

  'one egg is said to be out twice: one young came of it': async ({ one, two }, make) => {
    const { id, eggIds } = await make.clutch(3);
    const out = { kind: 'out', on: ago(5), eggIds: [eggIds[0]], young: 1 };
    const answers = await Promise.all([
      one.post(`/clutches/${id}/egg-events`, out),
      two.post(`/clutches/${id}/egg-events`, out),
    ]);
    expect(statuses(answers)).toEqual([201, 409]);
  },

  'two changes of parents would make each the other’s ancestor: one is refused': async (
    { one, two },
    make,
  ) => {
    const [a, b] = [await make.animal('female'), await make.animal('female')];
    const [first, second] = [await make.view(a), await make.view(b)];
    const answers = await Promise.all([
      one.patch(`/animals/${a}`, { damId: b }, { 'If-Match': `"${first.version}"` }),
      two.patch(`/animals/${b}`, { damId: a }, { 'If-Match': `"${second.version}"` }),
    ]);
    expect(statuses(answers)).toEqual([200, 422]);
    expect(JSON.stringify(answers.map(({ body }) => body as unknown))).toContain('own-ancestor');
  },

  'a clutch’s young and a change of its sires come at once: no animal sires itself': async (
    { one, two },
    make,
  ) => {
    const { young, pairingId } = await make.hatched(2);
    await one.post(`/animals/${young[0]}/records`, {
      kind: 'sex',
      on: ago(3),
      body: { sex: 'male', method: 'popped', sure: 'certain', by: 'Ida' },
    });
    const sires = { sires: [{ animalId: young[0], weight: 1 }] };
    const answers = await Promise.all([
      one.put(`/pairings/${pairingId}/sires`, sires, { 'If-Match': '"1"' }),
      two.put(`/pairings/${pairingId}/sires`, sires, { 'If-Match': '"1"' }),
    ]);
    expect(statuses(answers)).toEqual([422, 422]);
  },
};
