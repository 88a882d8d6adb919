import { describe, expect, test } from 'vitest';
import { seededRandom } from '../numeric/random.ts';
import { eggsUntilSettled } from './eggs-until-settled.ts';

const visual = { cases: [{ weight: 1, pShows: 1 / 2 }] };

describe('what proves a possible carrier', () => {
  test('with a visual mate a 50% het is a no after seven eggs: (1/2)^7 : 1 is below one in a hundred', () => {
    expect(eggsUntilSettled(0.5, visual)).toMatchObject({ eggsForNo: 7 });
  });

  test('closed form: p times a geometric cut off at n, and (1-p) n', () => {
    // E[min(G, n)] of a geometric waiting time G is (1 - (1-q)^n) / q (textbook).
    const p = 2 / 3;
    const { eggs, eggsForNo: n, pProved } = eggsUntilSettled(p, visual)!;
    expect(eggs).toBeCloseTo((p * (1 - 0.5 ** n)) / 0.5 + (1 - p) * n, 12);
    expect(pProved).toBeCloseTo(p * (1 - 0.5 ** n), 12);
  });

  test('a visual mate settles it sooner than a carrier, and a possible carrier later still', () => {
    const eggs = (pShows: number): number => eggsUntilSettled(0.5, { cases: [{ weight: 1, pShows }] })!.eggs;
    expect(eggs(1 / 2)).toBeLessThan(eggs(1 / 4));
    // A mate that may not carry leaves some doubt for ever.
    const possible = {
      cases: [
        { weight: 2 / 3, pShows: 1 / 4 },
        { weight: 1 / 3, pShows: 0 },
      ],
    };
    expect(eggsUntilSettled(0.5, possible)).toBeNull();
    expect(eggsUntilSettled(0.5, { cases: [{ weight: 1, pShows: 0 }] })).toBeNull();
  });

  test('agrees with looking at eggs at random', () => {
    const random = seededRandom(5);
    const mate = {
      cases: [
        { weight: 0.5, pShows: 0.5 },
        { weight: 0.5, pShows: 0.25 },
      ],
    };
    const proof = eggsUntilSettled(0.4, mate)!;
    let sum = 0;
    const runs = 40_000;
    for (let run = 0; run < runs; run++) {
      const carried = random() < 0.4;
      const pShows = random() < 0.5 ? 0.5 : 0.25;
      let n = 1;
      while (n < proof.eggsForNo && !(carried && random() < pShows)) n++;
      sum += n;
    }
    // Five standard errors of a mean whose single values spread by less than ten.
    expect(Math.abs(sum / runs - proof.eggs)).toBeLessThan((5 * 10) / Math.sqrt(runs));
  });
});
