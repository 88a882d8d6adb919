import { describe, expect, test } from 'vitest';
import { parseGenes } from '../../notation/parse.ts';
import { parseParent } from '../../odds/parent.ts';
import { toTarget, type Target } from '../../odds/target.ts';
import type { Fertility } from '../chances.ts';
import { findRoutes, missingAlleles, type RouteQuestion } from './find-routes.ts';
import { ROUTE_TERMS, type Route, type RouteAnimal } from './route.ts';
import { RouteSimulation, type SimulationInput } from './simulate.ts';

const animal = (id: string, sex: 'female' | 'male', genes: string, readyIn = 0): RouteAnimal => ({
  id,
  sex,
  parent: parseParent(genes, sex).parent,
  readyIn,
});
const target = (text: string): Target => toTarget(parseGenes(text));
const six: Fertility = { size: { first: 6, odds: [1] }, hatch: 1 };
const question = (
  wanted: string,
  animals: RouteAnimal[],
  more: Partial<RouteQuestion> = {},
): RouteQuestion => ({
  target: target(wanted),
  animals,
  bought: null,
  kinship: (a, b) => (a === b ? 0.5 : 0),
  inbreedingBound: 0.25,
  fertility: six,
  terms: ROUTE_TERMS,
  ...more,
});

describe('finding routes', () => {
  test('a pair that can give it at once is the first route, in one step', () => {
    const [first] = findRoutes(
      question('clown', [animal('f', 'female', 'het clown'), animal('m', 'male', 'clown')]),
    );
    expect(first!.steps).toHaveLength(1);
    expect(first!.steps[0]).toMatchObject({ keep: null, perEgg: 0.5 });
  });

  test('visual times normal: hold back carriers, then pair them with one another or with him', () => {
    const routes = findRoutes(
      question('clown', [animal('f', 'female', 'normal'), animal('m', 'male', 'clown')]),
    );
    expect(routes.length).toBeGreaterThan(0);
    // Back to the father: a daughter held back (half of all eggs), then half of hers are visual; inbreeding 1/4.
    const back = routes.find(({ steps }) => steps.at(-1)!.sire.kind === 'owned')!;
    expect(back.steps[0]).toMatchObject({ perEgg: 0.5, keep: { sex: 'female', label: 'Het Clown' } });
    expect(back.steps.at(-1)).toMatchObject({ perEgg: 0.5, inbreeding: 0.25 });
  });

  test('the bound on relatedness closes the way back to a parent', () => {
    const routes = findRoutes(
      question('clown', [animal('f', 'female', 'normal'), animal('m', 'male', 'clown')], {
        inbreedingBound: 0.125,
      }),
    );
    expect(routes).toEqual([]);
  });

  test('two recessive genes from two animals: over double carriers, a sixteenth in the last clutch', () => {
    const routes = findRoutes(
      question('clown pied', [
        animal('f', 'female', 'pied'),
        animal('m', 'male', 'clown'),
        animal('f2', 'female', 'pied'),
        animal('m2', 'male', 'clown'),
      ]),
    );
    const sixteenth = routes.find(({ steps }) => Math.abs(steps.at(-1)!.perEgg - 1 / 16) < 1e-12)!;
    expect(sixteenth.steps[0]!.keep!.label).toBe('Het Clown Het Pied');
  });

  test('with a gene nobody has there is no route, until an animal may be bought', () => {
    const animals = [animal('f', 'female', 'normal'), animal('m', 'male', 'clown')];
    expect(findRoutes(question('clown pastel', animals))).toEqual([]);
    expect(missingAlleles(target('clown pastel'), animals)).toEqual(['pastel']);
    const routes = findRoutes(
      question('clown pastel', animals, {
        bought: { sex: 'female', parent: parseParent('pastel het clown', 'female').parent },
      }),
    );
    expect(routes[0]!.steps[0]!.dam).toEqual({ kind: 'bought' });
    expect(routes[0]!.steps[0]!.perEgg).toBeCloseTo(0.25, 12);
  });

  test('a sex-linked gene is held back in the sex that can hand it on as wanted', () => {
    const routes = findRoutes(
      question('banana', [animal('f', 'female', 'normal'), animal('m', 'male', 'male-maker banana')]),
    );
    expect(routes[0]!.steps[0]!.perEgg).toBeCloseTo(0.5, 12);
  });
});

