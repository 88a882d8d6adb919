import type { RoomKindForecast } from '@karyotome/core';
import { expect, test } from 'vitest';
import { roomOption } from './room-option.ts';

const COLORS = { ink: '#000', soft: '#777', line: '#1', accent: '#2', band: '#3', paper: '#fff' };
const kind: RoomKindForecast = {
  key: 'k',
  name: 'Hatchling tub',
  places: 20,
  weeks: [
    { low: 10, mid: 12, high: 15, mean: 12, over: 0 },
    { low: 14, mid: 19, high: 26, mean: 19.4, over: 0.3 },
  ],
  tipsOver: null,
  risky: 1,
  missing: 5,
};

test('the band lies on its lower end, the places there are cross it', () => {
  const option = roomOption(kind, ['1 Jan', '8 Jan'], COLORS);
  const series = option.series as {
    name: string;
    data: number[];
    markLine?: { data: { yAxis: number }[] };
  }[];
  expect(series.map(({ data }) => data)).toEqual([
    [10, 14],
    [5, 12],
    [12, 19],
  ]);
  expect(series[2]!.markLine!.data[0]!.yAxis).toBe(20);
  expect((option.yAxis as { max: number }).max).toBeGreaterThan(26);
});

test('a week says its middle, its band, and how often the places do not suffice', () => {
  const { tooltip } = roomOption(kind, ['1 Jan', '8 Jan'], COLORS) as {
    tooltip: { formatter: (p: unknown) => string };
  };
  expect(tooltip.formatter([{ dataIndex: 1 }])).toBe('8 Jan\n19 places, 14 to 26\ntoo few in 30% of runs');
});
