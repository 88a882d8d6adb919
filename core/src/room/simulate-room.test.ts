import { describe, expect, test } from 'vitest';
import jstat from 'jstat';
import { mendings } from './mend.ts';
import { simulateRoom, type RoomQuestion } from './simulate-room.ts';

const flat = (massG: number, weeks: number): number[] => new Array<number>(weeks).fill(Math.log(massG));
const WEEKS = 40;
const base: RoomQuestion = {
  kinds: [
    { key: 'small', name: 'Hatchling tub', places: 20, maxG: 300, next: 'large' },
    { key: 'large', name: 'Yearling tub', places: 50, maxG: null, next: null },
  ],
  animals: [],
  clutches: [],
  hatchlingKind: 'small',
  hatchling: { mean: flat(70, WEEKS), sd: new Array<number>(WEEKS).fill(0.1) },
  saleAgeWeeks: 0,
  salePace: 0,
  heldBack: 1,
  weeks: WEEKS,
  runs: 2000,
  seed: 7,
};
const clutch = (week: number, eggs: number, hatchShare = 1, chance = 1) => ({
  hatchInDays: week * 7 + 3,
  sdDays: 0,
  eggs,
  hatchShare,
  chance,
});

describe('the room, by closed forms', () => {
  test('nothing that is uncertain: counts are exact', () => {
    const { kinds } = simulateRoom({ ...base, runs: 50, clutches: [clutch(3, 8), clutch(10, 15)] })!;
    const [small] = kinds;
    expect(small!.weeks[2]).toMatchObject({ low: 0, mid: 0, high: 0 });
    expect(small!.weeks[3]).toMatchObject({ low: 8, mid: 8, high: 8, over: 0 });
    expect(small!.weeks[10]).toMatchObject({ mid: 23, over: 1 });
    expect(small).toMatchObject({ tipsOver: 10, risky: 10, missing: 3 });
  });

  test('hatchlings are binomial', () => {
    const { kinds } = simulateRoom({ ...base, clutches: [clutch(0, 10, 0.7)] })!;
    const week = kinds[0]!.weeks[0]!;
    expect(week.mean).toBeCloseTo(7, 0);
    const quantile = (share: number): number => {
      for (let k = 0; ; k++) if (jstat.jStat.binomial.cdf(k, 10, 0.7) >= share) return k;
    };
    expect([week.low, week.mid, week.high]).toEqual([quantile(0.05), quantile(0.5), quantile(0.95)]);
  });

  test('a steady stream and a constant share sold: arrivals times stay (Little 1961)', () => {
    // One clutch of five a week, a fifth of those for sale leaves a week: stays of geometric length, mean 1/p - 1 weeks
    // of which a week is not counted; in the long run 5 x (1 - p) / p places.
    const pace = 0.2;
    const { kinds } = simulateRoom({
      ...base,
      heldBack: 0,
      salePace: pace,
      clutches: Array.from({ length: WEEKS }, (_, week) => clutch(week, 5)),
    })!;
    const late = kinds[0]!.weeks.slice(-8).map(({ mean }) => mean);
    expect(late.reduce((a, b) => a + b, 0) / late.length / ((5 * (1 - pace)) / pace)).toBeCloseTo(1, 1);
  });

  test('an animal moves in the week in which it outgrows its tub, by a normal chance', () => {
    const mean = Array.from({ length: WEEKS }, (_, week) => Math.log(200) + week * 0.02);
    const sd = new Array<number>(WEEKS).fill(0.1);
    const animals = [{ kind: 'small', mean, sd, forSaleFrom: null }];
    const { kinds } = simulateRoom({ ...base, animals, runs: 8000 })!;
    for (const week of [10, 20, 30]) {
      const moved = jstat.jStat.normal.cdf(mean[week]!, Math.log(300), 0.1);
      expect(Math.abs(kinds[1]!.weeks[week]!.mean - moved)).toBeLessThan(0.02);
      expect(kinds[0]!.weeks[week]!.mean + kinds[1]!.weeks[week]!.mean).toBeCloseTo(1, 9);
    }
  });

  test('a clutch that may not come counts by its chance', () => {
    const { kinds } = simulateRoom({ ...base, clutches: [clutch(2, 30, 1, 0.3)] })!;
    expect(kinds[0]!.weeks[5]!.over).toBeCloseTo(0.3, 1);
    expect(kinds[0]).toMatchObject({ tipsOver: null, risky: 2, missing: 10 });
  });

  test('the same question has the same answer, and can be given up', () => {
    const question = { ...base, clutches: [clutch(1, 9, 0.6, 0.8)] };
    expect(simulateRoom(question)).toEqual(simulateRoom(question));
    const heard: number[] = [];
    expect(simulateRoom(question, (share) => (heard.push(share), share < 0.5))).toBeNull();
    expect(heard.at(-1)).toBeGreaterThanOrEqual(0.5);
  });
});

describe('what would mend it', () => {
  const crowded: RoomQuestion = {
    ...base,
    heldBack: 0.2,
    salePace: 0.05,
    clutches: [clutch(4, 12), clutch(5, 14)],
    runs: 600,
  };

  test('each change was tried, and brings the room further', () => {
    const forecast = simulateRoom(crowded)!;
    expect(forecast.kinds[0]!.risky).toBe(5);
    const found = mendings(crowded, forecast);
    const buy = found.find(({ code }) => code === 'buy-places')!;
    expect(buy.facts).toEqual({ places: [{ kind: 'Hatchling tub', count: 6 }] });
    expect(buy.risky).toBeNull();
    for (const { risky } of found) expect(risky === null || risky > 5).toBe(true);
    const again = simulateRoom({ ...crowded, ...buy.changed })!;
    expect(again.kinds[0]!.missing).toBe(0);
  });

  test('a room that lasts needs none', () => {
    const roomy = { ...crowded, clutches: [] };
    expect(mendings(roomy, simulateRoom(roomy)!)).toEqual([]);
  });
});
