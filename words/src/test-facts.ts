import type { Expected } from '@karyotome/core';
import { Reader } from './index.ts';

/* Facts that several tests of words are told from. */

export const metric = new Reader({ locale: 'en-GB', massUnit: 'g', temperatureUnit: 'C' });
export const imperial = new Reader({ locale: 'en-US', massUnit: 'oz', temperatureUnit: 'F' });

export const eggs: Expected = {
  what: 'eggs',
  from: '2026-05-14',
  middle: '2026-05-20',
  to: '2026-06-01',
  day: 36,
  later: 0.2,
  clutches: 2,
};
export const meal = {
  species: 'rat',
  size: 'pup',
  state: 'frozen-thawed',
  massG: 26,
  dueOn: '2026-05-14',
  everyDays: 7,
  basis: { massG: 208, weighedOn: '2026-05-01', share: 0.125 },
  notes: [],
  trying: null,
} as const;
export const reasons = [
  {
    side: 'for',
    code: 'over-step-mass',
    facts: { massG: 342, step: 'Hatchling tub', maxG: 300, nextStep: 'Yearling tub', nextMinG: 250 },
    records: [],
    weight: 2,
  },
] as const;
