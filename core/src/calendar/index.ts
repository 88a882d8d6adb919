export { addDays, daysBetween, isIsoDay, localDay, type IsoDay } from './days.ts';
export {
  clockIn,
  dayIn,
  hourIn,
  hoursOf,
  isTimeZone,
  latestDayOnEarth,
  momentsOf,
  offsetAt,
  startOfDay,
  type TimeZone,
} from './zones.ts';
