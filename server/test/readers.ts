import { randomUUID } from 'node:crypto';
import type {
  Page,
  AnimalSummary,
  AnimalView,
  BenchView,
  ClutchView,
  ContradictionView,
  DoubtfulRecordView,
  SurpriseView,
  SuspectView,
  PairingView,
  RackView,
  RoundRack,
  RoundView,
  BoardFemale,
  BoardMale,
} from '@karyotome/contract';
import { addDays } from '@karyotome/core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { machineToday } from '../src/db/work.ts';
import { startTestApp, type TestApp, type TestClient } from './test-app.ts';
import { racksOf } from './wholes.ts';

/*
 * While several people write, every read answers, and shows one moment: an animal lives in one tub, a round and the racks
 * agree with themselves, sums add up, and every parent that is named is there.
 */

const TODAY = machineToday();
const ago = (days: number): string => addDays(TODAY, -days);

interface Ground {
  rack: string;
  readonly clutch: string;
  readonly animals: string[];
  readonly tubs: string[];
}

async function ground(owner: TestClient): Promise<Ground> {
  const created = async (path: string, body: object, headers = {}): Promise<never> => {
    const answer = await owner.post(path, body, headers);
    expect(answer.status, JSON.stringify(answer.body)).toBe(201);
    return answer.body as never;
  };
  const animal = async (sex: string, genes: string): Promise<string> =>
    (
      (await created('/animals', {
        number: `G-${randomUUID().slice(0, 8)}`,
        sex,
        genes,
        hatchedOn: ago(1500),
        massG: 1800,
      })) as { id: string }
    ).id;
  const [dam, sire, other] = [
    await animal('female', 'Pastel het Clown'),
    await animal('male', 'Enchi het Clown'),
    await animal('male', 'Spider'),
  ];
  const { pairingId } = (await created('/season/introductions', {
    damId: dam,
    sireId: sire,
    on: ago(120),
  })) as { pairingId: string };
  await created('/season/introductions', { damId: dam, sireId: other, on: ago(110) });
  const { id: clutch } = (await created('/clutches', { pairingId, laidOn: ago(75), eggs: 6, slugs: 0 })) as {
    id: string;
  };
  const { version } = (await owner.get(`/clutches/${clutch}`)).body as ClutchView;
  const { ids: young } = (await created(
    `/clutches/${clutch}/hatchlings`,
    { hatchedOn: ago(15), hatched: 6 },
    { 'If-Match': `"${version}"` },
  )) as { ids: string[] };
  const [ladder] = ((await owner.get('/ladders?limit=200')).body as Page<{ id: string }>).items;
  await created('/racks', {
    room: 'Room',
    name: 'Rack',
    levels: 4,
    tubsPerLevel: 5,
    ladderId: ladder!.id,
    stepPosition: 0,
  });
  const [rack] = await racksOf((path) => owner.get(path));
  return {
    clutch,
    animals: [dam, sire, other, ...young],
    rack: rack!.id,
    tubs: rack!.tubs.map(({ id }) => id),
  };
}

const GENES = ['Pastel', 'Enchi', 'Pastel Enchi', 'Normal', 'Spider', 'Clown'];

/** One write, drawn by its turn: what daily work and the bench do. */
function write(client: TestClient, { animals, tubs }: Ground, turn: number) {
  const animalId = animals[turn % animals.length]!;
  const record = (kind: string, body: object) =>
    client.post(`/animals/${animalId}/records`, { kind, on: TODAY, body });
  switch (turn % 6) {
    case 0:
      return record('identification', { genes: GENES[turn % GENES.length]!, sure: 'certain', by: 'Ida' });
    case 1:
      return record('move', { toTubId: tubs[(turn * 7) % tubs.length]!, reason: 'cleaning' });
    case 2:
      return record('weight', { massG: 60 + (turn % 100) });
    case 3:
      return record('feeding', {
        species: 'rat',
        size: 'pup',
        state: 'frozen-thawed',
        taken: turn % 2 === 0,
      });
    case 4:
      return client.post('/animals', {
        number: `W-${randomUUID().slice(0, 10)}`,
        sex: 'male',
        genes: 'Pastel',
      });
    default:
      return client.post('/rounds/entries', {
        entries: animals.slice(0, 4).map((id) => ({
          key: randomUUID(),
          animalId: id,
          record: { kind: 'care', on: TODAY, body: { act: 'cleaned' } },
        })),
      });
  }
}

const unique = (ids: readonly string[], what: string): void =>
  expect(new Set(ids).size, `${what} stand once`).toBe(ids.length);

