import { DEFAULT_LOCALE, Reader, type ReaderSettings } from '@karyotome/words';
import { shallowRef } from 'vue';

/*
 * Who reads here: numbers and dates as the browser has them, units as the collection has them. Units come with the session;
 * until then grams and degrees Celsius stand in.
 */

/** The browser's locale. */
export const readerLocale = (): string => navigator.language || DEFAULT_LOCALE;

const current = shallowRef(new Reader({ locale: readerLocale(), massUnit: 'g', temperatureUnit: 'C' }));

/** The reader of this page; what is rendered with it follows a change of units. */
export const reader = (): Reader => current.value;

/** From now on masses and temperatures are told in these units. */
export function setUnits({ massUnit, temperatureUnit }: Omit<ReaderSettings, 'locale'>): void {
  current.value = new Reader({ locale: readerLocale(), massUnit, temperatureUnit });
}
