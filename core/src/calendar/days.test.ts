import { describe, expect, test } from 'vitest';
import { addDays, daysBetween, isIsoDay } from './days.ts';

// The Gregorian leap rule: ISO 8601, 3.2.1; the day count checked by hand.
describe('days', () => {
  test('exist or do not', () => {
    expect(isIsoDay('2024-02-29')).toBe(true);
    expect(isIsoDay('2100-02-29')).toBe(false);
    expect(isIsoDay('2000-02-29')).toBe(true);
    expect(isIsoDay('2026-13-01')).toBe(false);
    expect(isIsoDay('2026-1-1')).toBe(false);
    expect(isIsoDay('')).toBe(false);
  });

  test('are counted over month, year and leap day', () => {
    expect(daysBetween('2024-02-28', '2024-03-01')).toBe(2);
    expect(daysBetween('2023-02-28', '2023-03-01')).toBe(1);
    expect(daysBetween('2025-12-31', '2026-01-01')).toBe(1);
    expect(daysBetween('2026-01-01', '2025-12-31')).toBe(-1);
    expect(daysBetween('2000-01-01', '2100-01-01')).toBe(36_525);
  });

  test('are added and taken away', () => {
    expect(addDays('2026-03-28', 3)).toBe('2026-03-31');
    expect(addDays('2026-03-01', -1)).toBe('2026-02-28');
    expect(addDays('2025-12-31', 60)).toBe('2026-03-01');
  });
});
