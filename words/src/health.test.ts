import { describe, expect, test } from 'vitest';
import { courseProgressWords, handlingFlagWords, recordWords } from './index.ts';
import { metric } from './test-facts.ts';

describe('records of health in one line', () => {
  const words = (record: Parameters<typeof recordWords>[0]): string => recordWords(record, metric);

  test('a check, with what was seen and what has no name', () => {
    expect(words({ kind: 'health-check', body: { signs: [] } })).toBe('nothing found');
    expect(words({ kind: 'health-check', body: { signs: ['mites', 'thin'], words: 'at the chin' } })).toBe(
      'mites, thin, spine stands out; at the chin',
    );
  });

  test('a treatment as it was ordered, and its doses', () => {
    const ordered = { what: 'Drops', dose: '1 drop', orderedBy: 'Dr. Vold', from: '2026-05-01' };
    expect(words({ kind: 'treatment', body: { ...ordered, everyDays: 1, timesADay: 1, doses: 14 } })).toBe(
      'Drops, 1 drop once a day, 14 doses, ordered by Dr. Vold, from 1 May 2026',
    );
    expect(words({ kind: 'treatment', body: { ...ordered, everyDays: 3, timesADay: 2, doses: null } })).toBe(
      'Drops, 1 drop 2 times a day, every 3 days, until it is ended, ordered by Dr. Vold, from 1 May 2026',
    );
    expect(words({ kind: 'dose', body: { courseId: 'c', ordinal: 3, isGiven: false } })).toBe(
      'dose 3 left out',
    );
    expect(courseProgressWords({ given: 3, leftOut: 1, doses: 14 }, metric)).toBe(
      '3 of 14 doses given, 1 left out',
    );
    expect(courseProgressWords({ given: 1, leftOut: 0, doses: null }, metric)).toBe('1 dose given');
  });

  test('a quarantine, and its end', () => {
    expect(words({ kind: 'quarantine', body: { until: '2026-08-01', reason: 'new' } })).toBe(
      'until 1 Aug 2026, newly arrived',
    );
    expect(words({ kind: 'quarantine', body: { until: null, reason: 'new' } })).toBe('ended');
  });

  test('what to know before touching it', () => {
    const flag = { signs: ['wound'], words: null, since: '2026-05-01', lastOn: '2026-05-03' } as const;
    expect(handlingFlagWords({ code: 'signs-seen', facts: flag }, metric)).toBe('Wound, since 1 May 2026');
    expect(handlingFlagWords({ code: 'in-quarantine', facts: { until: '2026-08-01' } }, metric)).toBe(
      'in quarantine until 1 Aug 2026: last on the round',
    );
  });
});
