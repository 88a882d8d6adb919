import type { HistoryLine } from '@karyotome/contract';
import { expect, test } from 'vitest';
import { DEFAULT_LOCALE, Reader } from './reader.ts';
import { historyWords } from './history.ts';

const reader = new Reader({ locale: DEFAULT_LOCALE, massUnit: 'oz', temperatureUnit: 'F' });
const TUB = '11111111-1111-4111-8111-111111111111';
const PAIR = '22222222-2222-4222-8222-222222222222';
const line = (more: Partial<HistoryLine>): HistoryLine => ({
  id: '1',
  at: '2026-11-30T08:00:00Z',
  action: 'added',
  subject: 'animal',
  by: 'Ida',
  program: null,
  device: null,
  animal: null,
  clutch: null,
  rack: null,
  changes: [],
  names: { [TUB]: 'Grow 2-3' },
  ...more,
});
const told = (more: Partial<HistoryLine>) =>
  historyWords(line(more), reader, (at) => `at ${at.slice(11, 16)}`);

test('a record is told as everywhere else, in the reader’s units', () => {
  const changes = [
    { field: 'animal_id', becomes: PAIR },
    { field: 'body', becomes: { massG: 340 } },
    { field: 'kind', becomes: 'weight' },
    { field: 'on_day', becomes: '2026-11-30' },
  ];
  expect(told({ subject: 'record', changes })).toEqual({
    what: 'Weight added: 11.99 oz',
    changes: [{ field: 'day', was: '', becomes: '30 Nov 2026' }],
  });
});

test('a record tells what was null as well, which the history leaves out', () => {
  const of = (kind: string, body: object): string =>
    told({
      subject: 'record',
      changes: [
        { field: 'kind', becomes: kind },
        { field: 'body', becomes: body },
      ],
    }).what;
  expect(of('quarantine', { reason: 'new' })).toBe('Quarantine added: ended');
  expect(of('loan', { direction: 'in', partner: 'Oak Hollow' })).toBe(
    'Breeding loan added: on loan from Oak Hollow',
  );
  const ordered = { what: 'Drops', dose: '1 drop', orderedBy: 'Dr. Vold', everyDays: 1, timesADay: 1 };
  expect(of('treatment', { ...ordered, from: '2026-05-01' })).toContain('until it is ended');
});

test('fields have plain names; ids are told by what they stand for, or not at all', () => {
  const changes = [
    { field: 'tub_id', was: TUB },
    { field: 'clutch_id', becomes: PAIR },
    { field: 'warm_c', was: 31, becomes: 32 },
    { field: 'is_drawing', becomes: true },
    { field: 'voided_at', becomes: '2026-11-30T07:45:00Z' },
    { field: 'grants', was: ['view'], becomes: ['view', 'sell'] },
    { field: 'body', becomes: { minG: 100, inside: ['hide', 'water'] } },
  ];
  expect(told({ action: 'changed', changes })).toEqual({
    what: 'Animal changed',
    changes: [
      { field: 'tub', was: 'Grow 2-3', becomes: '' },
      { field: 'warm end', was: '87.8°F', becomes: '89.6°F' },
      { field: 'is a drawing', was: '', becomes: 'yes' },
      { field: 'voided', was: '', becomes: 'at 07:45' },
      { field: 'may', was: 'view', becomes: 'view, sell' },
      { field: 'body', was: '', becomes: 'from: 3.53 oz; inside: hide, water' },
    ],
  });
});

test('what somebody did with their account needs no subject', () => {
  expect(told({ action: 'sign-in-failed', subject: null })).toEqual({
    what: 'A sign-in failed',
    changes: [],
  });
});
