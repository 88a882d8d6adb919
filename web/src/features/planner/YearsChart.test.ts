import { expect, test, vi } from 'vitest';
import { mounted } from '../../../test/mounted.ts';
import YearsChart from './YearsChart.vue';

// The drawing needs a canvas; what it says stands in the table.
vi.mock('vue-echarts', () => ({ default: { template: '<div />' }, THEME_KEY: 'theme' }));

test('the table has every year of each plan with its error: 1.96 standard errors of a binomial', () => {
  const result = {
    runs: 10_000,
    byYear: [0, 0.1, 0.36].map((share) => ({ share, se: Math.sqrt((share * (1 - share)) / 10_000) })),
    medianYear: null,
    steps: [],
  };
  const wrapper = mounted(YearsChart, {
    plans: [
      { name: 'Plan A', result },
      { name: 'Plan B', result },
    ],
  });
  const rows = wrapper.findAll('tbody tr').map((row) => row.findAll('td').map((cell) => cell.text()));
  expect(rows).toHaveLength(3);
  // sqrt(0.36 x 0.64 / 10,000) = 0.0048; times 1.96 is 0.9 percent.
  expect(rows[2]).toEqual(['36% ± 0.9%', '36% ± 0.9%']);
  expect(rows[0]![0]).toBe('0% ± 0%');
  expect(wrapper.findAll('thead th').map((cell) => cell.text())).toEqual([
    'By the end of year',
    'Plan A',
    'Plan B',
  ]);
});
