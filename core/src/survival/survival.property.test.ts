import fc from 'fast-check';
import { expect, test } from 'vitest';
import { observe, predict } from '../growth/kalman.ts';
import { kaplanMeier } from './kaplan-meier.ts';
import { fitHazards } from './proportional-hazards.ts';

const durations = fc.array(fc.record({ days: fc.integer({ min: 0, max: 60 }), came: fc.boolean() }), {
  maxLength: 60,
});

test('the share still waiting only falls, and lies between none and all', () => {
  fc.assert(
    fc.property(durations, (seen) => {
      let before = 1;
      for (const { waiting, se, atRisk, came } of kaplanMeier(seen)) {
        expect(waiting).toBeLessThanOrEqual(before + 1e-12);
        expect(waiting).toBeGreaterThanOrEqual(-1e-12);
        expect(se).toBeGreaterThanOrEqual(0);
        expect(came).toBeLessThanOrEqual(atRisk);
        before = waiting;
      }
    }),
  );
});

test('without anything cut short it is one less the empirical distribution', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 1, maxLength: 60 }), (days) => {
      const steps = kaplanMeier(days.map((day) => ({ days: day, came: true })));
      for (const { days: day, waiting } of steps) {
        expect(waiting).toBeCloseTo(days.filter((one) => one > day).length / days.length, 9);
      }
    }),
  );
});

test('turned around, a variable has the opposite effect', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          days: fc.integer({ min: 1, max: 40 }),
          came: fc.boolean(),
          x: fc.integer({ min: 0, max: 3 }),
        }),
        { minLength: 12, maxLength: 40 },
      ),
      (rows) => {
        const fit = fitHazards(rows.map((row) => ({ ...row, x: [row.x] })));
        const turned = fitHazards(rows.map((row) => ({ ...row, x: [-row.x] })));
        if (!fit || !turned) return;
        expect(turned.beta[0]).toBeCloseTo(-fit.beta[0]!, 5);
        expect(turned.logLikelihood).toBeCloseTo(fit.logLikelihood, 6);
      },
    ),
  );
});

test('an observation never makes the level less sure, time never makes it surer', () => {
  const positive = fc.double({ min: 1e-6, max: 10, noNaN: true });
  fc.assert(
    fc.property(
      positive,
      positive,
      positive,
      positive,
      fc.integer({ min: 1, max: 400 }),
      (v, noise, level, rate, span) => {
        const state = { level: 0, rate: 0, vLevel: v, vRate: rate, cov: 0 };
        const later = predict(state, span, { levelVariance: level, rateVariance: rate, rateHalfLife: 30 });
        expect(later.vLevel).toBeGreaterThanOrEqual(v);
        const { state: seen } = observe(later, 1, noise);
        expect(seen.vLevel).toBeLessThanOrEqual(later.vLevel);
        expect(seen.vLevel).toBeLessThanOrEqual(noise + 1e-9);
        // A covariance is never larger than its two variances allow.
        expect(seen.cov ** 2).toBeLessThanOrEqual(seen.vLevel * seen.vRate * (1 + 1e-6) + 1e-9);
      },
    ),
  );
});
