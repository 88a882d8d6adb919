import { ROUTES, type WebhookEvent } from '@karyotome/contract';

/*
 * Examples of the API, one after the other as a program would go: shown in its description, and run as a test, so that what is
 * shown is what happens. Ids and moments stand for whatever a server gives.
 */

export interface ApiExample {
  readonly title: string;
  readonly route: keyof typeof ROUTES;
  readonly params?: Readonly<Record<string, string>>;
  readonly query?: Readonly<Record<string, string>>;
  readonly body?: object;
  readonly status: number;
  /** What the answer holds at least. Left out where there is none. */
  readonly answer?: object;
}

const ANIMAL = '7b0e3c52-6a0f-4f7e-9d1c-2f6a1f0b8d01';
const WEIGHT = '7b0e3c52-6a0f-4f7e-9d1c-2f6a1f0b8d02';
const MEAL = '7b0e3c52-6a0f-4f7e-9d1c-2f6a1f0b8d03';
const INCUBATOR = '7b0e3c52-6a0f-4f7e-9d1c-2f6a1f0b8d04';
const STATUS = '7b0e3c52-6a0f-4f7e-9d1c-2f6a1f0b8d05';

export const API_EXAMPLES: readonly ApiExample[] = [
  {
    title: 'Add an animal, as its seller described it',
    route: 'addAnimal',
    body: {
      number: 'F-21',
      name: 'Juniper',
      sex: 'female',
      hatchedOn: '2024-07-14',
      genes: 'Pastel 100% het Clown',
      massG: 1180,
      status: 'breeder',
    },
    status: 201,
    answer: { id: ANIMAL },
  },
  {
    title: 'Find it by its number',
    route: 'animals',
    query: { search: 'F-21', limit: '1' },
    status: 200,
    answer: {
      items: [
        {
          id: ANIMAL,
          number: 'F-21',
          name: 'Juniper',
          sex: 'female',
          hatchedOn: '2024-07-14',
          status: 'breeder',
          label: 'Pastel 100% het Clown',
          massG: 1180,
        },
      ],
      next: null,
      total: 1,
    },
  },
  {
    title: 'Record a weight, as a scale does',
    route: 'addRecord',
    params: { id: ANIMAL },
    body: { kind: 'weight', on: '2026-05-01', body: { massG: 1204 } },
    status: 201,
    answer: { id: WEIGHT, warnings: [] },
  },
  {
    title: 'Record a meal that was refused',
    route: 'addRecord',
    params: { id: ANIMAL },
    body: {
      kind: 'feeding',
      on: '2026-05-02',
      body: { species: 'rat', size: 'small', preyG: 80, state: 'frozen-thawed', taken: false },
      note: 'In shed',
    },
    status: 201,
    answer: { id: MEAL },
  },
  {
    title: 'A weight that cannot be: every broken rule is named by its field',
    route: 'addRecord',
    params: { id: ANIMAL },
    body: { kind: 'weight', on: '2023-01-01', body: { massG: 1204 } },
    status: 422,
    answer: {
      type: 'urn:karyotome:problem:invalid',
      status: 422,
      errors: [{ field: 'on', code: 'before-hatching' }],
    },
  },
  {
    title: 'Take the weight out of account again',
    route: 'voidRecord',
    params: { id: WEIGHT },
    body: { reason: 'Another snake was on the scale' },
    status: 204,
  },
  {
    title: 'Add an incubator',
    route: 'addIncubator',
    body: {
      name: 'Shelf',
      setC: 31.5,
      lowC: 30.5,
      highC: 32.5,
      lowHumidity: 80,
      silentAfterHours: 2,
      sensor: 'none',
    },
    status: 201,
    answer: { id: INCUBATOR },
  },
  {
    title: 'Push a reading, as a sensor does',
    route: 'addReading',
    params: { id: INCUBATOR },
    body: { at: '2026-05-02T06:00:00Z', celsius: 31.4, humidity: 92 },
    status: 201,
    answer: { at: '2026-05-02T06:00:00Z' },
  },
  {
    title: 'Offer the animal for sale',
    route: 'addStatusEvents',
    body: { animalIds: [ANIMAL], kind: 'offered', on: '2026-05-03' },
    status: 201,
    answer: { ids: [STATUS] },
  },
];

/** A message of each kind that a webhook is told, as it is sent. */
export const WEBHOOK_EXAMPLES: Readonly<
  Record<WebhookEvent, { readonly says: string; readonly body: object }>
> = {
  'record.added': {
    says: 'A record of an animal was added.',
    body: {
      type: 'record.added',
      timestamp: '2026-05-01T08:12:31.204Z',
      data: {
        animal: { id: ANIMAL, number: 'F-21' },
        recordId: WEIGHT,
        kind: 'weight',
        on: '2026-05-01',
        body: { massG: 1204 },
      },
    },
  },
  'claims.changed': {
    says: 'What an animal is said to be or carry changed, by its own records or those of its family.',
    body: {
      type: 'claims.changed',
      timestamp: '2026-05-01T08:20:00.000Z',
      data: {
        animal: { id: ANIMAL, number: 'F-21' },
        was: [{ label: '66% het Clown', kind: 'possible-carrier' }],
        becomes: [{ label: '100% het Clown', kind: 'sure-carrier' }],
      },
    },
  },
  'status.changed': {
    says: 'An animal was offered, reserved, sold, came back, or died.',
    body: {
      type: 'status.changed',
      timestamp: '2026-05-03T10:00:00.000Z',
      data: {
        animal: { id: ANIMAL, number: 'F-21' },
        kind: 'offered',
        on: '2026-05-03',
        before: 'breeder',
      },
    },
  },
};
