import { addDays, type IsoDay } from '../calendar/days.ts';
import { task, type Task } from '../husbandry/task.ts';

/**
 * A rack is watched until no mites were seen for so many days: longer than eggs and young mites take to become adults.
 * Common practice, no source.
 */
export const MITE_WATCH_DAYS = 42;
/** All who live in a watched rack are looked through every so many days. Common practice, no source. */
export const MITE_CHECK_DAYS = 7;

/** A rack in which mites were seen. */
export interface MiteWatch {
  readonly lastSeenOn: IsoDay;
  /** If none are seen again. */
  readonly until: IsoDay;
  /** Animals that are to be looked through now, as given. */
  readonly toCheck: readonly string[];
  readonly of: number;
  /** The day since which the first of them is due; null where nobody is. */
  readonly dueOn: IsoDay | null;
}

/**
 * Who of a rack's animals is to be looked through for mites.
 *
 * @param lastSeenOn - the last day on which mites were seen on an animal that lived in this rack then
 * @param residents - who lives there now, each with the day of its last check on or after the first sighting; null without one
 * @returns null where the watch is over
 * @example miteWatch('2026-11-20', [{ id: 'A', checkedOn: '2026-11-20' }, { id: 'B', checkedOn: null }], '2026-11-21').toCheck // ["B"]
 */
export function miteWatch(
  lastSeenOn: IsoDay,
  residents: readonly { readonly id: string; readonly checkedOn: IsoDay | null }[],
  today: IsoDay,
): MiteWatch | null {
  const until = addDays(lastSeenOn, MITE_WATCH_DAYS);
  if (today > until) return null;
  // A check before the mites were seen last says nothing of them.
  const dueDays = residents.map(({ id, checkedOn }) => ({
    id,
    dueOn: checkedOn === null || checkedOn < lastSeenOn ? lastSeenOn : addDays(checkedOn, MITE_CHECK_DAYS),
  }));
  const due = dueDays.filter(({ dueOn }) => dueOn <= today);
  return {
    lastSeenOn,
    until,
    toCheck: due.map(({ id }) => id),
    of: residents.length,
    dueOn: due.length > 0 ? due.map(({ dueOn }) => dueOn).toSorted()[0]! : null,
  };
}

/**
 * The task of a watched rack, while somebody there is to be looked through.
 *
 * @example miteTasks({ lastSeenOn: '2026-11-20', until: '2027-01-01', toCheck: ['B'], of: 2, dueOn: '2026-11-20' }).map(({ code }) => code) // ["mite-check-due"]
 */
export function miteTasks({ lastSeenOn, until, toCheck, of, dueOn }: MiteWatch): Task[] {
  if (dueOn === null) return [];
  const facts = { lastSeenOn, until, everyDays: MITE_CHECK_DAYS, toCheck: toCheck.length, of };
  return [task({ code: 'mite-check-due', facts }, dueOn)];
}
