import { describe, expect, test } from 'vitest';
import { kaplanMeier, medianWait, type Duration } from './kaplan-meier.ts';
import { fitHazards } from './proportional-hazards.ts';

const came = (days: number): Duration => ({ days, came: true });
const waits = (days: number): Duration => ({ days, came: false });

/**
 * Weeks of remission of leukaemia under 6-mercaptopurine and placebo: Freireich et al. 1963, Blood 21, 699-716, as used in
 * Cox 1972, JRSS B 34, 187-220, and Kalbfleisch & Prentice 2002.
 */
const DRUG = [
  ...[6, 6, 6, 7, 10, 13, 16, 22, 23].map(came),
  ...[6, 9, 10, 11, 17, 19, 20, 25, 32, 32, 34, 35].map(waits),
];
const PLACEBO = [1, 1, 2, 2, 3, 4, 4, 5, 5, 8, 8, 8, 8, 11, 11, 12, 12, 15, 17, 22, 23].map(came);

describe('time to an event, some cut short', () => {
  test('the share still in remission, as published', () => {
    const steps = kaplanMeier(DRUG);
    // Kalbfleisch & Prentice 2002, chapter 1, and any textbook that works this example.
    const published = [
      [6, 21, 0.857, 0.0764],
      [7, 17, 0.807, 0.0869],
      [10, 15, 0.753, 0.0963],
      [13, 12, 0.69, 0.1068],
      [16, 11, 0.627, 0.1141],
      [22, 7, 0.538, 0.1282],
      [23, 6, 0.448, 0.1346],
    ];
    expect(steps.map(({ days, atRisk }) => [days, atRisk])).toEqual(published.map(([d, n]) => [d, n]));
    published.forEach(([, , share, se], i) => {
      expect(steps[i]!.waiting).toBeCloseTo(share!, 3);
      expect(steps[i]!.se).toBeCloseTo(se!, 3);
    });
    expect(medianWait(steps)).toBe(23);
    expect(medianWait(kaplanMeier(PLACEBO))).toBe(8);
  });

  test('nothing cut short: the share is what is left', () => {
    const steps = kaplanMeier([1, 2, 2, 5].map(came));
    expect(steps.map(({ waiting }) => waiting)).toEqual([0.75, 0.25, 0]);
    expect(kaplanMeier([waits(3)])).toEqual([]);
    expect(medianWait([])).toBeNull();
  });
});

describe('what makes it come sooner', () => {
  test('the effect of the drug, as published', () => {
    const fit = fitHazards([
      ...DRUG.map((one) => ({ ...one, x: [0] })),
      ...PLACEBO.map((one) => ({ ...one, x: [1] })),
    ])!;
    // Breslow's approximation: 1.509, standard error 0.410 (Kalbfleisch & Prentice 2002; the same from R's coxph).
    expect(fit.beta[0]).toBeCloseTo(1.509, 3);
    expect(fit.se[0]).toBeCloseTo(0.4096, 3);
  });

  test('two variables at once are told apart, and a useless one changes nothing', () => {
    const subjects = [
      ...DRUG.map((one, i) => ({ ...one, x: [0, i % 2] })),
      ...PLACEBO.map((one, i) => ({ ...one, x: [1, i % 2] })),
    ];
    const fit = fitHazards(subjects)!;
    expect(Math.abs(fit.beta[1]!)).toBeLessThan(3 * fit.se[1]!);
    expect(fit.beta[0]).toBeGreaterThan(1);
  });

  test('what cannot be settled is not', () => {
    expect(fitHazards([])).toBeNull();
    expect(fitHazards([{ days: 3, came: false, x: [1] }])).toBeNull();
    expect(
      fitHazards([
        { days: 3, came: true, x: [1] },
        { days: 4, came: true, x: [1] },
      ]),
    ).toBeNull();
  });
});
