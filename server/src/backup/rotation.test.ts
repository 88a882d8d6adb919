import fc from 'fast-check';
import { DateTime } from 'luxon';
import { expect, test } from 'vitest';
import { backupName, backupsToRemove, KEPT, KEPT_BEFORE_MIGRATION, readBackupName } from './rotation.ts';

const DAY_MS = 86_400_000;
const at = (text: string): Date => new Date(text);
const nights = (days: number): string[] =>
  Array.from({ length: days }, (_, i) =>
    backupName('regular', new Date(Date.parse('2026-11-30T03:10:00Z') - i * DAY_MS)),
  );

test('names say what they are, and come back', () => {
  const moment = at('2026-11-30T03:10:07Z');
  expect(backupName('regular', moment)).toBe('karyotome-20261130T031007Z.zip');
  for (const kind of ['regular', 'before-migration'] as const)
    expect(readBackupName(backupName(kind, moment))).toEqual({ kind, at: moment });
  for (const other of ['karyotome.zip', 'notes.txt', 'karyotome-20261130T031007Z.zip.part', ''])
    expect(readBackupName(other)).toBeNull();
});

test('of three years of nights, 7 days, 5 weeks and 12 months are left', () => {
  const names = nights(3 * 365);
  const removed = new Set(backupsToRemove(names));
  const left = names.filter((name) => !removed.has(name));
  // By hand: 30 November 2026 is a Monday. Days 30 to 24; weeks that begin on 30, 23, 16, 9 and 2; months from November back.
  expect(left.map((name) => name.slice(10, 18))).toEqual([
    ...['20261130', '20261129', '20261128', '20261127', '20261126', '20261125', '20261124'],
    ...['20261122', '20261115', '20261108', '20261031', '20260930', '20260831', '20260731'],
    ...['20260630', '20260531', '20260430', '20260331', '20260228', '20260131', '20251231'],
  ]);
  expect(backupsToRemove(left)).toEqual([]);
});

test('the newest of each period is kept, whatever there is: periods counted by another library', () => {
  const moments = fc.array(fc.date({ min: at('2024-12-01T00:00:00Z'), max: at('2027-01-31T00:00:00Z') }), {
    maxLength: 60,
  });
  fc.assert(
    fc.property(moments, (dates) => {
      const names = [...new Set(dates.filter((date) => !isNaN(+date)).map((d) => backupName('regular', d)))];
      const removed = new Set(backupsToRemove([...names, 'of-somebody-else.zip']));
      expect(removed.has('of-somebody-else.zip')).toBe(false);
      const wanted = new Set<string>();
      for (const [count, format] of [
        [KEPT.days, 'yyyy-MM-dd'],
        [KEPT.weeks, "kkkk-'W'WW"],
        [KEPT.months, 'yyyy-MM'],
      ] as const) {
        const newest = new Map<string, string>();
        for (const name of names.toSorted()) {
          const moment = DateTime.fromJSDate(readBackupName(name)!.at, { zone: 'utc' });
          newest.set(moment.toFormat(format), name);
        }
        for (const name of [...newest.values()].toSorted().slice(-count)) wanted.add(name);
      }
      expect(names.filter((name) => !removed.has(name)).toSorted()).toEqual([...wanted].toSorted());
    }),
  );
});

test('those of before a migration are kept apart', () => {
  const before = Array.from({ length: 5 }, (_, i) =>
    backupName('before-migration', new Date(Date.parse('2020-01-01T00:00:00Z') + i * DAY_MS)),
  );
  expect(backupsToRemove([...before, ...nights(2)])).toEqual(
    before.toReversed().slice(KEPT_BEFORE_MIGRATION),
  );
});
