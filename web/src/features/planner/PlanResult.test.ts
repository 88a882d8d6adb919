import type { Route, SimulationResult } from '@karyotome/core';
import { describe, expect, test } from 'vitest';
import { button, mounted } from '../../../test/mounted.ts';
import PlanResult from './PlanResult.vue';
import type { PlanRun } from './plan-runs.ts';

const route: Route = {
  roughYears: 6.2,
  steps: [
    {
      dam: { kind: 'owned', animalId: 'f' },
      sire: { kind: 'owned', animalId: 'm' },
      keep: { sex: 'female', phenotype: {}, label: 'Het Clown' },
      perEgg: 0.5,
      inbreeding: 0,
    },
    {
      dam: { kind: 'held-back', step: 0 },
      sire: { kind: 'owned', animalId: 'm' },
      keep: null,
      perEgg: 0.5,
      inbreeding: 0.25,
    },
  ],
};
const result: SimulationResult = {
  runs: 10_000,
  byYear: [0, 0.1, 0.36, 0.64, 0.8, 0.9, 0.95, 0.97, 0.98, 0.99].map((share) => ({
    share,
    se: Math.sqrt((share * (1 - share)) / 10_000),
  })),
  medianYear: 4,
  steps: [{ share: 0.98, medianYear: 1 }],
};
const plan = (run: Partial<PlanRun>) =>
  mounted(PlanResult, {
    run: { slot: 'A', route: null, progress: 0, result: null, cancel: null, ...run },
    nameOf: (id: string) => ({ f: 'F-07', m: 'M-05' })[id],
  });

describe('one of two plans', () => {
  test('empty, it says how to fill it', () => {
    expect(plan({}).text()).toContain('Choose a route below to play it here.');
  });

  test('while it is played it shows how far it is, and can be stopped', async () => {
    const wrapper = plan({ route, progress: 0.37 });
    expect(wrapper.text()).toContain('37% of 10,000 runs');
    await button(wrapper, 'Stop').trigger('click');
    expect(wrapper.emitted('clear')).toHaveLength(1);
  });

  test('played, it says when, how surely, and which steps hold it up', () => {
    const text = plan({ route, progress: 1, result }).text();
    for (const part of [
      'half of the runs by the end of year 4',
      '99% within 10 years',
      'Step 1 held back in 98% of the runs, half of them by year 1',
      'F-07 × M-05',
      'the Het Clown female of step 1 × M-05',
      'Inbreeding of the young: 25%',
      'about 6 years, roughly',
    ])
      expect(text).toContain(part);
  });
});
