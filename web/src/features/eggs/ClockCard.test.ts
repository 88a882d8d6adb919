import type { ClutchView } from '@karyotome/contract';
import { addDays, incubationClock, learnWaits, SEASON_RULES, type SeasonRules } from '@karyotome/core';
import { describe, expect, test } from 'vitest';
import { mounted } from '../../../test/mounted.ts';
import { farmToday } from '../../format/format.ts';
import ClockCard from './ClockCard.vue';

const ago = (days: number): string => addDays(farmToday(), -days);

/** A clutch of that day, with the clock that the server would send. */
function clutch(
  day: number,
  more: { pippedOn?: string; checkedOn?: string[]; rules?: Partial<SeasonRules> } = {},
) {
  const laidOn = ago(day);
  return {
    laidOn,
    hatchedOn: null,
    counts: { good: 6, slugs: 0, pipped: 0, out: 0, died: 0, young: 0 },
    clock: incubationClock(
      {
        laidOn,
        setC: 31.4,
        means: new Map(),
        firstPipOn: more.pippedOn ?? null,
        checkedOn: more.checkedOn ?? [],
      },
      learnWaits([]).eggsToPip,
      { ...SEASON_RULES, ...more.rules },
      farmToday(),
    ),
  } as unknown as ClutchView;
}
const textOf = (one: ClutchView): string => mounted(ClockCard, { clutch: one }).text();

describe('the incubation clock', () => {
  test('on lay day: the whole way is ahead', () => {
    const text = textOf(clutch(0));
    expect(text).toContain('Day 0');
    expect(text).toContain('too early to pip');
    expect(text).toContain('Next look at the eggs in 15 days');
    expect(text).toContain('First young out of the egg');
  });

  test('a look that is due is said, one long missed is not made up for', () => {
    expect(textOf(clutch(16))).toContain('Next look at the eggs was due yesterday');
    expect(textOf(clutch(16, { checkedOn: [ago(1)] }))).toContain('Next look at the eggs in 7 days');
    expect(textOf(clutch(21))).toContain('Next look at the eggs in 2 days');
  });

  test('once pipped, the day of it stands instead of what is expected', () => {
    const text = textOf(clutch(57, { pippedOn: ago(2) }));
    expect(text).toContain('First pip on day 55, 2 days ago');
    expect(text).not.toContain('pip later than this');
  });

  test('each cutting protocol says what it does, with the caution where eggs are cut', () => {
    const at60 = textOf(clutch(50));
    expect(at60).toContain('what has not pipped by day 60 is cut');
    expect(at60).toContain('learned from somebody trained');
    const never = textOf(clutch(50, { rules: { cutting: 'never' } }));
    expect(never).toContain('eggs are never cut');
    expect(never).not.toContain('Fine scissors');
    const all = clutch(56, { rules: { cutting: 'after-first-pip' }, pippedOn: ago(0) });
    expect(textOf(all)).toContain('all others are cut');
  });

  test('the strip shows how far it is, and never beyond its end', () => {
    const wrapper = mounted(ClockCard, { clutch: clutch(32) });
    expect(wrapper.get('.gone').attributes('style')).toContain('width: 50%');
    const late = mounted(ClockCard, { clutch: clutch(80) });
    expect(
      parseFloat(/width: ([\d.]+)%/.exec(late.get('.gone').attributes('style')!)![1]!),
    ).toBeLessThanOrEqual(100);
  });
});
