import { addDays, daysBetween, type IsoDay } from '../calendar/days.ts';
import {
  chanceAbove,
  givenAtLeast,
  quantile,
  sumOf,
  type Learned,
  type WholeOdds,
} from '../numeric/whole-odds.ts';
import type { Waits } from './waits.ts';

export const SEASON_EVENTS = ['introduction', 'lock', 'separation', 'ovulation', 'pre-lay-shed'] as const;
export type SeasonEventKind = (typeof SEASON_EVENTS)[number];
/** These name the male. */
export const EVENTS_WITH_MALE = [
  'introduction',
  'lock',
  'separation',
] as const satisfies readonly SeasonEventKind[];

/** A dated event of one female's season. Introductions, locks and separations name the male. */
export interface SeasonEvent {
  readonly id: string;
  readonly kind: SeasonEventKind;
  readonly on: IsoDay;
  readonly sireId: string | null;
}

export type SeasonStage = 'open' | 'together' | 'apart' | 'ovulated' | 'pre-lay' | 'laid';

/** A day that is expected, as a span of days instead of a single date. */
export interface Expected {
  readonly what: 'pre-lay-shed' | 'eggs' | 'first-pip';
  /** Eight in ten fall between these days; the middle one is as often early as late. */
  readonly from: IsoDay;
  readonly middle: IsoDay;
  readonly to: IsoDay;
  /** Days since the wait began, and the share of animals for which it lasts longer than that, 0 to 1. */
  readonly day: number;
  readonly later: number;
  /** Clutches of the keeper's own that it rests on. */
  readonly clutches: number;
}

export interface SeasonForecast {
  readonly stage: SeasonStage;
  /** Since when; null while nothing has happened. */
  readonly since: IsoDay | null;
  /** Males that are with her now. */
  readonly with: readonly string[];
  readonly locks: number;
  readonly expected: readonly Expected[];
}

/**
 * Where a female's season stands and what is expected next.
 *
 * @param events - the valid ones, in any order
 * @param laidOn - the day of her clutch of this season, if there is one
 * @example forecastSeason([{ id: 'e1', kind: 'introduction', on: '2026-01-02', sireId: 'M1' }], null, learnWaits([]), '2026-01-05').stage // "together"
 */
export function forecastSeason(
  events: readonly SeasonEvent[],
  laidOn: IsoDay | null,
  waits: Waits,
  today: IsoDay,
): SeasonForecast {
  const sorted = inOrder(events);
  const last = (kind: SeasonEventKind): IsoDay | null =>
    sorted.findLast((event) => event.kind === kind)?.on ?? null;
  const together = malesWith(events);
  const base = { with: together, locks: sorted.filter(({ kind }) => kind === 'lock').length };
  if (laidOn !== null) return { ...base, with: [], stage: 'laid', since: laidOn, expected: [] };
  const shedOn = last('pre-lay-shed');
  if (shedOn !== null) {
    const expected = expect('eggs', shedOn, waits.shedToEggs, today);
    return { ...base, stage: 'pre-lay', since: shedOn, expected: [expected] };
  }
  const ovulatedOn = last('ovulation');
  if (ovulatedOn !== null) {
    const { ovulationToShed, shedToEggs } = waits;
    const toEggs: Learned = {
      odds: sumOf(ovulationToShed.odds, shedToEggs.odds),
      observations: Math.min(ovulationToShed.observations, shedToEggs.observations),
    };
    return {
      ...base,
      stage: 'ovulated',
      since: ovulatedOn,
      expected: [
        expect('pre-lay-shed', ovulatedOn, ovulationToShed, today),
        expect('eggs', ovulatedOn, toEggs, today),
      ],
    };
  }
  if (together.length > 0) {
    const since = sorted.findLast(({ kind }) => kind === 'introduction')!.on;
    return { ...base, stage: 'together', since, expected: [] };
  }
  return sorted.length > 0
    ? { ...base, stage: 'apart', since: sorted.at(-1)!.on, expected: [] }
    : { ...base, stage: 'open', since: null, expected: [] };
}

/** On one day the male comes in before he locks and leaves. */
const order = ({ kind }: SeasonEvent): number => SEASON_EVENTS.indexOf(kind);
const inOrder = (events: readonly SeasonEvent[]): SeasonEvent[] =>
  events.toSorted((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : order(a) - order(b)));

/**
 * The males that are with a female who has not laid yet.
 *
 * @example malesWith([{ id: 'e', kind: 'introduction', on: '2026-01-02', sireId: 'M1' }]) // ["M1"]
 */
export function malesWith(events: readonly SeasonEvent[]): string[] {
  const inside = new Set<string>();
  for (const { kind, sireId } of inOrder(events)) {
    if (sireId === null) continue;
    if (kind === 'introduction') inside.add(sireId);
    if (kind === 'separation') inside.delete(sireId);
  }
  return [...inside];
}

function expect(what: Expected['what'], from: IsoDay, wait: Learned, today: IsoDay): Expected {
  const day = daysBetween(from, today);
  const later = chanceAbove(wait.odds, day);
  const rest: WholeOdds = givenAtLeast(wait.odds, Math.max(day, wait.odds.first)) ?? {
    first: day,
    odds: [1],
  };
  const on = (q: number): IsoDay => addDays(from, quantile(rest, q));
  return {
    what,
    from: on(0.1),
    middle: on(0.5),
    to: on(0.9),
    day,
    later,
    clutches: wait.observations,
  };
}
