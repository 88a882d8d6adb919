import { deviceZone } from '../../format/farm-day.ts';

/** Every zone the browser knows, the device's own first. */
export function zoneNames(): string[] {
  const own = deviceZone();
  const known = Intl.supportedValuesOf('timeZone');
  return [own, ...['UTC', ...known].filter((name, i, all) => name !== own && all.indexOf(name) === i)];
}
