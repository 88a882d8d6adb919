import type { PlannerView } from '@karyotome/contract';
import type { PlannedPair, Route } from '@karyotome/core';
import { describe, expect, test } from 'vitest';
import { chosenParent } from './planner-draft.ts';
import {
  kinWords,
  medianWords,
  namesOf,
  perEggWords,
  stepWords,
  tradeWords,
  yearsWords,
  youngWords,
} from './planner-words.ts';

const nameOf = namesOf({
  animals: [
    { id: 'f', number: 'F-07', name: 'Bramble' },
    { id: 'm', number: 'M-05', name: null },
  ],
} as PlannerView);

test('names are numbers with the name, where there is one', () => {
  expect([nameOf('f'), nameOf('m'), nameOf('gone')]).toEqual(['F-07 Bramble', 'M-05', 'an animal']);
  expect(namesOf(undefined)('f')).toBe('an animal');
});

test.each([
  [1 / 8, '1 in 8'],
  [1 / 2, '1 in 2'],
  [3 / 8, '37.5%'],
  [1, '100%'],
  [0, '0%'],
])('%f per egg is %s', (p, words) => expect(perEggWords(p)).toBe(words));

test.each([
  [null, 'not known'],
  [0, 'not related'],
  [0.125, '12.5%'],
])('kinship %s', (kinship, words) => expect(kinWords(kinship)).toBe(words));

test('years are as rough as they are known', () => {
  expect([1.2, 4.3, 15.4].map(yearsWords)).toEqual(['about a year', 'about 4.5 years', 'about 15 years']);
  expect([0.123, 1.94, 12.3].map(youngWords)).toEqual(['0.12', '1.9', '12']);
});

test('the median of a plan, or that it has none', () => {
  expect(medianWords({ medianYear: 5 }, 10)).toBe('half of the runs by the end of year 5');
  expect(medianWords({ medianYear: null }, 10)).toBe('fewer than half of the runs within 10 years');
});

describe('the steps of a route', () => {
  const route: Route = {
    roughYears: 6,
    steps: [
      {
        dam: { kind: 'owned', animalId: 'f' },
        sire: { kind: 'bought' },
        keep: { sex: 'male', phenotype: {}, label: 'Fire Het Clown' },
        perEgg: 0.25,
        inbreeding: 0,
      },
      {
        dam: { kind: 'owned', animalId: 'f' },
        sire: { kind: 'held-back', step: 0 },
        keep: null,
        perEgg: 0.125,
        inbreeding: 0.25,
      },
    ],
  };
  test('say who with whom, and what to hold back with which odds', () => {
    expect(stepWords(route.steps[0]!, route, nameOf)).toEqual({
      pair: 'F-07 Bramble × the bought animal',
      keep: 'Hold back a male Fire Het Clown: 1 in 4 per egg',
    });
    expect(stepWords(route.steps[1]!, route, nameOf)).toEqual({
      pair: 'F-07 Bramble × the Fire Het Clown male of step 1',
      keep: 'The target: 1 in 8 per egg',
    });
  });
});

describe('what was traded', () => {
  const pair = (traded: PlannedPair['traded']): PlannedPair => ({
    female: 'f',
    male: null,
    value: 0.5,
    inbreeding: 0,
    isFixed: false,
    traded,
  });
  const trade = { male: 'm', value: 2, insteadOf: [] };
  test.each([
    ['nothing', pair(null), ''],
    ['kin', pair({ ...trade, why: 'related' }), 'too closely related'],
    ['the keeper', pair({ ...trade, why: 'fixed' }), 'you fixed her'],
    ['no place', pair({ ...trade, why: 'load' }), 'he is fully booked'],
    ['another', pair({ ...trade, why: 'load', insteadOf: ['f'] }), 'he does more good with F-07 Bramble'],
  ])('%s', (_what, planned, words) => expect(tradeWords(planned, nameOf)).toContain(words));
});

test('a parent is asked about once it is chosen', () => {
  expect(chosenParent({ kind: 'owned', animalId: null, genes: 'clown' })).toBeNull();
  expect(chosenParent({ kind: 'owned', animalId: 'f', genes: '' })).toEqual({ kind: 'owned', animalId: 'f' });
  expect(chosenParent({ kind: 'typed', animalId: 'f', genes: '  ' })).toBeNull();
  expect(chosenParent({ kind: 'typed', animalId: null, genes: 'clown' })).toEqual({
    kind: 'typed',
    genes: 'clown',
  });
});
