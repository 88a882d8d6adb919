import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addDays } from '../calendar/days.ts';
import { learn, quantile, wholeOdds } from '../numeric/whole-odds.ts';
import { forecastSeason, SEASON_EVENTS, type SeasonEvent } from './forecast.ts';
import { SEASON_RULES } from './rules.ts';
import { storedCandidates } from './stored-sperm.ts';
import { learnWaits } from './waits.ts';

/* What must hold whatever a season was like. */

const TODAY = '2026-05-14';
const ago = (days: number): string => addDays(TODAY, -days);
const WAITS = learnWaits([]);

const event = fc
  .record({
    kind: fc.constantFrom(...SEASON_EVENTS),
    days: fc.integer({ min: 0, max: 120 }),
    sire: fc.constantFrom('a', 'b', 'c'),
  })
  .map(({ kind, days, sire }): Omit<SeasonEvent, 'id'> => ({
    kind,
    on: ago(days),
    sireId: kind === 'ovulation' || kind === 'pre-lay-shed' ? null : sire,
  }));
const season = fc
  .array(event, { maxLength: 12 })
  .map((events) => events.map((one, i): SeasonEvent => ({ ...one, id: `${i}` })));

describe('where a season stands', () => {
  test('does not depend on the order in which its events were written down', () => {
    fc.assert(
      fc.property(season, fc.integer(), (events, seed) => {
        const shuffled = events.toSorted(
          (a, b) => ((Number(a.id) * 7919 + seed) % 13) - ((Number(b.id) * 7919 + seed) % 13),
        );
        const view = (list: readonly SeasonEvent[]) => {
          const forecast = forecastSeason(list, null, WAITS, TODAY);
          return { ...forecast, with: forecast.with.toSorted() };
        };
        expect(view(shuffled)).toEqual(view(events));
      }),
    );
  });

  test('only males that came in are with her, and none once there are eggs', () => {
    fc.assert(
      fc.property(season, (events) => {
        const came = new Set(
          events.filter(({ kind }) => kind === 'introduction').map(({ sireId }) => sireId),
        );
        for (const male of forecastSeason(events, null, WAITS, TODAY).with) expect(came).toContain(male);
        expect(forecastSeason(events, TODAY, WAITS, TODAY)).toMatchObject({
          stage: 'laid',
          with: [],
          expected: [],
        });
      }),
    );
  });

  test('what is expected lies ahead, in order', () => {
    fc.assert(
      fc.property(season, (events) => {
        for (const { from, middle, to, clutches } of forecastSeason(events, null, WAITS, TODAY).expected) {
          expect(from >= TODAY).toBe(true);
          expect(from <= middle && middle <= to).toBe(true);
          expect(clutches).toBe(0);
        }
      }),
    );
  });

  test('of two ovulations, or two sheds, the later one counts', () => {
    const twice = (kind: 'ovulation' | 'pre-lay-shed'): SeasonEvent[] => [
      { id: '1', kind, on: ago(40), sireId: null },
      { id: '2', kind, on: ago(12), sireId: null },
    ];
    expect(forecastSeason(twice('ovulation'), null, WAITS, TODAY).since).toBe(ago(12));
    expect(forecastSeason(twice('pre-lay-shed'), null, WAITS, TODAY).since).toBe(ago(12));
  });

  test('each day without eggs makes the rest of the wait no earlier', () => {
    const shedOn = ago(60);
    const events: SeasonEvent[] = [{ id: '1', kind: 'pre-lay-shed', on: shedOn, sireId: null }];
    let last = '';
    for (let day = 0; day <= 48; day++) {
      const { middle } = forecastSeason(events, null, WAITS, addDays(shedOn, day)).expected[0]!;
      expect(middle >= last).toBe(true);
      last = middle;
    }
  });
});

describe('waits that become one’s own', () => {
  const days = fc.array(fc.integer({ min: 24, max: 50 }), { maxLength: 30 });

  test('add up to one, whatever was observed, and count it', () => {
    fc.assert(
      fc.property(days, (observed) => {
        const past = observed.map((wait) => ({
          ovulatedOn: null,
          shedOn: ago(wait),
          laidOn: TODAY,
          pipDays: null,
        }));
        const { shedToEggs, ovulationToShed } = learnWaits(past);
        expect(shedToEggs.odds.odds.reduce((sum, p) => sum + p, 0)).toBeCloseTo(1, 9);
        expect(shedToEggs.observations).toBe(observed.length);
        expect(ovulationToShed.observations).toBe(0);
      }),
    );
  });

  test('with many clutches alike, the middle is theirs', () => {
    fc.assert(
      fc.property(fc.integer({ min: 26, max: 45 }), (wait) => {
        const past = Array.from({ length: 60 }, () => ({
          ovulatedOn: null,
          shedOn: ago(wait),
          laidOn: TODAY,
          pipDays: null,
        }));
        expect(Math.abs(quantile(learnWaits(past).shedToEggs.odds, 0.5) - wait)).toBeLessThanOrEqual(1);
      }),
    );
  });

  test('dates in the wrong order teach nothing', () => {
    const { shedToEggs } = learnWaits([{ ovulatedOn: TODAY, shedOn: TODAY, laidOn: ago(3), pipDays: null }]);
    expect(shedToEggs.observations).toBe(0);
  });

  test('an observation beyond all that was thought of counts at the edge', () => {
    const prior = wholeOdds(0, 4, () => 1);
    const learned = learn(prior, [99, -99], 2, 0);
    // By hand: two priors of 1/5 each and one whole at either end, over four.
    expect(learned.odds.odds.map((p) => +p.toFixed(9))).toEqual([0.35, 0.1, 0.1, 0.1, 0.35]);
  });
});

describe('stored sperm', () => {
  const mates = fc.uniqueArray(
    fc.record({ id: fc.constantFrom('a', 'b', 'c', 'd'), days: fc.integer({ min: 1, max: 900 }) }),
    { selector: ({ id }) => id, maxLength: 4 },
  );

  test('earlier mates together have the keeper’s share of all, nobody twice, late ones more', () => {
    fc.assert(
      fc.property(mates, fc.double({ min: 0.001, max: 0.5, noNaN: true }), (list, share) => {
        const present = [
          { id: 'a', weight: 2 },
          { id: 'x', weight: 1 },
        ];
        const earlier = list.map(({ id, days }) => ({ id, lastWithOn: ago(days) }));
        const rules = { ...SEASON_RULES, storedSpermShare: share };
        const stored = storedCandidates(earlier, present, rules, TODAY);
        const recent = list.filter(({ id, days }) => id !== 'a' && days <= SEASON_RULES.storedSpermDays);
        expect(stored.map(({ id }) => id).toSorted()).toEqual(recent.map(({ id }) => id).toSorted());
        if (stored.length === 0) return;
        const sum = stored.reduce((total, { weight }) => total + weight, 0);
        expect(sum / (sum + 3)).toBeCloseTo(share, 9);
        const byDay = recent
          .toSorted((a, b) => a.days - b.days)
          .map(({ id }) => stored.find((one) => one.id === id)!.weight);
        byDay.reduce((more, less) => {
          expect(more).toBeGreaterThanOrEqual(less - 1e-12);
          return less;
        });
      }),
    );
  });
});
