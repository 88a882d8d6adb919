import type { BoardFemale, BoardMale } from '@karyotome/contract';
import { CATALOGUE } from '@karyotome/core';
import { describe, expect, test } from 'vitest';
import { against, LOCKED_TODAY, ago, boardFemale, boardMale, forecast } from '../../../test/board.ts';
import { farmToday } from '../../format/format.ts';
import {
  introductionCautions,
  siresWords,
  spanWords,
  stageWords,
  trendWords,
  maleUseWords,
} from './season-words.ts';

/** Her pairing has a candidate of this season and one of stored sperm. */
const female = (
  number: string,
  pairing: Parameters<typeof boardFemale>[0],
  more: Partial<BoardFemale> = {},
) =>
  boardFemale(
    pairing && {
      sires: [
        { id: 'm', number: 'M-1', weight: 1, stored: false },
        { id: 'n', number: 'M-2', weight: 0.02, stored: true },
      ],
      ...pairing,
    },
    { id: number, number, label: 'Normal', ...more },
  );
const male = (number: string, more: Partial<BoardMale> = {}) =>
  boardMale({ id: number, number, label: 'Normal', ...more });

describe('where a female stands', () => {
  test.each([
    [
      female('A', { forecast: forecast('together', ago(1), { with: ['m'], locks: 1 }) }),
      'With M-1 since yesterday, 1 lock',
    ],
    [female('A', { forecast: forecast('apart', ago(4), { locks: 2 }) }), 'Alone for 4 days, 2 locks'],
    [female('A', { forecast: forecast('ovulated', ago(10)) }), 'Ovulated 10 days ago'],
    [female('A', { forecast: forecast('pre-lay', ago(36)) }), 'Pre-lay shed 36 days ago'],
    [female('A', null), 'Ready'],
    [
      female('A', null, {
        readiness: {
          ready: false,
          fastingDays: null,
          reasons: [
            {
              side: 'against',
              code: 'under-floor',
              facts: { massG: 1420, floor: { of: 'females', floorG: 1500, fromYears: null } },
              records: [],
            },
          ],
        },
      }),
      '1,420 g, 80 g under the minimum',
    ],
  ])('%#', (one, words) => expect(stageWords(one)).toBe(words));

  test('candidates of stored sperm are said apart', () => {
    expect(siresWords(female('A', {}))).toBe('M-1; stored: M-2');
    expect(siresWords(female('A', null))).toBe('');
  });

  test('an expected day is a span, with the year only where it changes', () => {
    const span = (from: string, to: string) =>
      spanWords({ what: 'eggs', from, middle: from, to, day: 0, later: 1, clutches: 0 });
    expect(span('2026-11-25', '2026-12-06')).toBe('eggs 25 Nov to 6 Dec');
    expect(span('2026-12-30', '2027-01-11')).toBe('eggs 30 Dec 2026 to 11 Jan 2027');
    expect(span('2026-12-30', '2026-12-30')).toBe('eggs about 30 Dec');
  });
});

describe('males', () => {
  test('their use and trend in words', () => {
    expect(maleUseWords(male('M', { females: 2, lastLockOn: ago(3) }), 5)).toBe(
      '2 of 5 females, locked 3 days ago',
    );
    const weights = [
      { on: ago(300), massG: 500 },
      { on: ago(100), massG: 1000 },
      { on: ago(2), massG: 950 },
    ];
    expect(trendWords(weights, farmToday())).toMatch(/^5% down since /);
    expect(trendWords(weights.slice(2), farmToday())).toBe('');
  });
});

test('before two are introduced: the young first, then her, then him', () => {
  const cautions = introductionCautions(
    female('F', null, {
      label: 'Spider',
      readiness: against({ code: 'laid-recently', facts: { days: 20, restDays: 120 } }),
    }),
    male('M', { label: 'Spider', readiness: against(LOCKED_TODAY) }),
    [],
    CATALOGUE,
  );
  expect(cautions.at(-2)).toBe('F: Laid 20 days ago');
  expect(cautions.at(-1)).toBe('M: Locked today');
  expect(cautions.length).toBeGreaterThan(2);
  expect(introductionCautions(female('F', null), male('M'), [], CATALOGUE)).toEqual([]);
  const related = [{ id: 'F', inbreeding: 0.25 }];
  const gravid = female('F', { forecast: forecast('ovulated', ago(3)) });
  expect(introductionCautions(gravid, male('M'), related, CATALOGUE)).toEqual([
    'They are related: their young would be inbred by 25%, over your bound',
    'F: on her way to eggs, and usually left alone from now on',
  ]);
});