/** A read, and what must hold of its answer whatever was written meanwhile. */
const READS: readonly (readonly [(ground: Ground) => string, (body: never, ground: Ground) => void])[] = [
  [
    () => '/animals?limit=200',
    ({ items: animals }: Page<AnimalSummary>) =>
      unique(
        animals.map(({ id }) => id),
        'animals',
      ),
  ],
  [
    ({ animals }) => `/animals/${animals[3]}`,
    (animal: AnimalView) => {
      const last = animal.records.find(({ kind, voided }) => kind === 'move' && !voided);
      expect(animal.tub?.tubId ?? null).toBe(last?.kind === 'move' ? last.body.toTubId : null);
      const weight = animal.records.find(({ kind, voided }) => kind === 'weight' && !voided);
      expect(animal.massG).toBe(weight?.kind === 'weight' ? weight.body.massG : null);
      const sires = animal.parents.filter(({ role }) => role === 'sire');
      expect(sires.reduce((sum, { p }) => sum + p, 0)).toBeCloseTo(1, 6);
    },
  ],
  [
    ({ clutch }) => `/clutches/${clutch}/bench`,
    (bench: BenchView) => {
      expect(bench.hatchlings).toHaveLength(6);
      expect(bench.clutch.identified).toBe(bench.hatchlings.filter(({ identified }) => identified).length);
      for (const { sires } of bench.hatchlings)
        expect(sires.reduce((sum, { p }) => sum + p, 0)).toBeCloseTo(1, 6);
    },
  ],
  [
    ({ rack }) => `/racks/${rack}`,
    ({ tubs }: RackView) =>
      unique(
        tubs.flatMap(({ animals }) => animals.map(({ id }) => id)),
        'occupants',
      ),
  ],
  [
    ({ rack }) => `/rounds/racks/${rack}`,
    ({ tubs }: RoundRack) =>
      unique(
        tubs.flatMap(({ animals }) => animals.map(({ id }) => id)),
        'stops',
      ),
  ],
  [
    () => '/rounds',
    ({ racks }: RoundView) =>
      unique(
        racks.map(({ id }) => id),
        'racks',
      ),
  ],
  [
    () => '/today',
    (today: { lines: { key: string }[] }) =>
      unique(
        today.lines.map(({ key }) => key),
        'lines',
      ),
  ],
  [
    () => '/season/females?limit=200',
    ({ items: females }: Page<BoardFemale>) => {
      for (const { pairing } of females)
        for (const sire of pairing?.sires ?? []) expect(sire.number).not.toBe('');
    },
  ],
  [
    () => '/season/males?limit=200',
    ({ items: males }: Page<BoardMale>) => {
      for (const male of males) if (male.with) expect(male.with.number).not.toBe('');
    },
  ],
  [() => '/season', () => undefined],
  [
    () => '/pairings',
    ({ items: pairings }: Page<PairingView>) => {
      for (const { sires, dam } of pairings) {
        expect(dam.label).not.toBe('');
        expect(sires.length).toBeGreaterThan(0);
      }
    },
  ],
  [() => '/suspects', ({ items }: Page<SuspectView>) => expect(Array.isArray(items)).toBe(true)],
  [
    () => '/doubtful-records',
    ({ items }: Page<DoubtfulRecordView>) => expect(Array.isArray(items)).toBe(true),
  ],
  [() => '/surprises', ({ items }: Page<SurpriseView>) => expect(Array.isArray(items)).toBe(true)],
  [
    () => '/contradictions',
    ({ items: list }: Page<ContradictionView>) => {
      for (const { animals, explanations } of list) {
        expect(animals.every(({ number }) => number !== '')).toBe(true);
        expect(explanations.every(({ share }) => share >= 0)).toBe(true);
      }
    },
  ],
  [() => '/calls', () => undefined],
  [
    ({ animals }) => `/animals/${animals[4]}/kin`,
    (nodes: { id: string }[]) =>
      unique(
        nodes.map(({ id }) => id),
        'kin',
      ),
  ],
  [() => '/feeding', () => undefined],
  [() => '/planner', () => undefined],
];

export function readingTests({ writers, reads }: { writers: number; reads: number }): void {
  let app: TestApp;
  beforeAll(async () => {
    app = await startTestApp();
  });
  afterAll(() => app.close());

  test(`${reads} reads of every kind beside ${writers} writers: each answers, and shows one moment`, async () => {
    const { owner } = app;
    const made = await ground(owner);
    const clients = [
      owner,
      ...(await Promise.all(Array.from({ length: writers - 1 }, () => app.colleague()))),
    ];
    let isOver = false;
    let written = 0;
    const refused: unknown[] = [];
    const writing = clients.map(async (client, w) => {
      for (let turn = w; !isOver; turn += writers) {
        const { status, body } = await write(client, made, turn);
        // Moved where it is already, is all that may be refused here.
        if (status >= 300 && status !== 422) refused.push({ status, body });
        written += 1;
      }
    });
    const failed: unknown[] = [];
    let next = 0;
    const reader = await app.colleague();
    try {
      await Promise.all(
        Array.from({ length: 6 }, async () => {
          while (next < reads) {
            const [path, holds] = READS[next++ % READS.length]!;
            const { status, body } = await reader.get(path(made));
            if (status !== 200) failed.push({ path: path(made), status, body });
            else holds(body as never, made);
          }
        }),
      );
    } finally {
      isOver = true;
      await Promise.all(writing);
    }
    expect(failed).toEqual([]);
    expect(refused).toEqual([]);
    expect(written).toBeGreaterThan(writers);
    expect(app.faults).toEqual([]);
  }, 300_000);
}
