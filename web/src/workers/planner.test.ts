import type { PlannerView } from '@karyotome/contract';
import { SEASON_RULES } from '@karyotome/core';
import { describe, expect, test } from 'vitest';
import { plannerAnimal } from '../../test/planner-view.ts';
import { Planner } from './planner.ts';

/* The arithmetic itself is checked in the core; here, that the collection reaches it whole. */

/** Kinships of three: the second is a half sibling of the first (1/8), the third is unrelated; itself 1/2 each. */
const view: PlannerView = {
  season: 2027,
  rules: SEASON_RULES,
  leftOut: 0,
  entries: [],
  animals: [
    plannerAnimal('F', 'female', 'pastel het clown'),
    plannerAnimal('M', 'male', 'clown'),
    plannerAnimal('N', 'male', 'pied', {
      notReady: [{ code: 'in-shed', facts: {}, side: 'against', records: [] }],
    }),
  ],
  hatch: { share: 1, eggs: 0 },
  kinship: [0.5, 0.125, 0.5, 0, 0, 0.5],
};
const planner = new Planner(view);
const owned = (animalId: string) => ({ kind: 'owned', animalId }) as const;

describe('one pair', () => {
  test('of the collection: her own clutches, their kinship, and the target by exact odds', () => {
    const answer = planner.pair({ ask: 'pair', dam: owned('F'), sire: owned('M'), target: 'pastel clown' });
    expect(answer.inbreeding).toBe(0.125);
    expect(answer.size).toMatchObject({ mean: 6, clutches: 3 });
    expect(answer.target!.perEgg).toBeCloseTo(0.25, 12);
    // Six eggs: 1 - (3/4)^6, by hand.
    expect(answer.target!.inClutch).toBeCloseTo(1 - 0.75 ** 6, 12);
    expect(answer.target!.expectedClutches).toBeCloseTo(1 / (1 - 0.75 ** 6), 9);
  });

  test('typed genes: what is not understood is named, and kinship is not known', () => {
    const answer = planner.pair({
      ask: 'pair',
      dam: { kind: 'typed', genes: 'clwn' },
      sire: owned('M'),
      target: '',
    });
    expect(answer.unknown.map(({ word }) => word)).toEqual(['clwn']);
    expect(answer).toMatchObject({ inbreeding: null, target: null, size: { clutches: 0 } });
  });

  test('two of a gene that troubles its young: the caution is part of the answer', () => {
    const spider = { kind: 'typed', genes: 'spider' } as const;
    expect(
      planner.pair({ ask: 'pair', dam: spider, sire: spider, target: '' }).cautions.length,
    ).toBeGreaterThan(0);
  });
});

test('best mates: only pairs that can give it, with the reasons against them', () => {
  expect(planner.mates({ ask: 'mates', target: 'clown' })).toMatchObject([
    { dam: 'F', sire: 'M', perEgg: 0.5, inbreeding: 0.125, against: [], freeLoad: 1 },
  ]);
  expect(planner.mates({ ask: 'mates', target: 'het pied' })[0]!.against).toMatchObject([
    { code: 'sire-not-ready', facts: { reason: { code: 'in-shed' } } },
  ]);
  expect(planner.mates({ ask: 'mates', target: '' })).toEqual([]);
});

describe('routes', () => {
  test('a gene that nobody carries is named; bought, it opens a way that can be played', () => {
    expect(planner.routes({ ask: 'routes', target: 'axanthic a', bought: null }).missing).toHaveLength(1);
    const bought = { sex: 'male', genes: 'Axanthic A' } as const;
    const { routes, missing } = planner.routes({ ask: 'routes', target: 'het axanthic a', bought });
    expect(missing).toEqual([]);
    const simulation = planner.simulation({
      ask: 'simulate',
      target: 'het axanthic a',
      bought,
      route: routes[0]!,
      holdBack: 2,
      years: 3,
      runs: 0,
      seed: 1,
    });
    simulation.play(400);
    // She skips one season in four; every egg of the others carries it: 3/4 by the first year, within four standard errors.
    const [first] = simulation.result().byYear;
    expect(Math.abs(first!.share - 0.75)).toBeLessThan(4 * first!.se);
  });
});

test('the season: a male that is not ready stands only where the keeper put him', () => {
  const question = {
    ask: 'season' as const,
    targets: [
      { genes: 'clown', worth: 1 },
      { genes: '', worth: 9 },
    ],
    females: ['F'],
    inbreedingBound: 0.125,
  };
  // Six eggs, half of them clown: three young.
  expect(planner.season({ ...question, fixed: [] })).toMatchObject([{ male: 'M', value: 3, isFixed: false }]);
  expect(planner.season({ ...question, fixed: [['F', 'N']] })).toMatchObject([
    { male: 'N', value: 0, isFixed: true, traded: { male: 'M', value: 3, why: 'fixed' } },
  ]);
  expect(planner.season({ ...question, fixed: [], inbreedingBound: 0.1 })).toMatchObject([
    { male: null, traded: { male: 'M', why: 'related' } },
  ]);
});
