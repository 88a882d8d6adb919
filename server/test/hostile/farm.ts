import type { Page } from '@karyotome/contract';
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import type { Known } from './generate.ts';
import { racksOf } from '../wholes.ts';

/** Asks a running application, signed in. */
export interface Asker {
  (
    method: string,
    path: string,
    body?: unknown,
    headers?: Record<string, string>,
  ): Promise<{
    status: number;
    body: unknown;
  }>;
}

/** What a small collection holds, by the field that names it. */
export interface Farm {
  readonly known: Known;
  /** What stands for each parameter of an address. */
  readonly params: Readonly<Record<string, readonly string[]>>;
}

/** An incubator without a sensor. */
export const aRoom = (name: string) => ({
  name,
  lowC: 30,
  highC: 33,
  lowHumidity: null,
  silentAfterHours: null,
  sensor: 'none',
});
export const anIncubator = (name: string) => ({ ...aRoom(name), setC: 31.4 });

const TREATMENT = {
  what: 'drops',
  dose: '1 drop',
  orderedBy: 'Ida',
  everyDays: 1,
  timesADay: 1,
  doses: null,
};

/** Fills a collection with a little of everything, over the interface that everybody uses. */
export async function buildFarm(ask: Asker, today: string): Promise<Farm> {
  const ago = (days: number): string =>
    new Date(Date.parse(`${today}T00:00:00Z`) - days * 86_400_000).toISOString().slice(0, 10);
  const make = async (method: string, path: string, body: unknown, headers = {}): Promise<never> => {
    const answer = await ask(method, path, body, headers);
    if (answer.status >= 300) throw new Error(`${path}: ${answer.status} ${JSON.stringify(answer.body)}`);
    return answer.body as never;
  };
  const idOf = async (path: string, body: unknown): Promise<string> =>
    ((await make('POST', path, body)) as { id: string }).id;

  const ladders = ((await ask('GET', '/ladders?limit=200')).body as Page<{ id: string }>).items;
  const rackId = await idOf('/racks', {
    room: 'Room',
    name: `Rack ${randomUUID().slice(0, 4)}`,
    levels: 4,
    tubsPerLevel: 5,
    ladderId: ladders[0]!.id,
    stepPosition: 0,
  });
  const racks = await racksOf((path) => ask('GET', path));
  const tubIds = racks.flatMap(({ tubs }) => tubs.map(({ id }) => id));
  const stem = randomUUID().slice(0, 6);
  const animal = (number: string, sex: string, genes: string): Promise<string> =>
    idOf('/animals', { number: `${stem}-${number}`, sex, genes, hatchedOn: ago(1500), massG: 1700 });
  const dams = [await animal('F1', 'female', 'Clown Pastel'), await animal('F2', 'female', 'het Clown')];
  const sires = [await animal('M1', 'male', 'het Clown Enchi'), await animal('M2', 'male', 'Spider')];
  const { pairingId } = (await make('POST', '/season/introductions', {
    damId: dams[0],
    sireId: sires[0],
    on: ago(120),
  })) as { pairingId: string };
  const lockId = await idOf(`/pairings/${pairingId}/events`, {
    kind: 'lock',
    on: ago(118),
    sireId: sires[0],
  });
  await make('POST', '/season/introductions', { damId: dams[1], sireId: sires[1], on: ago(20) });
  const incubatorId = await idOf('/incubators', anIncubator(`Box ${stem}`));
  const roomId = await idOf('/rooms', aRoom(`Room ${stem}`));
  const clutchId = await idOf('/clutches', { pairingId, laidOn: ago(75), eggs: 5, slugs: 0, incubatorId });
  const box = (await ask('GET', `/clutches/${clutchId}`)).body as { eggs: { id: string }[]; version: number };
  const { ids: eggEventIds } = (await make('POST', `/clutches/${clutchId}/egg-events`, {
    kind: 'check',
    on: ago(60),
    eggIds: null,
  })) as { ids: string[] };
  const { ids: young } = (await make(
    'POST',
    `/clutches/${clutchId}/hatchlings`,
    { hatchedOn: ago(15), hatched: 4 },
    { 'If-Match': `"${box.version}"` },
  )) as { ids: string[] };
  const recordIds: string[] = [];
  for (const id of young) {
    recordIds.push(
      await idOf(`/animals/${id}/records`, { kind: 'weight', on: ago(10), body: { massG: 70 } }),
    );
    recordIds.push(
      await idOf(`/animals/${id}/records`, {
        kind: 'identification',
        on: ago(7),
        body: { genes: 'Pastel', sure: 'certain', by: 'Ida' },
      }),
    );
  }
  const png = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#765' } })
    .png()
    .toBuffer();
  const pictureId = (
    (await make('POST', `/animals/${young[0]}/pictures`, png, { 'Content-Type': 'image/png' })) as {
      id: string;
    }
  ).id;
  const link = (await make('POST', `/clutches/${clutchId}/opinion-links`, { animalIds: [young[0]] })) as {
    id: string;
    path: string;
  };
  const { slug } = (await make('PUT', `/animals/${dams[0]}/publication`, { text: 'Words' })) as {
    slug: string;
  };
  const feed = (await make('POST', '/calendar-feeds', { name: 'Phone' })) as { id: string; path: string };
  const sheetId = await idOf('/labels', {
    animalIds: young.slice(0, 2),
    kind: 'numbers',
    size: 'roll-50x25',
  });
  const cardId = await idOf(`/clutches/${clutchId}/cards`, {});
  const zoneId = await idOf('/heat-zones', {
    rackId,
    name: 'Left',
    warmC: 32,
    coolC: 27,
    thermostat: true,
    everyDays: 7,
  });
  const checkId = await idOf(`/heat-zones/${zoneId}/checks`, {
    on: ago(2),
    warmC: 32,
    coolC: 27,
    probeFixed: true,
  });
  const stockId = await idOf('/stock', { prey: 'rat pup', kind: 'receipt', quantity: 50, on: ago(3) });
  const opinionId = await idOf(`/animals/${young[0]}/opinions`, {
    by: 'Odo',
    genes: 'Pastel',
    sure: 'possible',
  });
  const entryId = await idOf('/catalogue/entries', { kind: 'alias', word: `Own ${stem}`, genes: 'Pastel' });
  const listId = await idOf('/animal-lists', { name: `List ${stem}`, words: 'female, over 1200 g' });
  const projectId = await idOf('/projects', { name: `Project ${stem}`, targets: ['Clown'] });
  const memberId = await idOf(`/projects/${projectId}/animals`, { animalId: dams[0], reason: 'Calm' });
  const plannedId = await idOf(`/projects/${projectId}/pairings`, {
    season: 2027,
    damId: dams[0],
    sireId: sires[0],
  });
  const courseId = await idOf(`/animals/${young[0]}/records`, {
    kind: 'treatment',
    on: ago(5),
    body: { ...TREATMENT, from: ago(5) },
  });
  const animalIds = [...dams, ...sires, ...young];
  return {
    known: {
      animalId: animalIds,
      damId: dams,
      sireId: sires,
      pairingId: [pairingId],
      clutchId: [clutchId],
      eggId: box.eggs.map(({ id }) => id),
      tubId: tubIds,
      toTubId: tubIds,
      rackId: [rackId],
      ladderId: ladders.map(({ id }) => id),
      incubatorId: [incubatorId],
      courseId: [courseId],
      id: [...recordIds, ...eggEventIds],
    },
    params: {
      '/animals/:id': animalIds,
      '/animal-lists/:id': [listId],
      '/projects/:id': [projectId],
      '/project-animals/:id': [memberId],
      '/planned-pairings/:id': [plannedId],
      '/records/:id': recordIds,
      '/pairings/:id': [pairingId],
      '/pairing-events/:id': [lockId],
      '/clutches/:id': [clutchId],
      '/incubators/:id': [incubatorId],
      '/rooms/:id': [roomId],
      '/racks/:id': [rackId],
      '/ladders/:id': ladders.map(({ id }) => id),
      '/heat-zones/:id': [zoneId],
      '/surface-checks/:id': [checkId],
      '/stock/:id': [stockId],
      '/opinions/:id': [opinionId],
      '/opinion-links/:id': [link.id],
      '/opinion-links/:token': [link.path.split('/').at(-1)!],
      '/calendar-feeds/:id': [feed.id],
      '/calendar/:file': [feed.path.split('/').at(-1)!],
      '/public/:slug': [slug],
      '/pictures/:id': [pictureId],
      '/labels/:id': [sheetId],
      '/clutch-cards/:id': [cardId],
      '/catalogue/entries/:id': [entryId],
      '/feeding/plans/:key': ['frozen-first', 'live-pinkies'],
      '/jobs/:id': [randomUUID()],
    },
  };
}
