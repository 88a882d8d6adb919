import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { parseGenes } from '../../notation/parse.ts';
import { parseParent } from '../../odds/parent.ts';
import { toTarget } from '../../odds/target.ts';
import { bestAssignment } from '../assignment.ts';
import { findRoutes } from './find-routes.ts';
import { ROUTE_TERMS, type Route, type RouteAnimal } from './route.ts';
import { RouteSimulation } from './simulate.ts';

/* What must hold for any plan. */

const GENES = ['clown', 'het clown', '66% het clown', 'pied', 'het pied', 'pastel', 'banana', 'normal'];
const animals = fc
  .array(fc.record({ sex: fc.constantFrom('female', 'male'), genes: fc.constantFrom(...GENES) }), {
    minLength: 2,
    maxLength: 6,
  })
  .map((list) =>
    list.map(({ sex, genes }, i): RouteAnimal => {
      const of = sex as 'female' | 'male';
      return { id: `${i}`, sex: of, parent: parseParent(genes, of).parent, readyIn: i % 3 };
    }),
  );
const target = fc
  .constantFrom('clown', 'clown pied', 'pastel clown', 'het pied')
  .map((text) => toTarget(parseGenes(text)));
const fertility = { size: { first: 5, odds: [0.5, 0.5] }, hatch: 0.9 };

/** The parents of a step are there, of the right sex, and held back before they are used. */
function checkSteps(route: Route, owned: readonly RouteAnimal[]): void {
  route.steps.forEach((step, at) => {
    for (const [parent, sex] of [
      [step.dam, 'female'],
      [step.sire, 'male'],
    ] as const) {
      if (parent.kind === 'owned') expect(owned.find(({ id }) => id === parent.animalId)!.sex).toBe(sex);
      if (parent.kind === 'held-back') {
        expect(parent.step).toBeLessThan(at);
        expect(route.steps[parent.step]!.keep!.sex).toBe(sex);
      }
    }
    expect(step.perEgg).toBeGreaterThan(0);
    expect(step.perEgg).toBeLessThanOrEqual(1);
    expect(step.inbreeding).toBeLessThanOrEqual(0.25 + 1e-9);
    expect(step.keep === null).toBe(at === route.steps.length - 1);
  });
}

test('routes can be walked: every parent is owned, or held back before it is used', () => {
  fc.assert(
    fc.property(animals, target, (owned, wanted) => {
      const routes = findRoutes({
        target: wanted,
        animals: owned,
        bought: null,
        kinship: (a, b) => (a === b ? 0.5 : 0),
        inbreedingBound: 0.25,
        fertility,
        terms: ROUTE_TERMS,
      });
      for (const route of routes) checkSteps(route, owned);
      const years = routes.map(({ roughYears }) => roughYears);
      expect(years).toEqual(years.toSorted((a, b) => a - b));
    }),
    { numRuns: 25 },
  );
});

describe('a plan that is played', () => {
  const owned: RouteAnimal[] = [
    { id: 'f', sex: 'female', parent: parseParent('het clown', 'female').parent, readyIn: 0 },
    { id: 'm', sex: 'male', parent: parseParent('clown', 'male').parent, readyIn: 0 },
  ];
  const wanted = toTarget(parseGenes('clown'));
  const [route] = findRoutes({
    target: wanted,
    animals: owned,
    bought: null,
    kinship: () => 0,
    inbreedingBound: 0.25,
    fertility,
    terms: ROUTE_TERMS,
  });
  const play = (
    more: { seed: number; years?: number; missedSeason?: number; hatch?: number },
    runs = 300,
  ) => {
    const simulation = new RouteSimulation({
      route: route!,
      target: wanted,
      animals: owned,
      bought: null,
      fertilityOf: () => ({ ...fertility, hatch: more.hatch ?? 0.9 }),
      terms: { ...ROUTE_TERMS, missedSeason: more.missedSeason ?? 0.25 },
      holdBack: 2,
      years: more.years ?? 6,
      seed: more.seed,
    });
    simulation.play(runs);
    return simulation.result();
  };

  test('never loses what it has: the share grows year by year, and its error is a binomial’s', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const { byYear, runs } = play({ seed });
        byYear.reduce((before, { share, se }) => {
          expect(share).toBeGreaterThanOrEqual(before);
          expect(se).toBeCloseTo(Math.sqrt((share * (1 - share)) / runs), 12);
          return share;
        }, 0);
      }),
      { numRuns: 20 },
    );
  });

  test('the median is the first year by which half of the runs are there', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        fc.double({ min: 0, max: 0.9, noNaN: true }),
        (seed, missedSeason) => {
          const { byYear, medianYear } = play({ seed, missedSeason });
          const first = byYear.findIndex(({ share }) => share >= 0.5);
          expect(medianYear).toBe(first < 0 ? null : first + 1);
        },
      ),
      { numRuns: 20 },
    );
  });

  test('eggs that never hatch bring nothing', () => {
    expect(play({ seed: 3, hatch: 0 }).byYear.every(({ share }) => share === 0)).toBe(true);
  });
});

test('an assignment is worth no less than any other of its kind', () => {
  const matrix = fc
    .tuple(fc.integer({ min: 1, max: 4 }), fc.integer({ min: 0, max: 2 }))
    .chain(([rows, more]) =>
      fc.array(
        fc.array(fc.integer({ min: 0, max: 50 }), { minLength: rows + more, maxLength: rows + more }),
        {
          minLength: rows,
          maxLength: rows,
        },
      ),
    );
  fc.assert(
    fc.property(matrix, (value) => {
      const columns = bestAssignment(value);
      expect(new Set(columns).size).toBe(value.length);
      const worth = columns.reduce((sum, column, row) => sum + value[row]![column]!, 0);
      const best = (row: number, used: ReadonlySet<number>): number =>
        row === value.length
          ? 0
          : Math.max(
              ...value[row]!.map((v, c) => (used.has(c) ? -1 : v + best(row + 1, new Set([...used, c])))),
            );
      expect(worth).toBe(best(0, new Set()));
    }),
  );
});
