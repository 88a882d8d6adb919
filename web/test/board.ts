import type { BoardFemale, BoardMale } from '@karyotome/contract';
import { addDays, type Readiness, type ReadinessReason, type SeasonForecast } from '@karyotome/core';
import { farmToday } from '../src/format/format.ts';

/* Animals as they stand on the season board. */

export const ago = (days: number): string => addDays(farmToday(), -days);
export const READY = { ready: true, reasons: [], fastingDays: null };
export const against = (
  reason: Pick<ReadinessReason, 'code' | 'facts'>,
  fastingDays: number | null = null,
): Readiness => ({
  ready: false,
  fastingDays,
  reasons: [{ ...(reason as ReadinessReason), side: 'against', records: [] }],
});
export const LOCKED_TODAY = { code: 'locked-recently', facts: { days: 0, restDays: 3 } } as const;

export const forecast = (
  stage: SeasonForecast['stage'],
  since: string | null = ago(3),
  more: Partial<SeasonForecast> = {},
): SeasonForecast => ({ stage, since, with: [], locks: 0, expected: [], ...more });

type Pairing = NonNullable<BoardFemale['pairing']>;

/** A female with her pairing of the season; null before the first introduction. */
export function boardFemale(pairing: Partial<Pairing> | null, more: Partial<BoardFemale> = {}): BoardFemale {
  return {
    id: 'f',
    group: 'ready',
    number: 'F-1',
    name: 'Bramble',
    label: 'Pastel',
    massG: 1800,
    lastMealOn: ago(5),
    hatchedOn: ago(1500),
    floorG: 1500,
    lastClutch: null,
    readiness: READY,
    pairing: pairing && {
      id: 'p',
      version: 1,
      sires: [{ id: 'm', number: 'M-1', weight: 1, stored: false }],
      events: [],
      forecast: forecast('open', null),
      clutch: null,
      cautions: [],
      ...pairing,
    },
    ...more,
  };
}

export const boardMale = (more: Partial<BoardMale> = {}): BoardMale => ({
  id: 'm',
  group: 'ready',
  number: 'M-1',
  name: 'Rook',
  label: 'Clown',
  massG: 900,
  weights: [],
  females: 0,
  locks: 0,
  lastLockOn: null,
  with: null,
  readiness: READY,
  ...more,
});
