import { GRAMS_PER_UNIT } from '@karyotome/core';

/** How one reader wants to be told: the locale for numbers and dates, and the units. */
export interface ReaderSettings {
  /** A BCP 47 language tag, such as `en-GB`. */
  readonly locale: string;
  readonly massUnit: 'g' | 'oz';
  readonly temperatureUnit: 'C' | 'F';
}

/** Where nobody says otherwise: days are written day, month, year. */
export const DEFAULT_LOCALE = 'en-GB';

export const GRAMS_PER_OUNCE = GRAMS_PER_UNIT.oz;

/**
 * A unit as numbers are typed in it. What is typed comes back as it was; what is stored, grams or degrees Celsius, is exact
 * to a thousandth.
 */
export interface Unit {
  readonly symbol: string;
  readonly toShown: (stored: number) => number;
  readonly toStored: (shown: number) => number;
}

const rounded = (value: number, digits: number): number => Number(value.toFixed(digits));
const toFahrenheit = (celsius: number): number => (celsius * 9) / 5 + 32;

/** Stored in grams. */
export const MASS_UNITS: Readonly<Record<ReaderSettings['massUnit'], Unit>> = {
  g: { symbol: 'g', toShown: (massG) => massG, toStored: (shown) => shown },
  oz: {
    symbol: 'oz',
    toShown: (massG) => rounded(massG / GRAMS_PER_OUNCE, 2),
    toStored: (shown) => rounded(shown * GRAMS_PER_OUNCE, 3),
  },
};
/** Stored in degrees Celsius. */
export const TEMPERATURE_UNITS: Readonly<Record<ReaderSettings['temperatureUnit'], Unit>> = {
  C: { symbol: '°C', toShown: (celsius) => celsius, toStored: (shown) => shown },
  F: {
    symbol: '°F',
    toShown: (celsius) => rounded(toFahrenheit(celsius), 1),
    toStored: (shown) => rounded(((shown - 32) * 5) / 9, 3),
  },
};

/** The phrases are English, whatever the locale of numbers and dates. */
const PLURALS = new Intl.PluralRules('en');
const OR = new Intl.ListFormat('en-GB', { type: 'disjunction' });
/** One of several: "A, B or C". */
export const anyOf = (words: readonly string[]): string => OR.format(words);

const AND = new Intl.ListFormat('en-GB', { type: 'conjunction' });
const RELATIVE_DAYS = new Intl.RelativeTimeFormat('en', { numeric: 'auto' });

/** More days away than this, a day is told by its date. */
const RELATIVE_UP_TO_DAYS = 60;

/** Writes numbers, masses, temperatures and days as one reader wants them. */
export class Reader {
  readonly settings: ReaderSettings;
  readonly #numbers = new Map<string, Intl.NumberFormat>();
  readonly #days: Intl.DateTimeFormat;
  readonly #shortDays: Intl.DateTimeFormat;
  readonly #clock: Intl.DateTimeFormat;

