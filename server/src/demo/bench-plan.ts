import type { OwnMarker } from '@karyotome/core';
import type { Founder, PlannedClutch } from './plan.ts';

/*
 * What waits on the bench: a pair with six genes between them, their young of last year, and this year's clutch, out of the
 * egg and through its first shed, in one box, with nobody looked at yet. Invented.
 */

export const BENCH_FOUNDERS: readonly Founder[] = [
  {
    number: 'F-12',
    name: 'Sorb',
    sex: 'female',
    genes: 'Pastel Enchi Yellow Belly 66% het Clown',
    truth: 'pastel enchi yb het clown',
    ageDays: 1740,
    adultG: 1980,
  },
  {
    number: 'M-06',
    name: 'Alder',
    sex: 'male',
    genes: 'Orange Dream Fire Clown',
    ageDays: 1610,
    adultG: 1040,
  },
];

/** Young of last year, to compare with. */
export const EARLIER: PlannedClutch = {
  id: 'm',
  dam: 'F-12',
  sires: [{ choice: 'M-06', weight: 1 }],
  pairedAgo: 520,
  laidAgo: 442,
  eggs: 6,
  slugs: 1,
  hatchedAgo: 384,
  hatched: 5,
  isIdentified: true,
  fates: ['held-back', 'sold', 'for-sale', 'sold', 'sold'],
};

/** This year's, waiting in its box. */
export const WAITING: PlannedClutch = {
  id: 'k',
  dam: 'F-12',
  sires: [{ choice: 'M-06', weight: 1 }],
  pairedAgo: 148,
  laidAgo: 70,
  eggs: 8,
  slugs: 0,
  hatchedAgo: 12,
  hatched: 8,
  isIdentified: false,
  fates: [],
};
export const FIRST_SHED_AGO = 3;

/** Places for what waits, and for the two that made it. */
export const BENCH_RACKS = [
  { name: 'Hatch 2', levels: 4, tubsPerLevel: 5, stepPosition: 0 },
  { name: 'Adult 3', levels: 2, tubsPerLevel: 2, stepPosition: 3 },
] as const;

/** Markers that the farm added, for genes of which the catalogue notes none. Invented, as all of the farm is. */
export const OWN_MARKERS: readonly OwnMarker[] = [
  { phenotype: 'puzzle', zone: 'back', text: 'pattern in broken pieces', pWith: 0.9, pWithout: 0.05 },
  { phenotype: 'puzzle', zone: 'flanks', text: 'pieces run into one another', pWith: 0.8, pWithout: 0.1 },
  { phenotype: 'mocha', zone: 'ground colour', text: 'milky brown', pWith: 0.85, pWithout: 0.1 },
  { phenotype: 'mocha', zone: 'flanks', text: 'pale between the marks', pWith: 0.75, pWithout: 0.15 },
];

/** Of first looks on the day of hatching, so many name a gene too many or miss one. */
export const FIRST_LOOK_SLIPS = 0.16;
