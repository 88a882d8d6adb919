import { weightDoubt } from '@karyotome/core';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  againstPairWords,
  alarmWords,
  concernWords,
  cuttingWords,
  heatFaultWords,
  mealWhy,
  moveReasonWords,
  numberWords,
  oneInWords,
  readinessWords,
  recordWords,
  roomChangeWords,
  waitWords,
  weightDoubtWords,
} from './index.ts';
import { eggs, imperial, meal, metric, reasons } from './test-facts.ts';

describe('reasons and findings', () => {
  test('of a move, with the limits that decided', () => {
    const [over] = reasons;
    expect(moveReasonWords(over, metric)).toEqual({
      text: '342 g, 14% over the 300 g of the Hatchling tub',
      rule: 'Hatchling tub: up to 300 g; Yearling tub: from 250 g.',
    });
    expect(moveReasonWords({ code: 'digesting', facts: { daysSinceMeal: 1, restDays: 2 } }, metric)).toEqual({
      text: 'Fed 1 day ago',
      rule: 'No handling for 48 hours after a meal.',
    });
  });

  test('of readiness', () => {
    const floor = { of: 'females', floorG: 1500, fromYears: null } as const;
    const reason = { side: 'against', records: [] } as const;
    expect(
      readinessWords({ ...reason, code: 'under-floor', facts: { massG: 1400, floor } }, metric).text,
    ).toBe('1,400 g, 100 g under the minimum');
    expect(
      readinessWords({ ...reason, code: 'locked-recently', facts: { days: 1, restDays: 3 } }, metric).text,
    ).toBe('Locked 1 day ago');
    expect(againstPairWords({ code: 'sire-load-used-up', facts: {} }, metric)).toBe(
      'Male: no more females this season',
    );
  });

  test('a doubtful weight asks, with what was expected', () => {
    const expected = { lowG: 190, midG: 210, highG: 230 };
    const told = (massG: number): string => weightDoubtWords(weightDoubt(massG, expected)!, metric);
    expect(told(105)).toBe('105 g is 50% of what was expected: right animal? Expected 190 g to 230 g.');
    expect(told(420)).toBe('420 g is 2 times of what was expected: right animal? Expected 190 g to 230 g.');
    expect(told(180)).toBe('180 g is lighter than expected. Expected 190 g to 230 g.');
  });

  test('a concern, a heat fault, an alarm, a change of the room', () => {
    const concern = { since: '2026-05-14', records: [] };
    expect(
      concernWords(
        { ...concern, code: 'meals-refused', facts: { refused: 5, days: 38, chance: 1 / 2_345 } },
        metric,
      ),
    ).toEqual({
      text: '5 meals refused in a row, none taken for 38 days',
      why: 'By its own record and that of animals like it, fewer than one in 2,300 would do so by chance.',
    });
    expect(
      heatFaultWords({ code: 'off-target', facts: { side: 'cool', celsius: 30, targetC: 27.8 } }, metric),
    ).toBe('30.0°C on the cool side, not 27.8°C');
    expect(alarmWords({ code: 'silent', facts: { hours: null } }, metric)).toBe('No reading yet');
    expect(alarmWords({ code: 'silent', facts: { hours: 72 } }, metric)).toBe('No reading for 3 days');
    expect(
      roomChangeWords(
        { code: 'buy-places', facts: { places: [{ kind: 'Hatchling tub', count: 6 }] } },
        metric,
      ),
    ).toBe('Buy 6 places of Hatchling tub');
  });
});

describe('a share as a count', () => {
  test('is never further off than a tenth', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (p) => {
        const words = oneInWords(p);
        const [part, whole] = words.split(' in ').map(Number);
        const named: Record<string, number> = { 'nearly all': 1, 'hardly any': 0, half: 0.5 };
        expect(Math.abs((named[words] ?? part! / whole!) - p)).toBeLessThan(0.1);
      }),
    );
  });

  test('stands in what is expected', () => {
    expect(waitWords(eggs)).toBe('Day 36, 1 in 5 lay later than this');
    expect(waitWords({ ...eggs, day: 2, later: 1 })).toBe('Day 2: too early to lay');
    expect(waitWords({ ...eggs, day: 90, later: 0.001 })).toBe('Day 90, hardly any lay later than this');
    expect(cuttingWords({ protocol: 'unpipped-at-day', day: 60 })).toBe(
      'Your rule: what has not pipped by day 60 is cut.',
    );
  });
});

test('a record in one line', () => {
  expect(recordWords({ kind: 'weight', body: { massG: 342 } }, imperial)).toBe('12.06 oz');
  expect(
    recordWords(
      { kind: 'feeding', body: { species: 'rat', size: 'pup', state: 'frozen-thawed', taken: false } },
      metric,
    ),
  ).toBe('rat pup, frozen-thawed: refused');
  expect(
    recordWords({ kind: 'shed', body: { stage: 'shed', complete: false, eyeCaps: false } }, metric),
  ).toBe('has shed, in pieces, eye caps retained');
  const own = { everyDays: 5, share: 0.125, species: 'mouse', stayUntilG: 400 } as const;
  expect(recordWords({ kind: 'own-way', body: own }, metric)).toBe(
    'fed every 5 days, meals of 12.5% of its weight, mice, stays in its tub up to 400 g',
  );
  expect(recordWords({ kind: 'own-way', body: {} }, metric)).toBe('as the rules say');
  expect(mealWhy({ ...meal, notes: [{ code: 'gravid', facts: {} }] }, metric)).toMatch(
    /Gravid: passed over\.$/,
  );
});

test('a number of the pattern says its season, clutch and hatchling', () => {
  expect(numberWords('2604-02')).toBe('Season 2026, clutch 4, hatchling 2');
  expect(numberWords('Juniper')).toBeNull();
});
