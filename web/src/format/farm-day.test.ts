import { afterEach, expect, test, vi } from 'vitest';
import {
  clocksDiffer,
  deviceZone,
  farmClock,
  farmDayOf,
  farmToday,
  setDaysAhead,
  setFarmZone,
} from './farm-day.ts';
import { momentWords } from './format.ts';

afterEach(() => {
  vi.useRealTimers();
  setFarmZone(deviceZone());
  setDaysAhead(0);
});

// One moment, by the calendars of farms from UTC-10 to UTC+14 (offsets from memory; none of these changes its clocks).
test.each([
  ['Pacific/Honolulu', '2026-11-28', '2026-11-28 00:30', '28 Nov 2026, 00:30'],
  ['UTC', '2026-11-28', '2026-11-28 10:30', '28 Nov 2026, 10:30'],
  ['Asia/Kolkata', '2026-11-28', '2026-11-28 16:00', '28 Nov 2026, 16:00'],
  ['Pacific/Kiritimati', '2026-11-29', '2026-11-29 00:30', '29 Nov 2026, 00:30'],
])('%s', (zone, day, clock, words) => {
  const at = '2026-11-28T10:30:00Z';
  vi.useFakeTimers({ toFake: ['Date'], now: Date.parse(at) });
  setFarmZone(zone);
  expect([farmToday(), farmDayOf(at), farmClock(at), momentWords(at)]).toEqual([day, day, clock, words]);
});

test('days are as far ahead as the server’s clock', () => {
  vi.useFakeTimers({ toFake: ['Date'], now: Date.parse('2026-11-29T12:00:00Z') });
  setFarmZone('UTC');
  setDaysAhead(365);
  expect(farmToday()).toBe('2027-11-29');
});

test('the device says where its clock shows another time than the farm’s', () => {
  setFarmZone(deviceZone());
  expect(clocksDiffer()).toBe(false);
  setFarmZone(deviceZone() === 'Pacific/Kiritimati' ? 'UTC' : 'Pacific/Kiritimati');
  expect(clocksDiffer()).toBe(true);
});
