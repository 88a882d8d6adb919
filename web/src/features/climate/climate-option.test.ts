import { Reader } from '@karyotome/words';
import { expect, test } from 'vitest';
import { axisRange, climateOption } from './climate-option.ts';

const CELSIUS = new Reader({ locale: 'en-GB', massUnit: 'g', temperatureUnit: 'C' }).temperatureUnit;
const FAHRENHEIT = new Reader({ locale: 'en-US', massUnit: 'oz', temperatureUnit: 'F' }).temperatureUnit;
const colors = { ink: '#000', soft: '#888', line: '#a40', band: '#eee', paper: '#fff' };

test('the axis holds what is measured and what is allowed, with a margin', () => {
  const points = [
    { x: 1, celsius: 31.4 },
    { x: 2, celsius: 27.1 },
  ];
  expect(axisRange({ points, setC: 31.4, lowC: 30, highC: 32.5, xName: 'day' })).toEqual([26, 34]);
  expect(axisRange({ points, setC: null, xName: 'day' })).toEqual([26, 32]);
});

test('the band of what is allowed is drawn only where there are limits', () => {
  const series = (data: Parameters<typeof climateOption>[0]) =>
    (climateOption(data, colors, CELSIUS, String).series as Record<string, unknown>[])[0]!;
  const points = [{ x: 0, celsius: 31 }];
  expect(series({ points, setC: null, xName: 'time' })).not.toHaveProperty('markArea');
  const bounded = series({ points, setC: 31, lowC: 30, highC: 32, xName: 'time' });
  expect(bounded['markArea']).toMatchObject({ data: [[{ yAxis: 30 }, { yAxis: 32 }]] });
  expect(bounded['data']).toEqual([[0, 31]]);
});

test('humidity has a line and an axis of its own, where it was measured', () => {
  const option = climateOption(
    { points: [{ x: 0, celsius: 31, humidity: 90 }], setC: null, xName: 'time' },
    colors,
    CELSIUS,
    String,
  );
  expect((option.series as { name: string }[]).map(({ name }) => name)).toEqual(['Temperature', 'Humidity']);
  expect((option.yAxis as { show?: boolean }[])[1]).toMatchObject({ show: true, max: 100 });
});

test('a reader of Fahrenheit finds all of it in Fahrenheit', () => {
  const data = { points: [{ x: 0, celsius: 30 }], setC: 30, lowC: 25, highC: 35, xName: 'time' } as const;
  const option = climateOption(data, colors, FAHRENHEIT, String);
  // 25, 30 and 35 degrees Celsius are 77, 86 and 95 degrees Fahrenheit.
  expect((option.series as Record<string, unknown>[])[0]).toMatchObject({
    data: [[0, 86]],
    markLine: { data: [{ yAxis: 86 }] },
    markArea: { data: [[{ yAxis: 77 }, { yAxis: 95 }]] },
  });
  expect((option.yAxis as { min?: number; max?: number }[])[0]).toMatchObject({ min: 76, max: 96 });
});
