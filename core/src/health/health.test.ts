import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addDays, daysBetween } from '../calendar/days.ts';
import {
  NO_HEALTH_RECORDS,
  type DoseRecord,
  type HealthHistory,
  type TreatmentRecord,
} from './health-records.ts';
import { healthState } from './health-state.ts';
import { healthFlags, healthTasks, QUARANTINE_CHECK_DAYS, RECHECK_DAYS } from './health-tasks.ts';
import { MITE_CHECK_DAYS, MITE_WATCH_DAYS, miteTasks, miteWatch } from './mite-watch.ts';
import { treatmentCourses } from './treatment-course.ts';

const TODAY = '2026-11-28';
const ago = (days: number): string => addDays(TODAY, -days);
const ORDERED: TreatmentRecord = {
  id: 'r1',
  courseId: 'c1',
  on: ago(10),
  what: 'drops',
  dose: '1 drop',
  orderedBy: 'Dr. Vold',
  from: ago(10),
  everyDays: 2,
  timesADay: 1,
  doses: 4,
};
const dose = (ordinal: number, days: number, isGiven = true): DoseRecord => ({
  id: `d${ordinal}`,
  courseId: 'c1',
  on: ago(days),
  ordinal,
  isGiven,
});
const history = (more: Partial<HealthHistory>): HealthHistory => ({ ...NO_HEALTH_RECORDS, ...more });
const tasksOf = (more: Partial<HealthHistory>, today = TODAY) =>
  healthTasks(healthState(history(more), today), today);

describe('a course of treatment', () => {
  const next = (treatment: Partial<TreatmentRecord>, doses: readonly DoseRecord[]) =>
    treatmentCourses(history({ treatments: [{ ...ORDERED, ...treatment }], doses }), TODAY)[0]!.next;

  test('begins on its first day, goes on by its interval, and is over after its last dose', () => {
    expect(next({}, [])).toEqual({ ordinal: 1, dueOn: ago(10), timeOfDay: 1 });
    expect(next({}, [dose(1, 10)])).toEqual({ ordinal: 2, dueOn: ago(8), timeOfDay: 1 });
    expect(next({}, [dose(1, 10), dose(2, 8), dose(3, 6), dose(4, 4)])).toBeNull();
    expect(next({ doses: null }, [dose(1, 10), dose(2, 8), dose(3, 6), dose(4, 4)])).toMatchObject({
      ordinal: 5,
    });
  });

  test('a dose that comes late moves those after it: no two are due at once', () => {
    expect(next({}, [dose(1, 3)])).toEqual({ ordinal: 2, dueOn: ago(1), timeOfDay: 1 });
  });

  test('with two a day the second is due on the day of the first', () => {
    expect(next({ timesADay: 2 }, [dose(1, 0)])).toEqual({ ordinal: 2, dueOn: TODAY, timeOfDay: 2 });
    expect(next({ timesADay: 2 }, [dose(1, 0), dose(2, 0)])).toEqual({
      ordinal: 3,
      dueOn: addDays(TODAY, 2),
      timeOfDay: 1,
    });
  });

  test('a dose that was voided is the next again', () => {
    expect(next({}, [dose(1, 4), dose(3, 2)])).toMatchObject({ ordinal: 2 });
  });

  test('what was left out counts as logged, and is told apart', () => {
    const [course] = treatmentCourses(
      history({ treatments: [ORDERED], doses: [dose(1, 4), dose(2, 2, false)] }),
      TODAY,
    );
    expect(course).toMatchObject({ given: 1, leftOut: 1, next: { ordinal: 3 } });
  });

  test('one that was ended asks for nothing more', () => {
    const ended = history({ treatments: [ORDERED], ends: [{ id: 'e', courseId: 'c1', on: ago(1) }] });
    expect(treatmentCourses(ended, TODAY)[0]).toMatchObject({ next: null, endedOn: ago(1) });
    expect(healthState(ended, TODAY).courses).toEqual([]);
    // The day before it still ran.
    expect(healthState(ended, ago(2)).courses).toHaveLength(1);
  });

  test('logged on the day that it is due, every course ends after its doses, in the days that they take', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 7 }),
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 1, max: 30 }),
        (everyDays, timesADay, doses) => {
          const treatment = { ...ORDERED, everyDays, timesADay, doses };
          const logged: DoseRecord[] = [];
          for (let guard = 0; guard <= doses; guard++) {
            const end = addDays(TODAY, 365);
            const [course] = treatmentCourses(history({ treatments: [treatment], doses: logged }), end);
            if (course!.next === null) break;
            const { ordinal, dueOn } = course!.next;
            logged.push({ id: `d${ordinal}`, courseId: 'c1', on: dueOn, ordinal, isGiven: true });
          }
          expect(logged.map(({ ordinal }) => ordinal)).toEqual(
            Array.from({ length: doses }, (_, i) => i + 1),
          );
          const days = (Math.ceil(doses / timesADay) - 1) * everyDays;
          expect(daysBetween(treatment.from, logged.at(-1)!.on)).toBe(days);
        },
      ),
    );
  });
});

