import { clockIn } from '@karyotome/core';
import { describe, expect, test } from 'vitest';
import { Refusal } from '../../refusal.ts';
import { readLogger } from './read-logger.ts';

/* Files as loggers write them: other words, marks and orders for the same thing. Nairobi is three hours ahead all year. */

const local = (moment: string): string => new Date(`${moment}+03:00`).toISOString();
const NOW = Date.parse('2026-11-28T12:00:00Z');
function readings(csv: string, timeZone = 'Africa/Nairobi') {
  const file = { bytes: new TextEncoder().encode(csv), timeZone, now: NOW };
  const { at, celsius, humidity } = readLogger(file, () => undefined);
  return Array.from(at, (ms, i) => ({
    at: new Date(ms).toISOString(),
    celsius: celsius[i]!,
    humidity: Number.isNaN(humidity[i]) ? null : humidity[i]!,
  }));
}
function problemsOf(csv: string, timeZone?: string): string[] {
  try {
    readings(csv, timeZone);
  } catch (error) {
    if (error instanceof Refusal) return error.errors.map(({ field, message }) => `${field}: ${message}`);
    throw error;
  }
  return [];
}

describe('columns', () => {
  test.each([
    ['time,temperature,humidity', 'plain'],
    ['Timestamp,Temp (°C),RH %', 'with units in brackets'],
    ['DATE_TIME,Celsius,Relative Humidity', 'with underscores'],
    ['"Date/Time","Temperature [°C]","Hum (%)"', 'in quotes'],
    ['no,Date & Time,T,rh', 'after a running number'],
  ])('%s: %s', (header) => {
    const first = header.startsWith('no') ? '1,' : '';
    expect(readings(`${header}\n${first}2026-05-14 21:30,31.4,91\n`)).toEqual([
      { at: local('2026-05-14T21:30:00'), celsius: 31.4, humidity: 91 },
    ]);
  });

  test('a day and a time of their own are put together', () => {
    expect(readings('Date,Time,Temp\n2026-05-14,21:30:15,31.4\n')).toEqual([
      { at: local('2026-05-14T21:30:15'), celsius: 31.4, humidity: null },
    ]);
  });

  test('without a time, a temperature or a row nothing can be read', () => {
    expect(problemsOf('a,b\n1,2\n')).toEqual(['file: has no column for the time: call it "time"']);
    expect(problemsOf('time,b\n1,2\n')).toEqual([
      'file: has no column for the temperature: call it "temperature"',
    ]);
    expect(problemsOf('time,temperature\n')).toEqual(['file: holds no readings']);
    expect(problemsOf('')).toEqual(['file: holds no readings']);
  });
});

describe('temperatures', () => {
  // By definition: (88.7 - 32) x 5/9 = 31.5 and (32 - 32) x 5/9 = 0.
  test('Fahrenheit is told by the column', () => {
    const [warm, ice] = readings('time,Temp °F\n2026-05-14 21:30,88.7\n2026-05-14 22:30,32\n');
    expect([warm!.celsius, ice!.celsius]).toEqual([31.5, 0]);
  });

  test('a decimal comma and units behind the number are read', () => {
    const read = readings('time;temperature;humidity\n2026-05-14 21:30;31,4 °C;91,5 %\n');
    expect(read).toMatchObject([{ celsius: 31.4, humidity: 91.5 }]);
  });

  test('what is no temperature, or beyond any incubator, is named by its line; all lines are', () => {
    expect(
      problemsOf(
        'time,temperature,humidity\n2026-05-14 21:30,warm,90\n2026-05-14 22:30,61,90\n2026-05-14 23:30,31,101\n',
      ),
    ).toEqual([
      'line 2: has no temperature between -10 and 60 °C',
      'line 3: has no temperature between -10 and 60 °C',
      'line 4: has a humidity beyond 0 to 100%',
    ]);
  });

  test('of many faults the first twenty are told', () => {
    const csv = `time,temperature\n${'2026-05-14 21:30,x\n'.repeat(40)}`;
    expect(problemsOf(csv)).toHaveLength(20);
  });
});

