import { isIsoDay, isTimeZone, latestDayOnEarth } from '@karyotome/core';
import Joi from 'joi';

/** Kinds of field that requests are made of. */

// NUL cannot be stored as text, and other control characters have no business in a record.
// eslint-disable-next-line no-control-regex
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f]/;

export const text = (max: number): Joi.StringSchema =>
  Joi.string()
    .custom((value: string, helpers) => (CONTROL.test(value) ? helpers.error('text.control') : value.trim()))
    .max(max);

/** Days before and after these are typing slips; PostgreSQL and JavaScript agree on all between. */
const FIRST_DAY = '1950-01-01';
const LAST_DAY = '2199-12-31';

/** What a validation goes by that time decides. */
export interface Clock {
  /** The farm's day: no record lies after it. Left out, the latest day anywhere on earth is. */
  readonly today?: string;
  /** Milliseconds since 1970, UTC; this machine's own where left out. */
  readonly nowMs?: number;
}

function clockOf({ prefs }: Joi.CustomHelpers): Clock & { readonly nowMs: number } {
  const { today, nowMs = Date.now() } = (prefs.context ?? {}) as Clock;
  return { today, nowMs };
}

/** A day, today at the latest, as the farm's calendar has it. */
export const pastDay = (): Joi.StringSchema =>
  Joi.string().custom((value: string, helpers) => {
    if (!isIsoDay(value) || value < FIRST_DAY) return helpers.error('day.format');
    const { today, nowMs } = clockOf(helpers);
    return value > (today ?? latestDayOnEarth(nowMs)) ? helpers.error('day.future') : value;
  });

/** Any day of the calendar, one to come included. */
export const day = (): Joi.StringSchema =>
  Joi.string().custom((value: string, helpers) =>
    isIsoDay(value) && value >= FIRST_DAY && value <= LAST_DAY ? value : helpers.error('day.format'),
  );

/** The name of a time zone that this machine knows. */
export const timeZone = (): Joi.StringSchema =>
  Joi.string().custom((value: string, helpers) =>
    isTimeZone(value) ? value : helpers.error('zone.unknown'),
  );

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** An id as RFC 9562 writes it, in small letters; capitals are read as those. */
export function readId(text: string): string | null {
  return UUID.test(text) ? text.toLowerCase() : null;
}

export const id = (): Joi.StringSchema =>
  Joi.string().custom((value: string, helpers) => readId(value) ?? helpers.error('string.guid'));

/** The name of one act, by which it takes effect once however often it is sent: printable ASCII. */
export const actKey = (): Joi.StringSchema =>
  Joi.string()
    .min(8)
    .max(100)
    .pattern(/^[\x21-\x7e]+$/)
    .messages({ 'string.pattern.base': 'takes letters, digits and signs without spaces only' });

/**
 * A rule of a list: no two elements are alike. In time that grows with the list's length.
 *
 * @param field - what makes two elements alike, where they are objects; one that lacks it is like no other
 */
export function noTwo(field?: string): Joi.CustomValidator {
  return (elements: unknown[], helpers) => {
    const seen = new Set<unknown>();
    for (const [i, element] of elements.entries()) {
      // An element that is missing has been refused by its own rule, or may be.
      const key = field === undefined ? element : (element as Record<string, unknown> | null)?.[field];
      if (key === undefined || key === null) continue;
      if (seen.has(key)) {
        const state = helpers.state as unknown as {
          path: (string | number)[];
          localize(path: (string | number)[]): Joi.State;
        };
        return helpers.error('array.unique', { pos: i }, state.localize([...state.path, i]));
      }
      seen.add(key);
    }
    return elements;
  };
}

export const massG = (): Joi.NumberSchema => Joi.number().min(1).max(20_000);
export const optional = <S extends Joi.Schema>(schema: S): S => schema.allow(null).optional() as S;

export type Optional<T> = T | null | undefined;

const MOMENT = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}(\.\d{1,6})?)?(Z|[+-]\d{2}:\d{2})$/;

/** No clock on earth is further from UTC than this. */
const FARTHEST_OFFSET_H = 14;

/** A moment with its offset (RFC 3339), an hour from now at the latest: clocks differ. */
export const moment = (): Joi.StringSchema =>
  Joi.string().custom((value: string, helpers) => {
    const match = MOMENT.exec(value);
    const ms = match && isIsoDay(value.slice(0, 10)) ? Date.parse(value) : NaN;
    const offset = match?.[3] === undefined || match[3] === 'Z' ? 0 : Number(match[3].slice(1, 3));
    if (Number.isNaN(ms) || offset > FARTHEST_OFFSET_H || value < FIRST_DAY)
      return helpers.error('moment.format');
    return ms > clockOf(helpers).nowMs + 3_600_000 ? helpers.error('day.future') : value;
  });

/** What something costs: in whole and hundredth units of its currency. */
export const price = (): Joi.NumberSchema => Joi.number().min(0).max(10_000_000).precision(2);
/** ISO 4217, as this machine knows it. */
const CURRENCIES: ReadonlySet<string> = new Set(Intl.supportedValuesOf('currency'));
export const currency = (): Joi.StringSchema =>
  Joi.string().custom((value: string, helpers) =>
    CURRENCIES.has(value) ? value : helpers.error('any.only', { valids: ['EUR', 'USD', 'GBP'] }),
  );