describe('what health asks for', () => {
  test('a dose on its day, and late after it', () => {
    const on = (today: string) => tasksOf({ treatments: [ORDERED], doses: [dose(1, 10)] }, today);
    expect(on(ago(9))).toEqual([]);
    expect(on(ago(8))).toMatchObject([
      { code: 'dose-due', dueOn: ago(8), facts: { ordinal: 2, of: 4, isLate: false } },
    ]);
    expect(on(TODAY)).toMatchObject([{ code: 'dose-due', facts: { ordinal: 2, isLate: true } }]);
  });

  test('signs are looked at again until a check finds nothing', () => {
    const seen = { id: 'h', on: ago(RECHECK_DAYS), signs: ['wheezing'] as const };
    expect(tasksOf({ checks: [seen] })).toMatchObject([
      { code: 'signs-recheck-due', dueOn: TODAY, facts: { signs: ['wheezing'], since: seen.on } },
    ]);
    expect(tasksOf({ checks: [{ ...seen, on: ago(1) }] })).toEqual([]);
    expect(tasksOf({ checks: [seen, { id: 'n', on: ago(1), signs: [] }] })).toEqual([]);
  });

  test('the beginning of signs is the first check since nothing was found', () => {
    const checks = [
      { id: '1', on: ago(30), signs: ['wound'] as const },
      { id: '2', on: ago(20), signs: [] },
      { id: '3', on: ago(9), signs: [], words: 'rubs its nose' },
      { id: '4', on: ago(5), signs: ['swelling'] as const },
    ];
    expect(healthState(history({ checks }), TODAY).openSigns).toEqual({
      record: '4',
      signs: ['swelling'],
      words: null,
      since: ago(9),
      lastOn: ago(5),
    });
  });

  test('a quarantine asks for a look every week, and on its last day for an end', () => {
    const quarantine = { id: 'q', on: ago(20), until: addDays(TODAY, 40), reason: 'new' as const };
    expect(tasksOf({ quarantines: [quarantine] })).toMatchObject([
      { code: 'quarantine-check-due', dueOn: addDays(ago(20), QUARANTINE_CHECK_DAYS) },
    ]);
    expect(tasksOf({ quarantines: [quarantine], checks: [{ id: 'h', on: ago(2), signs: [] }] })).toEqual([]);
    expect(tasksOf({ quarantines: [{ ...quarantine, until: TODAY }] })).toMatchObject([
      { code: 'quarantine-over', facts: { since: ago(20), until: TODAY, reason: 'new' } },
    ]);
    const ended = { id: 'e', on: ago(1), until: null, reason: 'new' as const };
    expect(tasksOf({ quarantines: [quarantine, ended] })).toEqual([]);
    // Begun again, it counts from then on.
    const again = { id: 'a', on: TODAY, until: addDays(TODAY, 30), reason: 'contact' as const };
    expect(healthState(history({ quarantines: [quarantine, ended, again] }), TODAY).quarantine).toMatchObject(
      {
        since: TODAY,
        reason: 'contact',
      },
    );
  });

  test('a visit that was arranged, until there was one', () => {
    const visits = [{ id: 'v', on: ago(14), veterinarian: 'Dr. Vold', nextOn: ago(0) }];
    expect(tasksOf({ visits })).toMatchObject([{ code: 'visit-due', dueOn: TODAY }]);
    expect(tasksOf({ visits: [...visits, { id: 'w', on: TODAY, veterinarian: 'Dr. Vold' }] })).toEqual([]);
  });

  test('what lies ahead is not known yet', () => {
    const ahead = history({
      checks: [{ id: 'h', on: addDays(TODAY, 1), signs: ['mites'] }],
      quarantines: [{ id: 'q', on: addDays(TODAY, 1), until: addDays(TODAY, 9), reason: 'new' }],
      treatments: [{ ...ORDERED, on: addDays(TODAY, 1) }],
    });
    const state = healthState(ahead, TODAY);
    expect(state).toEqual({
      lastCheckOn: null,
      openSigns: null,
      courses: [],
      quarantine: null,
      nextVisit: null,
    });
    expect(healthFlags(state)).toEqual([]);
  });
});

describe('mites in a rack', () => {
  test('all are to be looked through at once, then every week, until none were seen for six weeks', () => {
    const residents = [
      { id: 'found', checkedOn: ago(3) },
      { id: 'before', checkedOn: ago(5) },
      { id: 'since', checkedOn: ago(2) },
      { id: 'never', checkedOn: null },
    ];
    const watch = miteWatch(ago(3), residents, TODAY)!;
    expect(watch.toCheck).toEqual(['before', 'never']);
    expect(miteTasks(watch)).toMatchObject([
      {
        code: 'mite-check-due',
        dueOn: ago(3),
        facts: { toCheck: 2, of: 4, until: addDays(ago(3), MITE_WATCH_DAYS) },
      },
    ]);
    const later = addDays(ago(2), MITE_CHECK_DAYS);
    expect(miteWatch(ago(3), residents, later)!.toCheck).toEqual(['found', 'before', 'since', 'never']);
    expect(miteWatch(ago(MITE_WATCH_DAYS + 1), residents, TODAY)).toBeNull();
  });

  test('nothing is asked while all were looked through', () => {
    expect(miteTasks(miteWatch(ago(3), [{ id: 'a', checkedOn: ago(1) }], TODAY)!)).toEqual([]);
  });
});