describe('times', () => {
  const read = (moment: string): string => readings(`time,temperature\n${moment},31\n`)[0]!.at;

  test.each([
    ['2026-05-14T21:30:00Z', '2026-05-14T21:30:00.000Z'],
    ['2026-05-14T21:30:00+02:00', '2026-05-14T19:30:00.000Z'],
    ['2026-05-14 21:30:00.250', local('2026-05-14T21:30:00')],
    ['2026/5/4 7:05', local('2026-05-04T07:05:00')],
    ['14.05.2026 21:30', local('2026-05-14T21:30:00')],
    ['2026-05-14 12:05 AM', local('2026-05-14T00:05:00')],
    ['2026-05-14 12:05 pm', local('2026-05-14T12:05:00')],
    ['2026-05-14 9:05 PM', local('2026-05-14T21:05:00')],
  ])('%s', (written, moment) => expect(read(written)).toBe(moment));

  test('days with slashes are read where one of them tells the order, and not guessed where none does', () => {
    const csv = (days: string[]): string =>
      `time,temperature\n${days.map((day) => `${day} 10:00,31\n`).join('')}`;
    expect(readings(csv(['03/04/2026', '25/04/2026'])).map(({ at }) => at)).toEqual([
      local('2026-04-03T10:00:00'),
      local('2026-04-25T10:00:00'),
    ]);
    expect(readings(csv(['03/04/2026', '03/25/2026'])).map(({ at }) => at)).toEqual([
      local('2026-03-04T10:00:00'),
      local('2026-03-25T10:00:00'),
    ]);
    expect(problemsOf(csv(['03/04/2026']))[0]).toContain('has a time that cannot be read');
  });

  // Clocks in the European Union go back at 01:00 UTC on the last Sunday of October (Directive 2000/84/EC): 25 October 2026.
  test('both hours that a clock shows twice are kept, in the order of the file', () => {
    const shown = ['02:00', '02:30', '02:00', '02:30', '03:00'];
    const csv = `time,temperature\n${shown.map((time) => `2026-10-25 ${time},31\n`).join('')}`;
    const moments = ['00:00', '00:30', '01:00', '01:30', '02:00'].map((time) => `2026-10-25T${time}:00.000Z`);
    expect(readings(csv, 'Europe/Berlin').map(({ at }) => at)).toEqual(moments);
    const [header, ...lines] = csv.trim().split('\n');
    const newestFirst = [header, ...lines.toReversed()].join('\n');
    expect(readings(newestFirst, 'Europe/Berlin').map(({ at }) => at)).toEqual(moments.toReversed());
  });

  // They go forward at 01:00 UTC on the last Sunday of March: 29 March 2026.
  test('an hour that no clock shows is read by one that was not set forward', () => {
    expect(readings('time,temperature\n2026-03-29 02:30,31\n', 'Europe/Berlin')[0]!.at).toBe(
      '2026-03-29T01:30:00.000Z',
    );
  });

  test.each(['Pacific/Honolulu', 'UTC', 'Asia/Kolkata', 'Pacific/Kiritimati'])(
    'the last hour of a logger in %s does not lie in the future, and the next day does',
    (zone) => {
      const shown = (ms: number): string => clockIn(zone, ms);
      const line = (ms: number): string => `time,temperature\n${shown(ms)},31\n`;
      expect(readings(line(NOW), zone)[0]!.at).toBe(new Date(NOW).toISOString());
      expect(problemsOf(line(NOW + 24 * 3_600_000), zone)[0]).toContain(`by the clocks of ${zone}`);
    },
  );

  test.each(['2026-02-30 10:00', '2026-13-01 10:00', '31.04.2026 10:00', 'yesterday', ''])(
    '"%s" is no moment, and no other is put in its place',
    (written) => {
      expect(problemsOf(`time,temperature\n${written},31\n`)[0]).toContain('has a time that cannot be read');
    },
  );
});
