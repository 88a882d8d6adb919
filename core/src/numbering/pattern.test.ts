import { describe, expect, test } from 'vitest';
import { followingNumber, nextNumbers, parseSeasonNumber } from './pattern.ts';

const context = { season: 2026, clutch: 4, used: new Set<string>() };

// The schools and the example 2604-02: common practice, no source.
describe('numbers for a clutch', () => {
  test('season, clutch and hatchling make one number', () => {
    expect(nextNumbers({ ...context, pattern: 'season-clutch-hatchling' }, 2)).toEqual([
      '2604-01',
      '2604-02',
    ]);
  });

  test('a number is never given twice, even when its animal is gone', () => {
    const used = new Set(['2604-01', '2604-03']);
    expect(nextNumbers({ ...context, used, pattern: 'season-clutch-hatchling' }, 2)).toEqual([
      '2604-02',
      '2604-04',
    ]);
  });

  test('running numbers go on after the highest', () => {
    expect(
      nextNumbers({ ...context, used: new Set(['0007', 'Fern', '0142']), pattern: 'running' }, 2),
    ).toEqual(['0143', '0144']);
  });

  test('a number by hand goes on from the highest of its kind, as wide as they are', () => {
    expect(followingNumber(['F-09', 'F-11', 'M-40', 'F-1a'])).toBe('F-12');
    expect(followingNumber(['F-99'])).toBe('F-100');
    expect(followingNumber(['0041', '7'])).toBe('0042');
    expect(followingNumber(['Fern', 'F-2'])).toBe(null);
    expect(followingNumber([])).toBe(null);
  });

  test('free text is left to the person', () => {
    expect(nextNumbers({ ...context, pattern: 'free' }, 3)).toEqual([]);
  });

  test('a number explains itself', () => {
    expect(parseSeasonNumber('2604-02')).toEqual({ season: 2026, clutch: 4, hatchling: 2 });
    expect(parseSeasonNumber('26112-02')).toEqual({ season: 2026, clutch: 112, hatchling: 2 });
    expect(parseSeasonNumber('Juniper')).toBeNull();
  });
});
