import ICAL from 'ical.js';
import { describe, expect, test } from 'vitest';
import type { DueDay } from './due-days.ts';
import { toCalendar } from './feeds.ts';

const STAMP = new Date('2026-05-14T21:30:00Z');
const due = (more: Partial<DueDay> = {}): DueDay => ({
  id: 'eggs-1',
  from: '2026-05-20',
  to: '2026-05-20',
  title: 'Check the eggs of 2605',
  text: 'Day 33',
  ...more,
});
const written = (days: DueDay[]): string => toCalendar('Thistlecote Burrow', days, STAMP);
/** As another program reads it. */
function read(text: string) {
  const calendar = new ICAL.Component(ICAL.parse(text) as unknown[]);
  return {
    calendar,
    events: calendar.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one)),
  };
}

describe('a calendar by RFC 5545', () => {
  test('3.4 and 3.6: begins and ends, names its version and maker, and holds the events', () => {
    const text = written([due(), due({ id: 'eggs-2' })]);
    expect(text.startsWith('BEGIN:VCALENDAR\r\n')).toBe(true);
    expect(text.trimEnd().endsWith('END:VCALENDAR')).toBe(true);
    const { calendar, events } = read(text);
    expect(calendar.getFirstPropertyValue('version')).toBe('2.0');
    expect(calendar.getFirstPropertyValue('prodid')).toContain('Karyotome');
    expect(events.map(({ uid }) => uid)).toEqual(['eggs-1@karyotome', 'eggs-2@karyotome']);
  });

  test('3.1: lines end with CR LF and are folded at 75 octets', () => {
    const text = written([due({ text: 'Ägg '.repeat(80) })]);
    expect(text.replaceAll('\r\n', '')).not.toContain('\n');
    for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
    expect(read(text).events[0]!.description.trim()).toBe('Ägg '.repeat(80).trim());
  });

  test('3.3.11: commas, semicolons, backslashes and new lines come through as they were', () => {
    const title = 'F-07, day 57; "hatching" \\ look';
    const [event] = read(written([due({ title, text: 'one\ntwo, three' })])).events;
    expect(event!.summary).toBe(title);
    expect(event!.description).toBe('one\ntwo, three');
  });

  test('3.6.1: an all-day event ends on the day after its last, across months and leap days', () => {
    for (const [from, to, end] of [
      ['2026-05-20', '2026-05-20', '2026-05-21'],
      ['2026-05-28', '2026-05-31', '2026-06-01'],
      ['2028-02-28', '2028-02-28', '2028-02-29'],
      ['2026-12-30', '2026-12-31', '2027-01-01'],
    ] as const) {
      const [event] = read(written([due({ from, to })])).events;
      expect(event!.startDate.isDate).toBe(true);
      expect([event!.startDate.toString(), event!.endDate.toString()]).toEqual([from, end]);
    }
  });

  test('3.8.7.2: every event says when it was written', () => {
    const [event] = read(written([due()])).calendar.getAllSubcomponents('vevent');
    expect(String(event!.getFirstPropertyValue('dtstamp'))).toBe('2026-05-14T21:30:00Z');
  });

  test('nothing due is a calendar without events, and still one that can be read', () => {
    expect(read(written([])).events).toEqual([]);
  });
});
