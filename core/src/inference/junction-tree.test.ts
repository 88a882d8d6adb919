import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { CostError } from '../errors.ts';
import { seededRandom } from '../numeric/random.ts';
import { eliminationOrder } from './elimination-order.ts';
import type { Factor } from './factor.ts';
import { JunctionTree, MOST, toComponent } from './junction-tree.ts';
import { groupFactors } from './parts.ts';
import { solve } from './solve.ts';

interface Network {
  readonly sizes: readonly number[];
  readonly factors: readonly Factor[];
}

/** Random tables over up to six variables of two or three states; a few entries are 0. */
const anyNetwork: fc.Arbitrary<Network> = fc
  .record({
    sizes: fc.array(fc.integer({ min: 2, max: 3 }), { minLength: 2, maxLength: 6 }),
    scopes: fc.array(fc.uniqueArray(fc.nat(5), { minLength: 1, maxLength: 3 }), {
      minLength: 1,
      maxLength: 7,
    }),
    seed: fc.nat(1e6),
  })
  .map(({ sizes, scopes, seed }) => {
    const random = seededRandom(seed);
    const factors = scopes.map((wanted) => {
      const scope = [...new Set(wanted.map((variable) => variable % sizes.length))];
      const length = scope.reduce((product, variable) => product * sizes[variable]!, 1);
      const table = new Float64Array(length).map(() => (random() < 0.1 ? 0 : random()));
      return { scope, sizes: scope.map((variable) => sizes[variable]!), states: scope.map(() => 0), table };
    });
    return { sizes, factors };
  });

/** The reference computation: every joint state of all variables in the scope of the factors. */
function addUp({ sizes, factors }: Network): { total: number; marginals: number[][] } {
  const variables = [...new Set(factors.flatMap(({ scope }) => scope))];
  const marginals = factors.map(({ table }) => [...table].fill(0));
  let total = 0;
  const state = new Map<number, number>();
  const walk = (at: number): void => {
    if (at < variables.length) {
      for (let s = 0; s < sizes[variables[at]!]!; s++) {
        state.set(variables[at]!, s);
        walk(at + 1);
      }
      return;
    }
    const places = factors.map((factor) =>
      factor.scope.reduce((place, variable, axis) => place * factor.sizes[axis]! + state.get(variable)!, 0),
    );
    const weight = factors.reduce((product, { table }, f) => product * table[places[f]!]!, 1);
    total += weight;
    places.forEach((place, f) => (marginals[f]![place]! += weight));
  };
  walk(0);
  return { total, marginals };
}

describe('a product of tables', () => {
  test('is summed as adding up every joint state does', () => {
    fc.assert(
      fc.property(anyNetwork, (network) => {
        const slow = addUp(network);
        let logTotal = 0;
        for (const group of groupFactors(network.factors)) {
          const found = solve(toComponent(group));
          logTotal += found.logTotal;
          if (found.logTotal === -Infinity || slow.total === 0) continue;
          group.forEach((factor, at) => {
            const f = network.factors.indexOf(factor);
            found.marginals[at]!.forEach((p, place) =>
              expect(p).toBeCloseTo(slow.marginals[f]![place]! / slow.total, 10),
            );
          });
        }
        if (slow.total === 0) expect(logTotal).toBe(-Infinity);
        else expect(logTotal).toBeCloseTo(Math.log(slow.total), 10);
      }),
      { numRuns: 300 },
    );
  });

  test('gives the joint marginal of any variables, also where no table holds them all', () => {
    fc.assert(
      fc.property(
        anyNetwork,
        fc.uniqueArray(fc.nat(5), { minLength: 2, maxLength: 4 }),
        (network, wanted) => {
          for (const group of groupFactors(network.factors)) {
            const variables = new Set(group.flatMap(({ scope }) => scope));
            const scope = wanted.filter((variable) => variables.has(variable));
            if (scope.length < 2) continue;
            const sizes = scope.map((variable) => network.sizes[variable]!);
            const ones = new Float64Array(sizes.reduce((a, b) => a * b, 1)).fill(1);
            // A table of ones changes nothing: its marginal is what is asked.
            const slow = addUp({
              sizes: network.sizes,
              factors: [
                ...(group as Network['factors']),
                { scope, sizes, states: sizes.map(() => 0), table: ones },
              ],
            });
            const numbers = new Map<number, number>();
            const component = toComponent(group, numbers);
            const found = solve(component, [Int32Array.from(scope, (variable) => numbers.get(variable)!)]);
            if (slow.total === 0) expect(found.logTotal).toBe(-Infinity);
            else
              slow.marginals
                .at(-1)!
                .forEach((weight, place) =>
                  expect(found.joints[0]![place]).toBeCloseTo(weight / slow.total, 10),
                );
          }
        },
      ),
      { numRuns: 500 },
    );
  });

  test('is drawn from as often as its probabilities say', () => {
    const component = toComponent([
      { scope: [1, 2], sizes: [2, 2], states: [0, 0], table: Float64Array.of(0.1, 0.2, 0.3, 0.4) },
    ]);
    const random = seededRandom(3);
    const counts = new Map<string, number>();
    const draws = 20_000;
    const tree = new JunctionTree(component);
    tree.collect();
    for (let n = 0; n < draws; n++) {
      const key = tree.draw(random).join();
      counts.set(key, (counts.get(key) ?? 0) + 1);
    }
    for (const [key, p] of [
      ['0,0', 0.1],
      ['0,1', 0.2],
      ['1,0', 0.3],
      ['1,1', 0.4],
    ] as const) {
      // Five standard errors of a binomial share.
      expect(Math.abs(counts.get(key)! / draws - p)).toBeLessThan(5 * Math.sqrt((p * (1 - p)) / draws));
    }
  });

  test('is refused by name where a table would be too large', () => {
    const clique = Array.from({ length: 12 }, (_, v) => v);
    const pairs = clique.flatMap((a) => clique.filter((b) => b > a).map((b) => [a, b]));
    const component = toComponent(
      pairs.map((scope) => ({ scope, sizes: [2, 2], states: [0, 0], table: new Float64Array(4).fill(1) })),
    );
    expect(() => new JunctionTree(component, undefined, { ...MOST, table: 2 ** 10 })).toThrow(CostError);
    expect(solve(component).logTotal).toBeCloseTo(12 * Math.LN2, 10);
  });
});

describe('an elimination order', () => {
  const scopesOf = (pairs: number[][]): Int32Array[] => pairs.map((pair) => Int32Array.from(pair));

  test('takes a chain from its ends: no table over more than two variables', () => {
    const chain = scopesOf([
      [0, 1],
      [1, 2],
      [2, 3],
      [3, 4],
    ]);
    for (const greed of ['smallest-table', 'fewest-ties'] as const) {
      expect(eliminationOrder(new Int32Array(5).fill(2), chain, { greed })!.largest).toBe(4);
    }
  });

  test('a ring needs one tie more, and a limit stops the search', () => {
    const ring = scopesOf([
      [0, 1],
      [1, 2],
      [2, 3],
      [3, 4],
      [4, 0],
    ]);
    const sizes = new Int32Array(5).fill(2);
    expect(eliminationOrder(sizes, ring, { greed: 'fewest-ties' })!.largest).toBe(8);
    expect(eliminationOrder(sizes, ring, { greed: 'fewest-ties', stopAt: 8 })).toBeNull();
  });
});