  constructor(settings: ReaderSettings) {
    this.settings = settings;
    // Days are calendar days: they are the same in every time zone.
    const day = { day: 'numeric', month: 'short', timeZone: 'UTC' } as const;
    this.#days = new Intl.DateTimeFormat(settings.locale, { ...day, year: 'numeric' });
    this.#shortDays = new Intl.DateTimeFormat(settings.locale, day);
    this.#clock = new Intl.DateTimeFormat(settings.locale, {
      hour: '2-digit',
      minute: '2-digit',
      timeZone: 'UTC',
    });
  }

  /** "7.6 MB". @param bytes - a file's, or several files' */
  fileSize(bytes: number): string {
    const [divisor, unit] =
      bytes >= 1e9 ? [1e9, 'gigabyte'] : bytes >= 1e6 ? [1e6, 'megabyte'] : [1e3, 'kilobyte'];
    return new Intl.NumberFormat(this.settings.locale, {
      style: 'unit',
      unit,
      maximumFractionDigits: 1,
    }).format(bytes / divisor);
  }

  get massUnit(): Unit {
    return MASS_UNITS[this.settings.massUnit];
  }

  get temperatureUnit(): Unit {
    return TEMPERATURE_UNITS[this.settings.temperatureUnit];
  }

  #number(options: Intl.NumberFormatOptions): Intl.NumberFormat {
    const key = JSON.stringify(options);
    const known = this.#numbers.get(key) ?? new Intl.NumberFormat(this.settings.locale, options);
    this.#numbers.set(key, known);
    return known;
  }

  /** @param digits - the most digits after the decimal mark */
  number(value: number, digits = 0): string {
    return this.#number({ maximumFractionDigits: digits }).format(value);
  }

  /** @param share - 0 to 1 @param digits - the most digits after the decimal mark */
  percent(share: number, digits = 0): string {
    return this.#number({ style: 'percent', maximumFractionDigits: digits }).format(share);
  }

  /** "€450", "€449.50" @param currency - ISO 4217 */
  money(amount: number, currency: string): string {
    const trailingZeroDisplay = 'stripIfInteger';
    return this.#number({ style: 'currency', currency, trailingZeroDisplay }).format(amount);
  }

  /** "342 g", "26.5 g" under 100 g, "12.06 oz". @param massG - grams */
  mass(massG: number): string {
    if (this.settings.massUnit === 'oz') {
      const digits = { minimumFractionDigits: 2, maximumFractionDigits: 2 };
      return this.#number({ style: 'unit', unit: 'ounce', ...digits }).format(massG / GRAMS_PER_OUNCE);
    }
    const maximumFractionDigits = Math.abs(massG) < 100 ? 1 : 0;
    return this.#number({ style: 'unit', unit: 'gram', maximumFractionDigits }).format(massG);
  }

  /** "310 g to 342 g" @param lowG - grams */
  massSpan(lowG: number, highG: number): string {
    return `${this.mass(lowG)} to ${this.mass(highG)}`;
  }

  /** "31.5°C", "88.7°F" @param celsius - degrees Celsius */
  temperature(celsius: number): string {
    const isF = this.settings.temperatureUnit === 'F';
    const digits = { minimumFractionDigits: 1, maximumFractionDigits: 1 };
    const unit = isF ? 'fahrenheit' : 'celsius';
    return this.#number({ style: 'unit', unit, ...digits }).format(isF ? toFahrenheit(celsius) : celsius);
  }

  /** "4 Mar 2026" in `en-GB`, "Mar 4, 2026" in `en-US`. @param day - ISO 8601 */
  day(day: string): string {
    return this.#days.format(dateOf(day));
  }

  /** "4 Mar", where the year goes without saying. */
  shortDay(day: string): string {
    return this.#shortDays.format(dateOf(day));
  }

  /** "25 Nov to 6 Dec", with the years where they differ; "about 25 Nov" for one day. */
  daySpan(from: string, to: string): string {
    if (from === to) return `about ${this.shortDay(from)}`;
    const isOneYear = from.slice(0, 4) === to.slice(0, 4);
    return isOneYear
      ? `${this.shortDay(from)} to ${this.shortDay(to)}`
      : `${this.day(from)} to ${this.day(to)}`;
  }

  /** @param clock - `YYYY-MM-DDTHH:MM`, as clocks show it where it is told @returns "4 Mar 2026, 21:30" */
  moment(clock: string): string {
    return `${this.day(clock.slice(0, 10))}, ${this.timeOfDay(clock)}`;
  }

  /** "21:30", "9:30 PM" @param clock - `YYYY-MM-DDTHH:MM` */
  timeOfDay(clock: string): string {
    return this.#clock.format(new Date(`${clock.slice(0, 16)}:00Z`));
  }

  /** "1 meal", "3 meals" */
  count(n: number, one: string, other: string): string {
    return `${this.number(n)} ${PLURALS.select(n) === 'one' ? one : other}`;
  }

  days(n: number): string {
    return this.count(n, 'day', 'days');
  }

  /** "5 weeks", "14 months", "3.2 years" @param days - since hatching */
  age(days: number): string {
    if (days < 21) return this.days(days);
    if (days < 120) return `${Math.round(days / 7)} weeks`;
    if (days < 730) return `${Math.round(days / 30.44)} months`;
    return `${(days / 365.25).toFixed(1)} years`;
  }

  /** "today", "yesterday", "in 3 days", "12 days ago"; the date beyond two months. */
  ago(day: string, today: string): string {
    const days = Math.round((dateOf(day).getTime() - dateOf(today).getTime()) / 86_400_000);
    return Math.abs(days) < RELATIVE_UP_TO_DAYS ? RELATIVE_DAYS.format(days, 'day') : this.day(day);
  }

  /** "A, B and C" */
  list(items: readonly string[]): string {
    return AND.format(items);
  }
}

/** A probability for people: "25%", "0.4%", "under 0.1%", "over 99.9%" short of certain. */
export function oddsWords(p: number): string {
  if (p >= 1 - 1e-9) return '100%';
  if (p <= 0) return '0%';
  const percent = p * 100;
  if (percent > 99.9) return 'over 99.9%';
  if (percent < 0.1) return 'under 0.1%';
  return `${percent >= 10 ? +percent.toFixed(1) : +percent.toFixed(2)}%`;
}

/** A small chance as "1 in 200". @param p - above 0 */
export const oneIn = (p: number): string => `1 in ${Math.max(1, Math.round(1 / p))}`;

const dateOf = (day: string): Date => new Date(`${day.slice(0, 10)}T00:00:00Z`);
