import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { History } from '../husbandry/history.ts';
import { addDays } from '../calendar/days.ts';
import { learnPace, type OfferSpell } from './pace.ts';
import { SALE_RULES, saleLacks } from './readiness.ts';
import {
  kindFor,
  mayFollow,
  STATUS_AFTER,
  STATUS_EVENT_KINDS,
  statusFrom,
  type AnimalStatus,
  type StatusEvent,
} from './status-event.ts';

const STATUSES = [...new Set(Object.values(STATUS_AFTER))] as AnimalStatus[];

describe('the status of an animal', () => {
  test('can be reached from where it hatches, by an event of its own', () => {
    for (const status of STATUSES) {
      expect(STATUS_AFTER[kindFor(status)]).toBe(status);
      if (status !== 'undecided') expect(mayFollow(kindFor(status), 'undecided'), status).toBe(true);
    }
  });

  test('what is not here any more cannot be sold, reserved or taken off sale', () => {
    for (const status of ['died', 'mistaken'] as const)
      for (const kind of ['sold', 'reserved', 'lapsed', 'gone-back', 'withdrawn', 'offered'] as const)
        expect(mayFollow(kind, status), `${kind} after ${status}`).toBe(false);
    expect(mayFollow('sold', 'sold')).toBe(false);
    expect(mayFollow('gone-back', 'sold')).toBe(true);
  });

  test('taking back what was done last always leads to where it was (property)', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...STATUSES),
        fc.array(fc.constantFrom(...STATUS_EVENT_KINDS), { maxLength: 12 }),
        (first, kinds) => {
          const events: StatusEvent[] = [];
          const seen: AnimalStatus[] = [first];
          for (const kind of kinds) {
            const before = seen.at(-1)!;
            if (!mayFollow(kind, before)) continue;
            events.push({ kind, before, isVoided: false });
            seen.push(STATUS_AFTER[kind]);
          }
          for (let i = events.length - 1; i >= 0; i--) {
            events[i] = { ...events[i]!, isVoided: true };
            expect(statusFrom(events)).toBe(seen[i]);
          }
        },
      ),
    );
    expect(statusFrom([])).toBeNull();
  });
});

// Three to five meals in a row, a clean shed: common practice, no source.
describe('ready for sale', () => {
  const history = (marks: string, more: Partial<History> = {}): History => ({
    hatchedOn: '2026-06-01',
    feedings: [...marks].map((mark, i) => ({
      id: `f${i}`,
      on: addDays('2026-07-01', 7 * i),
      taken: mark !== '-',
      ...(mark === 'a' ? { step: 'assist' } : {}),
    })),
    weights: [{ id: 'w', on: '2026-09-01', massG: 130 }],
    sheds: [{ id: 's', on: '2026-08-01', stage: 'shed', complete: true }],
    moves: [],
    ...more,
  });
  const codes = (of: History): string[] => saleLacks(of, SALE_RULES).map(({ code }) => code);

  test('meals count back from the last offer, up to a refusal or a meal that was helped with', () => {
    expect(codes(history('++++'))).toEqual([]);
    expect(codes(history('++++-'))).toEqual(['too-few-meals']);
    expect(saleLacks(history('+++a++'), SALE_RULES)).toEqual([
      { code: 'too-few-meals', facts: { inRow: 2, needed: 4 } },
    ]);
  });

  test('a refusal in shed, or just after a move, tells nothing and ends no row', () => {
    const moved = history('++++-', {
      moves: [{ id: 'm', on: '2026-07-28', fromTub: null, toTub: 'T1' }],
    });
    expect(codes(moved)).toEqual([]);
  });

  test('weight and shed, by the rules', () => {
    expect(codes(history('++++', { weights: [] }))).toEqual(['never-weighed']);
    expect(codes(history('++++', { weights: [{ id: 'w', on: '2026-09-01', massG: 119 }] }))).toEqual([
      'too-light',
    ]);
    expect(codes(history('++++', { sheds: [] }))).toEqual(['no-shed-recorded']);
    const pieces = history('++++', {
      sheds: [{ id: 's', on: '2026-08-01', stage: 'shed', complete: false }],
    });
    expect(codes(pieces)).toEqual(['shed-in-pieces']);
    expect(saleLacks(pieces, { ...SALE_RULES, wholeShed: false })).toEqual([]);
  });
});

describe('the pace of sale', () => {
  const spell = (days: number, sold: boolean, hatchedOn: string | null = null): OfferSpell => ({
    hatchedOn,
    offeredOn: '2026-01-01',
    soldOn: sold ? addDays('2026-01-01', days) : null,
    endedOn: sold ? addDays('2026-01-01', days) : null,
  });

  test('is sales over time for sale, as the textbook has it for a constant hazard', () => {
    // Five sold after ten weeks each, five for sale for ten weeks still: 5 events in 100 weeks.
    const spells = [
      ...Array.from({ length: 5 }, () => spell(70, true)),
      ...Array.from({ length: 5 }, () => spell(0, false)),
    ];
    const learned = learnPace(spells, addDays('2026-01-01', 70))!;
    expect(learned).toMatchObject({ sold: 5, weeks: 100 });
    expect(learned.perWeek).toBeCloseTo(1 - Math.exp(-0.05), 12);
  });

  test('is not learned from a handful, and is nearer the truth the more there is (property)', () => {
    expect(
      learnPace(
        Array.from({ length: 4 }, () => spell(7, true)),
        '2026-06-01',
      ),
    ).toBeNull();
    // A known weekly chance, drawn week by week and cut off after a year.
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e9 }), fc.constantFrom(0.05, 0.1, 0.2), (seed, chance) => {
        let state = seed;
        const random = (): number => (state = (state * 48271) % 2147483647) / 2147483647;
        const spells = Array.from({ length: 600 }, () => {
          let week = 1;
          while (week <= 52 && random() >= chance) week++;
          return spell(7 * Math.min(week, 52), week <= 52);
        }).map((one) => (one.soldOn === null ? { ...one, endedOn: addDays('2026-01-01', 364) } : one));
        const { perWeek } = learnPace(spells, '2027-06-01')!;
        // Of geometric times, sales over weeks estimate the weekly chance; five standard errors of it.
        expect(Math.abs(-Math.log(1 - perWeek) - chance)).toBeLessThan(5 * (chance / Math.sqrt(500)));
      }),
      { numRuns: 20 },
    );
  });

  test('knows the middle age at which animals were offered', () => {
    const ages = [8, 10, 12, 14, 16].map((weeks) => spell(7, true, addDays('2026-01-01', -7 * weeks)));
    expect(learnPace(ages, '2026-06-01')!.offeredAtWeeks).toBe(12);
  });
});
