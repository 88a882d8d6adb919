import { randomUUID } from 'node:crypto';
import type {
  AnimalSummary,
  ClutchView,
  RackView,
  RoundEntry,
  RoundResult,
  SeasonBoardView,
} from '@karyotome/contract';
import type { Response } from 'supertest';
import { expect, test } from 'vitest';
import { ago, bodyOf, Maker, TODAY } from './race-ground.ts';
import { startTestApp, type TestApp, type TestClient } from './test-app.ts';

/*
 * Two people at once: each pair of acts is sent at the same time. One happens and the other is told what stands now, or both
 * happen in some order; never a 5xx, never a torn state. Run a few times with every test, many times by npm run test:hard.
 */

interface Ground {
  readonly app: TestApp;
  readonly one: TestClient;
  readonly two: TestClient;
}

const statuses = (answers: readonly Response[]): number[] => answers.map(({ status }) => status).toSorted();

const meal = { species: 'rat', size: 'pup', state: 'frozen-thawed', taken: true } as const;

/** What happens when two do each of these at once. */
const RACES: Readonly<Record<string, (ground: Ground, make: Maker) => Promise<void>>> = {
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
    const racks = bodyOf<RackView[]>(await one.get('/racks'));
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
      const racks = bodyOf<RackView[]>(await one.get('/racks'));
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
    const places = bodyOf<AnimalSummary[]>(await one.get('/animals'))
      .filter(({ id }) => animals.includes(id))
      .map(({ tub }) => tub!.tubId);
    expect(new Set(places).size).toBe(6);
  },

  'two rounds go over the same animals in opposite order: every entry is kept': async (
    { one, two },
    make,
  ) => {
    const animals = await Promise.all(Array.from({ length: 6 }, () => make.animal('female')));
    const entries = (ids: readonly string[]): RoundEntry[] =>
      ids.map((animalId) => ({
        key: randomUUID(),
        animalId,
        record: { kind: 'feeding', on: TODAY, body: { ...meal } },
      }));
    const answers = await Promise.all([
      one.post('/rounds/entries', { entries: entries(animals) }),
      two.post('/rounds/entries', { entries: entries(animals.toReversed()) }),
    ]);
    expect(statuses(answers)).toEqual([200, 200]);
    const results = answers.flatMap((answer) => bodyOf<{ results: RoundResult[] }>(answer).results);
    expect(results.every(({ status }) => status === 'kept')).toBe(true);
  },

  'a record and its undo cross on the way: it does not stand': async ({ one }, make) => {
    const animalId = await make.animal('female');
    const key = randomUUID();
    const record = { key, animalId, record: { kind: 'feeding', on: TODAY, body: { ...meal } } };
    const answers = await Promise.all([
      one.post('/rounds/entries', { entries: [{ key: randomUUID(), undo: key }] }),
      one.post('/rounds/entries', { entries: [record] }),
    ]);
    expect(statuses(answers)).toEqual([200, 200]);
    // Sent again after a lost answer, it stays taken back.
    await one.post('/rounds/entries', { entries: [record] });
    const { records } = await make.view(animalId);
    expect(records.filter(({ kind, voided }) => kind === 'feeding' && !voided)).toEqual([]);
  },

  'one male is put to two females: he is with one': async ({ one, two }, make) => {
    const sireId = await make.animal('male', { massG: 900, hatchedOn: ago(1200) });
    const dams = [await make.animal('female', { massG: 1900 }), await make.animal('female', { massG: 1900 })];
    const answers = await Promise.all(
      dams.map((damId, i) => [one, two][i]!.post('/season/introductions', { damId, sireId, on: TODAY })),
    );
    expect(statuses(answers)).toEqual([201, 201]);
    const board = bodyOf<SeasonBoardView>(await one.get('/season'));
    const together = board.females
      .filter(({ id }) => dams.includes(id))
      .filter(({ pairing }) => {
        const own = (pairing?.events ?? []).filter((event) => event.sireId === sireId);
        return own.at(-1)?.kind === 'introduction' || own.every(({ kind }) => kind !== 'separation');
      });
    expect(together).toHaveLength(1);
    expect(dams).toContain(board.males.find(({ id }) => id === sireId)!.withId);
  },

  'labels are printed by two: each has its own number': async ({ app, one, two }, make) => {
    const animalId = await make.animal('female');
    const order = { animalIds: [animalId], kind: 'full', size: 'roll-50x25' };
    const answers = await Promise.all([one.post('/labels', order), two.post('/labels', order)]);
    expect(statuses(answers)).toEqual([201, 201]);
    const printed = await app.database.models.printedLabels.findAll({ where: { animalId } });
    expect(printed.map((row) => row.get().issue).toSorted()).toEqual([1, 2]);
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

  'one thing is changed by two from the same version: the second is told that it is stale': async (
    { one, two },
    make,
  ) => {
    const id = await make.animal('female');
    const { version } = await make.view(id);
    const answers = await Promise.all(
      [one, two].map((client, i) =>
        client.patch(`/animals/${id}`, { name: `Name ${i}` }, { 'If-Match': `"${version}"` }),
      ),
    );
    expect(statuses(answers)).toEqual([200, 412]);
  },

  'one write is sent twice at once under its key: it takes effect once, and both are answered': async (
    { one },
    make,
  ) => {
    const id = await make.animal('female');
    const key = randomUUID();
    const weight = { kind: 'weight', on: TODAY, body: { massG: 321 } };
    const answers = await Promise.all(
      [0, 1].map(() => one.post(`/animals/${id}/records`, weight, { 'Idempotency-Key': key })),
    );
    expect(statuses(answers)).toEqual([201, 201]);
    expect(new Set(answers.map((answer) => bodyOf<{ id: string }>(answer).id)).size).toBe(1);
    const { records } = await make.view(id);
    expect(records.filter(({ kind }) => kind === 'weight')).toHaveLength(1);
  },

  'one record is voided by two: the second is told': async ({ one, two }, make) => {
    const id = await make.animal('female');
    const record = await make.id(`/animals/${id}/records`, {
      kind: 'weight',
      on: TODAY,
      body: { massG: 99 },
    });
    const answers = await Promise.all(
      [one, two].map((client) => client.post(`/records/${record}/void`, { reason: 'slip' })),
    );
    expect(statuses(answers)).toEqual([204, 409]);
  },

  'one animal is published by two: it has one page': async ({ one, two }, make) => {
    const id = await make.animal('female');
    const answers = await Promise.all(
      [one, two].map((client) => client.put(`/animals/${id}/publication`, { text: 'Words' })),
    );
    expect(statuses(answers)).toEqual([200, 200]);
    expect(new Set(answers.map((answer) => bodyOf<{ slug: string }>(answer).slug)).size).toBe(1);
  },

  'an animal is deleted while something is recorded of it: one of the two happens': async (
    { one, two },
    make,
  ) => {
    const id = await make.animal('female');
    const answers = await Promise.all([
      one.delete(`/animals/${id}`),
      two.post(`/animals/${id}/records`, { kind: 'note', on: TODAY, body: { text: 'seen' } }),
    ]);
    expect([
      [204, 404],
      [409, 201],
    ]).toContainEqual(answers.map(({ status }) => status));
  },

  'a rack is taken away while an animal is moved into it: one of the two happens': async (
    { one, two },
    make,
  ) => {
    const id = await make.animal('female');
    const [tub] = await make.tubs(1);
    const racks = bodyOf<RackView[]>(await one.get('/racks'));
    const rack = racks.find(({ tubs }) => tubs.some((place) => place.id === tub))!;
    const answers = await Promise.all([
      one.delete(`/racks/${rack.id}`),
      two.post(`/animals/${id}/records`, {
        kind: 'move',
        on: TODAY,
        body: { toTubId: tub, reason: 'cleaning' },
      }),
    ]);
    expect([
      [204, 422],
      [409, 201],
    ]).toContainEqual(answers.map(({ status }) => status));
  },

  'one file is brought in by two: its animals are there once': async ({ one, two }) => {
    const number = `I-${randomUUID().slice(0, 8)}`;
    const file = Buffer.from(`number,sex\n${number},male\n${number}b,female\n`);
    const answers = await Promise.all(
      [one, two].map((client) => client.upload('/imports', 'text/csv', file)),
    );
    expect(statuses(answers)).toEqual([201, 422]);
    const animals = bodyOf<AnimalSummary[]>(await one.get('/animals'));
    expect(animals.filter((animal) => animal.number.startsWith(number))).toHaveLength(2);
  },
};

/** A collection in which so many turns were played is left for a new one: each turn costs the same. */
const TURNS_PER_COLLECTION = 10;

/** @param times - how often each pair is tried */
export function raceTests(times: number): void {
  test.each(Object.keys(RACES))(
    '%s',
    async (name) => {
      for (let played = 0; played < times; played += TURNS_PER_COLLECTION) {
        const app = await startTestApp();
        try {
          const ground = { app, one: app.owner, two: await app.colleague() };
          const turns = Math.min(TURNS_PER_COLLECTION, times - played);
          for (let turn = 0; turn < turns; turn++) await RACES[name]!(ground, new Maker(ground.one));
        } finally {
          await app.close();
        }
      }
    },
    60_000 + times * 15_000,
  );
}
