import { describe, expect, test } from 'vitest';
import { manySires } from '../../../test/many-sires.ts';
import { PedigreeEngine } from '../engine.ts';
import type { Axes } from '../factor.ts';
import { standardErrors, type Part } from '../parts.ts';
import { fitMargins } from './fit-margins.ts';
import { estimateByDraws } from './weighted-draws.ts';

/** The widest part of a collection that is exact, and what was asked of it beyond its tables. */
function widestPart(): { part: Part; asked: Map<string, Axes> } {
  const engine = new PedigreeEngine(manySires({ seed: 4 }));
  expect(engine.exact).toBe(true);
  const part = [...engine.parts].toSorted((a, b) => b.largest - a.largest)[0]!;
  const axes = new Map(
    part.factors.flatMap(({ scope, sizes, states }) =>
      scope.map((variable, axis) => [variable, { size: sizes[axis]!, states: states[axis]! }] as const),
    ),
  );
  const asked = new Map(
    [...part.joints.keys()].map((key): [string, Axes] => {
      const scope = key.split(',').map(Number);
      const sizes = scope.map((variable) => axes.get(variable)!.size);
      return [key, { scope, sizes, states: scope.map((variable) => axes.get(variable)!.states) }];
    }),
  );
  return { part, asked };
}

describe('an estimate by weighted draws', () => {
  test('agrees with the exact answer within its standard errors', () => {
    const { part, asked } = widestPart();
    // As loose as can be: every choice of a sire is made anew for every locus.
    const limits = [{ widest: part.largest / 8, total: part.largest }];
    const estimate = estimateByDraws(part.factors, asked, 5, limits)!;
    expect(asked.size).toBeGreaterThan(5);
    expect(estimate.logTotal).toBeCloseTo(part.logTotal, 2);
    const exact = [...part.marginals, ...part.joints.values()];
    const found = [...estimate.marginals, ...estimate.joints];
    const runs = estimate.runs.map(({ marginals, joints }) => [...marginals, ...joints]);
    let cells = 0;
    let beyond = 0;
    found.forEach((table, n) => {
      const errors = standardErrors(runs.map((run) => run[n]!));
      table.forEach((p, at) => {
        const difference = Math.abs(p - exact[n]![at]!);
        cells++;
        // Student's t with 15 degrees of freedom is beyond 4.07 in one of a thousand (table); a state that no draw hit has
        // no error of its own.
        if (difference > 4.07 * errors[at]! + 5e-4) beyond++;
        expect(difference).toBeLessThan(0.02);
      });
    });
    expect(beyond / cells).toBeLessThan(0.02);
  }, 60_000);

  test('where nothing has to be made anew, the marginals are exact', () => {
    const { part, asked } = widestPart();
    const estimate = estimateByDraws(part.factors, asked, 5)!;
    expect(estimate.logTotal).toBeCloseTo(part.logTotal, 9);
    estimate.marginals.forEach((table, f) =>
      table.forEach((p, at) => expect(p).toBeCloseTo(part.marginals[f]![at]!, 9)),
    );
  }, 60_000);
});

test('a table is brought to given margins, and keeps its odds ratio', () => {
  // By hand: the odds ratio of 4, 1, 1, 4 is 16; with margins of a half each, p / (1/2 - p) = 4, so p = 0.4.
  const table = Float64Array.of(0.2, 0.05, 0.05, 0.2);
  const half = Float64Array.of(0.5, 0.5);
  fitMargins(table, [2, 2], [half, half]);
  [0.4, 0.1, 0.1, 0.4].forEach((p, at) => expect(table[at]).toBeCloseTo(p, 9));
});
