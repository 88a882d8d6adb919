import { describe, expect, test } from 'vitest';
import { coordinateDescent } from '../numeric/minimise.ts';
import { observe, predict, type Dynamics, type State } from './kalman.ts';

/**
 * Yearly flow of the Nile at Aswan 1871 to 1970, 10^8 cubic metres: the series `Nile` of R's package datasets, from Durbin
 * & Koopman 2012, Time Series Analysis by State Space Methods.
 */
const NILE =
  `1120 1160 963 1210 1160 1160 813 1230 1370 1140 995 935 1110 994 1020 960 1180 799 958 1140 1100 1210 1150 1250
 1260 1220 1030 1100 774 840 874 694 940 833 701 916 692 1020 1050 969 831 726 456 824 702 1120 1100 832 764 821 768 845 864
 862 698 845 744 796 1040 759 781 865 845 944 984 897 822 1010 771 676 649 846 812 742 801 1040 860 874 848 890 744 749 838
 1050 918 986 797 923 975 815 1020 906 901 1170 912 746 919 718 714 740`
    .trim()
    .split(/\s+/)
    .map(Number);

const localLevel = (levelVariance: number): Dynamics => ({ levelVariance, rateVariance: 0, rateHalfLife: 1 });
const begin = (vLevel: number): State => ({ level: 0, rate: 0, vLevel, vRate: 0, cov: 0 });

function run(noise: number, levelVariance: number, start: State) {
  let state = start;
  let logLikelihood = 0;
  const steps = NILE.map((y, i) => {
    const ahead = i === 0 ? state : predict(state, 1, localLevel(levelVariance));
    const step = observe(ahead, y, noise);
    logLikelihood += step.logLikelihood;
    state = step.state;
    return { ahead, ...step };
  });
  return { logLikelihood, steps };
}

describe('the Nile series', () => {
  test('has a hundred years, and the mean of R’s own summary', () => {
    expect(NILE).toHaveLength(100);
    expect(NILE.reduce((a, b) => a + b, 0) / 100).toBeCloseTo(919.35, 10);
  });

  // Durbin & Koopman 2012, section 2.2.5 (P1 = 10^7) and 2.10.3: the variances 15099 and 1469.1.
  test('has the log-likelihood that is published for the local level model', () => {
    // -641.5856: as other implementations print it for this series, these variances and P1 = 10^7 (from memory).
    expect(run(15099, 1469.1, begin(1e7)).logLikelihood).toBeCloseTo(-641.5856, 2);
  });

  test('starts as figure 2.1 does: the first level is the first flow, its variance that of the noise', () => {
    const { steps } = run(15099, 1469.1, begin(1e7));
    expect(steps[0]!.state.level).toBeCloseTo(1120, -1);
    expect(steps[1]!.ahead.vLevel).toBeCloseTo(15076 + 1469, -1);
    // Section 2.2.3: the steady state of P solves P^2 - P q - q s = 0.
    const [q, s] = [1469.1, 15099];
    expect(steps.at(-1)!.ahead.vLevel).toBeCloseTo((q + Math.sqrt(q * q + 4 * q * s)) / 2, 3);
  });

  test('is likeliest under the variances that are published', () => {
    const [noise, level] = coordinateDescent(
      ([a, b]) => -run(Math.exp(a!), Math.exp(b!), begin(1e7)).logLikelihood,
      [Math.log(1e4), Math.log(1e3)],
      3,
      { rounds: 60, tolerance: 1e-10 },
    );
    expect(Math.exp(noise!) / 15099).toBeCloseTo(1, 2);
    expect(Math.exp(level!) / 1469.1).toBeCloseTo(1, 2);
  });
});

describe('a rate that is forgotten', () => {
  const dynamics: Dynamics = { levelVariance: 0.3, rateVariance: 2, rateHalfLife: 5 };
  const state: State = { level: 1, rate: 0.5, vLevel: 0.4, vRate: 0.7, cov: 0.1 };

  test('one long step is the same as many short ones', () => {
    const once = predict(state, 12, dynamics);
    let many = state;
    for (let i = 0; i < 48; i++) many = predict(many, 0.25, dynamics);
    for (const key of ['level', 'rate', 'vLevel', 'vRate', 'cov'] as const) {
      expect(many[key]).toBeCloseTo(once[key], 9);
    }
  });

  test('the variance of the rate comes to rest where it stands', () => {
    expect(predict(state, 1e4, dynamics).vRate).toBeCloseTo(2, 9);
    expect(predict(state, 1e4, dynamics).rate).toBeCloseTo(0, 9);
  });

  test('an observation without noise is the level', () => {
    const { state: after } = observe(state, 3, 0);
    expect(after.level).toBe(3);
    expect(after.vLevel).toBeCloseTo(0, 12);
  });
});
