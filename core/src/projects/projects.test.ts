import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { parseGenes } from '../notation/parse.ts';
import { parseParent } from '../odds/parent.ts';
import { chanceOfTarget, hatchedScenarios, toTarget } from '../odds/target.ts';
import { ROUTE_TERMS, type Route, type RouteStep } from '../planner/routes/route.ts';
import { luckOf, type LuckPair } from './luck.ts';
import { remainingRoute } from './remaining-route.ts';
import { routePlaces } from './route-places.ts';
import { sharedAnimals } from './shared-animals.ts';

const pair = (p: number, young: number, hits: number): LuckPair => ({
  scenarios: [{ weight: 1, p }],
  young,
  hits,
});

describe('luck', () => {
  test('of one pair is the binomial distribution', () => {
    // Cumulative binomial table, n = 8, p = 0.25 (any textbook's): 0.1001, 0.3671, 0.6785 for 0, 1, 2.
    expect(luckOf([pair(0.25, 8, 0)]).atMost).toBeCloseTo(0.1001, 4);
    expect(luckOf([pair(0.25, 8, 1)]).atMost).toBeCloseTo(0.3671, 4);
    expect(luckOf([pair(0.25, 8, 2)]).atMost).toBeCloseTo(0.6785, 4);
    expect(luckOf([pair(0.25, 8, 2)]).expected).toBeCloseTo(2, 12);
  });

  test('pairs with the same odds are one larger sample', () => {
    const apart = luckOf([pair(0.5, 3, 1), pair(0.5, 4, 3)]);
    const together = luckOf([pair(0.5, 7, 4)]);
    expect(apart.atLeast).toBeCloseTo(together.atLeast, 12);
    expect(apart.atMost).toBeCloseTo(together.atMost, 12);
  });

  test('agrees with counting every outcome of every hatchling', () => {
    const scenario = fc.record({
      share: fc.double({ min: 0.1, max: 0.9, noNaN: true }),
      p: fc.double({ min: 0, max: 1, noNaN: true }),
      q: fc.double({ min: 0, max: 1, noNaN: true }),
    });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(scenario, fc.integer({ min: 0, max: 4 })), { maxLength: 3 }),
        fc.nat(),
        (given, seed) => {
          const pairs = given.map(([{ share, p, q }, young], i): LuckPair => ({
            scenarios: [
              { weight: share, p },
              { weight: 1 - share, p: q },
            ],
            young,
            hits: young === 0 ? 0 : (seed + i) % (young + 1),
          }));
          const hits = pairs.reduce((sum, one) => sum + one.hits, 0);
          // Each pair's young, hit or not, in every order: 2^young outcomes.
          const walk = (at: number): [chance: number, hits: number][] => {
            const one = pairs[at];
            if (!one) return [[1, 0]];
            const rest = walk(at + 1);
            return Array.from({ length: 2 ** one.young }, (_, bits) => bits).flatMap((bits) => {
              const own = [...bits.toString(2)].filter((bit) => bit === '1').length;
              const chance = one.scenarios.reduce(
                (sum, { weight, p }) => sum + weight * p ** own * (1 - p) ** (one.young - own),
                0,
              );
              return rest.map(([other, more]): [number, number] => [chance * other, own + more]);
            });
          };
          const all = walk(0);
          const atLeast = all.filter(([, count]) => count >= hits).reduce((sum, [chance]) => sum + chance, 0);
          expect(luckOf(pairs).atLeast).toBeCloseTo(atLeast, 9);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('young count where they live: two visual spiders give two in three', () => {
    // A double spider does not live (docs/science.md): of 1 : 2 : 1 the 2 and one 1 are left.
    const spider = (sex: 'female' | 'male') => parseParent('spider', sex).parent;
    const [one] = hatchedScenarios(spider('male'), spider('female'), toTarget(parseGenes('spider')));
    expect(one!.p).toBeCloseTo(2 / 3, 12);
  });

  test('an animal is the target with the product of its odds at each locus', () => {
    const animal = parseParent('pastel 66% het clown 50% het pied', 'female').parent;
    expect(chanceOfTarget(animal, toTarget(parseGenes('pastel het clown het pied')))).toBeCloseTo(1 / 3, 9);
    expect(chanceOfTarget(animal, toTarget(parseGenes('clown')))).toBe(0);
  });
});

const owned = (animalId: string) => ({ kind: 'owned' as const, animalId });
const held = (step: number) => ({ kind: 'held-back' as const, step });
const keep = (sex: 'female' | 'male', label: string): RouteStep['keep'] => ({ sex, phenotype: {}, label });
const ROUTE: Route = {
  roughYears: 6,
  steps: [
    { dam: owned('D1'), sire: owned('S1'), keep: keep('female', 'het Clown'), perEgg: 0.5, inbreeding: 0 },
    { dam: owned('D2'), sire: owned('S1'), keep: keep('male', 'Clown'), perEgg: 0.25, inbreeding: 0 },
    { dam: held(0), sire: held(1), keep: null, perEgg: 0.5, inbreeding: 0.125 },
  ],
};

describe('what is left of a route', () => {
  test('nothing was held back: all of it', () => {
    expect(remainingRoute(ROUTE, new Map())).toEqual({ route: ROUTE, stepOf: [0, 1, 2] });
  });

  test('who was held back takes the place of the step', () => {
    const left = remainingRoute(ROUTE, new Map([[0, 'H']]));
    expect(left.stepOf).toEqual([1, 2]);
    expect(left.route.steps[1]).toMatchObject({ dam: owned('H'), sire: held(0) });
  });

  test('with both, one pairing is left', () => {
    const both = new Map([
      [0, 'H'],
      [1, 'M'],
    ]);
    expect(remainingRoute(ROUTE, both).route.steps).toMatchObject([{ dam: owned('H'), sire: owned('M') }]);
  });

  test('a step that only served a later one falls away with it', () => {
    const long: Route = {
      roughYears: 9,
      steps: [
        ROUTE.steps[0]!,
        { ...ROUTE.steps[1]!, dam: held(0) },
        { ...ROUTE.steps[2]!, dam: owned('D2'), sire: held(1) },
      ],
    };
    expect(remainingRoute(long, new Map([[1, 'M']])).stepOf).toEqual([2]);
  });

  test('costs the places of the adults all along, and of the young until they are grown', () => {
    const { female, male } = ROUTE_TERMS.growth;
    const growing = (female.from + female.to + male.from + male.to) / 2;
    expect(routePlaces(ROUTE, 3, 2, 6, ROUTE_TERMS)).toEqual({ most: 7, placeYears: 18 + 2 * growing });
  });
});

test('an animal is shared where two projects want it, whoever asks first', () => {
  const wants = [
    { projectId: 'p', animalIds: ['a', 'b', 'b'] },
    { projectId: 'q', animalIds: ['c'] },
    { projectId: 'r', animalIds: ['b'] },
  ];
  expect(sharedAnimals(wants)).toEqual([{ animalId: 'b', projectIds: ['p', 'r'] }]);
});