describe('playing a route', () => {
  const play = (
    input: Partial<SimulationInput> & Pick<SimulationInput, 'route' | 'target' | 'animals'>,
    runs: number,
  ) => {
    const simulation = new RouteSimulation({
      bought: null,
      fertilityOf: () => six,
      terms: { ...ROUTE_TERMS, missedSeason: 0 },
      holdBack: 2,
      years: 10,
      seed: 5,
      ...input,
    });
    simulation.play(runs);
    return simulation.result();
  };
  const direct = (dam: string, sire: string): Route => ({
    steps: [
      {
        dam: { kind: 'owned', animalId: dam },
        sire: { kind: 'owned', animalId: sire },
        keep: null,
        perEgg: 0,
        inbreeding: 0,
      },
    ],
    roughYears: 0,
  });
  const near = (seen: { share: number; se: number }, exact: number): void => {
    expect(Math.abs(seen.share - exact)).toBeLessThan(4.5 * Math.max(seen.se, 1e-3));
  };

  test('one pair with known genes waits as the geometric distribution says', () => {
    const { byYear } = play(
      {
        route: direct('f', 'm'),
        target: target('clown pied'),
        animals: [animal('f', 'female', 'het clown het pied'), animal('m', 'male', 'het clown het pied')],
      },
      20_000,
    );
    const none = (15 / 16) ** 6;
    for (const [year, seen] of byYear.entries()) near(seen, 1 - none ** (year + 1));
  });

  test('missed seasons, eggs that do not hatch and an uncertain parent are as exact as by formula', () => {
    const missed = 0.25;
    const { byYear } = play(
      {
        route: direct('f', 'm'),
        target: target('clown'),
        animals: [animal('f', 'female', '66% het clown'), animal('m', 'male', 'clown')],
        terms: { ...ROUTE_TERMS, missedSeason: missed },
        fertilityOf: () => ({ ...six, hatch: 0.8 }),
      },
      20_000,
    );
    const hit = (1 - missed) * (1 - 0.6 ** 6);
    for (const [year, seen] of byYear.entries()) near(seen, (2 / 3) * (1 - (1 - hit) ** (year + 1)));
  });

  test('sex linkage: a male-maker gives the gene to sons, crossovers aside', () => {
    const input = {
      route: direct('f', 'm'),
      target: target('banana'),
      animals: [animal('f', 'female', 'normal'), animal('m', 'male', 'male-maker banana')],
      fertilityOf: () => ({ size: { first: 1, odds: [1] }, hatch: 1 }),
      years: 1,
    };
    near(play(input, 40_000).byYear[0]!, 0.5);
  });

  test('two steps: the first year is the year the held back daughter is grown', () => {
    const animals = [animal('f', 'female', 'normal'), animal('m', 'male', 'clown')];
    const route = findRoutes(question('clown', animals)).find(
      ({ steps }) => steps.length === 2 && steps[1]!.sire.kind === 'owned',
    )!;
    const terms = { growth: { female: { from: 3, to: 3 }, male: { from: 1, to: 1 } }, missedSeason: 0 };
    const { byYear, steps } = play({ route, target: target('clown'), animals, terms, holdBack: 1 }, 20_000);
    expect(byYear.slice(0, 3).every(({ share }) => share === 0)).toBe(true);
    const daughter = 1 - 0.5 ** 6;
    const clown = 1 - 0.5 ** 6;
    near(byYear[3]!, daughter * clown);
    expect(steps[0]!.medianYear).toBe(1);
    expect(steps[0]!.share).toBeGreaterThan(0.999);
  });

  test('may be played in pieces, and the same seed plays the same', () => {
    const input = {
      route: direct('f', 'm'),
      target: target('clown'),
      animals: [animal('f', 'female', 'het clown'), animal('m', 'male', 'het clown')],
    };
    const whole = play(input, 400);
    const pieces = new RouteSimulation({
      ...input,
      bought: null,
      fertilityOf: () => six,
      terms: { ...ROUTE_TERMS, missedSeason: 0 },
      holdBack: 2,
      years: 10,
      seed: 5,
    });
    for (let i = 0; i < 4; i++) pieces.play(100);
    expect(pieces.result()).toEqual(whole);
  });
});
