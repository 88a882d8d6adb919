import { deviceZone } from '../../format/farm-day.ts';

/** Every zone the browser knows, the device's own first. @param chosen - one that is set already, by whatever name */
export function zoneNames(chosen?: string | null): string[] {
  const first = [deviceZone(), ...(chosen ? [chosen] : []), 'UTC'];
  return [...new Set([...first, ...Intl.supportedValuesOf('timeZone')])];
}
