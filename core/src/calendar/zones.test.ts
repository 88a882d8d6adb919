import fc from 'fast-check';
import { DateTime, FixedOffsetZone } from 'luxon';
import { describe, expect, test } from 'vitest';
import { addDays } from './days.ts';
import {
  clockIn,
  dayIn,
  hoursOf,
  isTimeZone,
  latestDayOnEarth,
  momentsOf,
  offsetAt,
  startOfDay,
} from './zones.ts';

/* Held against luxon, which reads the same database of zones in another way; changes of clocks against their laws. */

const ms = (text: string): number => Date.parse(text);
const ZONES = [
  'Pacific/Honolulu',
  'America/St_Johns',
  'America/New_York',
  'UTC',
  'Europe/Berlin',
  'Asia/Kolkata',
  'Asia/Kathmandu',
  'Australia/Lord_Howe',
  'Pacific/Chatham',
  'Pacific/Kiritimati',
];
const zone = fc.constantFrom(...ZONES);
const moment = fc.integer({ min: ms('1975-01-01T00:00:00Z'), max: ms('2037-12-31T00:00:00Z') });

describe('against luxon', () => {
  test('the day, the clock and the offset of any moment', () => {
    fc.assert(
      fc.property(zone, moment, (name, at) => {
        const other = DateTime.fromMillis(at, { zone: name });
        expect(dayIn(name, at)).toBe(other.toISODate());
        expect(clockIn(name, at)).toBe(other.toFormat('yyyy-MM-dd HH:mm'));
        expect(offsetAt(name, at)).toBe(other.offset * 60_000);
      }),
      { numRuns: 600 },
    );
  });

  test('when a day begins', () => {
    fc.assert(
      fc.property(zone, moment, (name, at) => {
        const day = dayIn(name, at);
        const other = DateTime.fromISO(day, { zone: name }).startOf('day').toMillis();
        const midnights = momentsOf(name, ms(`${day}T00:00:00Z`));
        // Where midnight is shown twice, luxon does not say which of them it takes.
        if (midnights.length > 1) expect(midnights).toContain(other);
        expect(startOfDay(name, day)).toBe(midnights.length > 1 ? midnights[0] : other);
      }),
      { numRuns: 300 },
    );
  });

  test('a day on which midnight is shown twice begins with the first', () => {
    // St. John's, until 2011: at 00:01 in October the clocks went back to 23:01 (IANA tz database, rule StJohns).
    expect(startOfDay('America/St_Johns', '2003-10-26')).toBe(ms('2003-10-26T02:30:00Z'));
    expect(clockIn('America/St_Johns', ms('2003-10-26T03:30:00Z'))).toBe('2003-10-26 00:00');
  });

  test('every moment at which a clock shows a time is found, and no other', () => {
    fc.assert(
      fc.property(zone, moment, (name, at) => {
        const second = Math.floor(at / 1000) * 1000;
        const wall = second + offsetAt(name, second);
        const found = momentsOf(name, wall);
        expect(found).toContain(second);
        for (const one of found)
          expect(DateTime.fromMillis(one, { zone: name }).toFormat('yyyy-MM-dd HH:mm:ss')).toBe(
            DateTime.fromMillis(wall, { zone: FixedOffsetZone.utcInstance }).toFormat('yyyy-MM-dd HH:mm:ss'),
          );
      }),
      { numRuns: 300 },
    );
  });
});

describe('days on which clocks change', () => {
  // Directive 2000/84/EC: at 01:00 UTC on the last Sunday of March and of October.
  test('in the European Union', () => {
    const twice = momentsOf('Europe/Berlin', ms('2026-10-25T02:30:00Z'));
    expect(twice).toEqual([ms('2026-10-25T00:30:00Z'), ms('2026-10-25T01:30:00Z')]);
    expect(momentsOf('Europe/Berlin', ms('2026-03-29T02:30:00Z'))).toEqual([]);
    expect([hoursOf('Europe/Berlin', '2026-03-29'), hoursOf('Europe/Berlin', '2026-10-25')]).toEqual([
      23, 25,
    ]);
  });

  // Energy Policy Act of 2005, section 110: at 02:00 on the second Sunday of March and the first of November.
  test('in the United States', () => {
    expect(momentsOf('America/New_York', ms('2026-11-01T01:30:00Z'))).toHaveLength(2);
    expect(momentsOf('America/New_York', ms('2026-03-08T02:30:00Z'))).toEqual([]);
    expect([hoursOf('America/New_York', '2026-03-08'), hoursOf('America/New_York', '2026-11-01')]).toEqual([
      23, 25,
    ]);
  });

  test('Lord Howe’s clocks move by half an hour, and Chile’s leave midnight out', () => {
    expect(hoursOf('Australia/Lord_Howe', '2026-10-04')).toBe(23.5);
    // From memory: America/Santiago went forward at midnight of 6 September 2026, so that day begins at 01:00.
    expect(clockIn('America/Santiago', startOfDay('America/Santiago', '2026-09-06'))).toBe(
      '2026-09-06 01:00',
    );
  });

  test('days go on from one to the next in every zone', () => {
    fc.assert(
      fc.property(zone, fc.integer({ min: 0, max: 9000 }), (name, n) => {
        const day = addDays('2010-01-01', n);
        const begin = startOfDay(name, day);
        expect(dayIn(name, begin)).toBe(day);
        expect(dayIn(name, begin - 1)).toBe(addDays(day, -1));
      }),
      { numRuns: 300 },
    );
  });
});

test('names of zones are told from what is none', () => {
  for (const name of [...ZONES, 'Etc/GMT-3', 'America/Argentina/Buenos_Aires'])
    expect(isTimeZone(name)).toBe(true);
  for (const name of [
    '',
    'Mars/Base',
    '+02:00',
    'constructor',
    'Europe/Berlin; drop',
    'a/b/c/d',
    'x'.repeat(80),
  ])
    expect(isTimeZone(name)).toBe(false);
});

test('no day of any farm lies beyond the latest on earth', () => {
  const now = ms('2026-11-28T10:30:00Z');
  expect(latestDayOnEarth(now)).toBe('2026-11-29');
  for (const name of ZONES) expect(dayIn(name, now) <= latestDayOnEarth(now)).toBe(true);
});
