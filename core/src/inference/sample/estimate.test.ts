import { describe, expect, test } from 'vitest';
import { tangledLine } from '../../../test/tangled-line.ts';
import { infer } from '../infer.ts';
import { PedigreeEngine } from '../engine.ts';
import { createEstimator, estimateInBlocks } from './estimate.ts';

describe('an estimate where the exact answer is out of reach', () => {
  test('agrees with the exact answer within its standard errors', () => {
    // A line small enough to be exact, estimated all the same with tables of at most 64 entries.
    const pedigree = tangledLine({ animals: 60, seed: 3 });
    const exact = new PedigreeEngine(pedigree);
    expect(exact.exact).toBe(true);
    const widest = [...exact.parts].toSorted((a, b) => b.largest - a.largest)[0]!;
    expect(widest.largest).toBeGreaterThan(64);
    const estimate = estimateInBlocks(widest.factors, new Map(), { widest: 64, seed: 7, sweeps: 60 });
    let beyond = 0;
    let cells = 0;
    widest.marginals.forEach((marginal, factor) =>
      marginal.forEach((p, at) => {
        const runs = estimate.runs.map((run) => run.marginals[factor]![at]!);
        const mean = runs.reduce((a, b) => a + b, 0) / runs.length;
        const se = Math.sqrt(runs.reduce((s, x) => s + (x - mean) ** 2, 0) / (runs.length - 1) / runs.length);
        cells++;
        // Student's t with 7 degrees of freedom is beyond 5.41 in one of a thousand (table).
        if (Math.abs(mean - p) > 5.41 * se + 1e-9) beyond++;
        expect(Math.abs(mean - p)).toBeLessThan(0.1);
      }),
    );
    expect(beyond / cells).toBeLessThan(0.01);
    expect(estimate.logTotal).toBeCloseTo(widest.logTotal, 0);
  }, 60_000);

  test('a line that is too wide says so, and carries a standard error on every genotype', () => {
    const pedigree = tangledLine({ animals: 260, seed: 11, identified: 0.05, founders: 14 });
    expect(() => infer(pedigree)).toThrow('entries');
    const posterior = infer(pedigree, createEstimator({ sweeps: 3, runs: 3 }));
    expect(posterior.exact).toBe(false);
    for (const loci of posterior.animals.values()) {
      for (const genotypes of loci.values()) {
        expect(genotypes.reduce((sum, g) => sum + g.p, 0)).toBeCloseTo(1, 6);
        for (const { se } of genotypes) expect(se).toBeGreaterThanOrEqual(0);
      }
    }
  }, 60_000);
});
