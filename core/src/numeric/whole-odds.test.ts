import fc from 'fast-check';
import jstat from 'jstat';
import { describe, expect, test } from 'vitest';
import { shareOf } from './interval.ts';
import {
  bellOdds,
  chanceAbove,
  drawWhole,
  givenAtLeast,
  learn,
  meanOf,
  quantile,
  skewedOdds,
  sumOf,
  wholeOdds,
} from './whole-odds.ts';

const { jStat } = jstat;
const binomial = (n: number, p: number) => wholeOdds(0, n, (k) => jStat.binomial.pdf(k, n, p));

describe('chances of whole numbers', () => {
  test('above, mean and quantile of a binomial are those of the statistics package', () => {
    const odds = binomial(12, 0.3);
    for (let k = -1; k <= 12; k++)
      expect(chanceAbove(odds, k)).toBeCloseTo(1 - (k < 0 ? 0 : jStat.binomial.cdf(k, 12, 0.3)), 10);
    expect(meanOf(odds)).toBeCloseTo(3.6, 10);
    // The smallest k with a cumulative probability of at least q.
    for (const q of [0.05, 0.25, 0.5, 0.9]) {
      const k = quantile(odds, q);
      expect(jStat.binomial.cdf(k, 12, 0.3)).toBeGreaterThanOrEqual(q - 1e-9);
      expect(k === 0 || jStat.binomial.cdf(k - 1, 12, 0.3) < q).toBe(true);
    }
  });

  test('the sum of two binomials with one p is a binomial', () => {
    const sum = sumOf(binomial(4, 0.3), binomial(8, 0.3));
    for (let k = 0; k <= 12; k++) expect(sum.odds[k]).toBeCloseTo(jStat.binomial.pdf(k, 12, 0.3), 10);
  });

  test('of two clutches with one sum, how many were in the first is hypergeometric', () => {
    const [first, second] = [binomial(5, 0.4), binomial(7, 0.4)];
    const sum = sumOf(first, second);
    for (let k = 0; k <= 4; k++)
      expect((first.odds[k]! * second.odds[4 - k]!) / sum.odds[4]!).toBeCloseTo(
        jStat.hypgeom.pdf(k, 12, 5, 4),
        10,
      );
  });

  test('given at least k, what is left keeps its proportions (Bayes)', () => {
    const odds = binomial(6, 0.5);
    const rest = givenAtLeast(odds, 4)!;
    // 15, 6 and 1 of 64, so of 22.
    expect(rest.first).toBe(4);
    expect(rest.odds.map((p) => +(p * 22).toFixed(9))).toEqual([15, 6, 1]);
    expect(givenAtLeast(odds, 7)).toBeNull();
  });

  test('a log-normal has its middle where it was told, and a bell is even about its mean', () => {
    const wait = skewedOdds(22, 31, 0.525, 23, 70);
    expect(Math.abs(quantile(wait, 0.5) - 31)).toBeLessThanOrEqual(1);
    expect(meanOf(bellOdds(20, 4, 5, 35))).toBeCloseTo(20, 9);
  });

  test('learning weighs the prior against what was seen (Dirichlet, by hand)', () => {
    // A prior of 6 observations, half on each of two numbers; three times the second seen: (3 + 3) / 9.
    const { odds, observations } = learn({ first: 30, odds: [0.5, 0.5] }, [31, 31, 31], 6, 0);
    expect(observations).toBe(3);
    expect(odds.odds[1]).toBeCloseTo(6 / 9, 12);
  });

  test('whatever was seen, the chances add up to 1 and draw what they say', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -10, max: 90 }), { maxLength: 12 }), (seen) => {
        const { odds } = learn(skewedOdds(22, 31, 0.525, 23, 70), seen, 6, 2);
        expect(odds.odds.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
        expect(drawWhole(odds, 0)).toBeGreaterThanOrEqual(23);
        expect(drawWhole(odds, 1 - 1e-12)).toBeLessThanOrEqual(70);
        expect(drawWhole(odds, 0.5)).toBe(quantile(odds, 0.5 + 1e-9));
      }),
    );
  });
});

// Newcombe 1998, Statistics in Medicine 17, 857-872, table I, the score method without continuity correction (from memory).
describe('the interval of a share', () => {
  test.each([
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])('%d of %d', (count, of, low, high) => {
    const share = shareOf(count, of);
    expect(share.low).toBeCloseTo(low, 4);
    expect(share.high).toBeCloseTo(high, 4);
  });

  test('solves |p - share| = z sqrt(p (1 - p) / n), its definition', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 200 }), fc.nat(), (of, any) => {
        const count = any % (of + 1);
        const { low, high, share } = shareOf(count, of);
        for (const p of [low, high])
          if (p > 0 && p < 1)
            expect(Math.abs(p - share!)).toBeCloseTo(1.959963984540054 * Math.sqrt((p * (1 - p)) / of), 9);
      }),
    );
    expect(shareOf(0, 0)).toMatchObject({ share: null, low: 0, high: 1 });
  });
});
