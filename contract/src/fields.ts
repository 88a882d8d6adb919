import { addDays, isIsoDay } from '@karyotome/core';
import Joi from 'joi';

/** Kinds of field that requests are made of. */

// NUL cannot be stored as text, and other control characters have no business in a record.
// eslint-disable-next-line no-control-regex
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f]/;

export const text = (max: number): Joi.StringSchema =>
  Joi.string()
    .custom((value: string, helpers) => (CONTROL.test(value) ? helpers.error('text.control') : value.trim()))
    .max(max);

/** A day, today at the latest. One day of grace: it may already be tomorrow where the user is. */
export const pastDay = (): Joi.StringSchema =>
  Joi.string().custom((value: string, helpers) => {
    if (!isIsoDay(value) || value < '1950-01-01') return helpers.error('day.format');
    const latest = addDays(new Date().toISOString().slice(0, 10), 1);
    return value > latest ? helpers.error('day.future') : value;
  });

/** Any day of the calendar, one to come included. */
export const day = (): Joi.StringSchema =>
  Joi.string().custom((value: string, helpers) => (isIsoDay(value) ? value : helpers.error('day.format')));

export const id = (): Joi.StringSchema => Joi.string().uuid();
export const massG = (): Joi.NumberSchema => Joi.number().min(1).max(20_000);
export const optional = <S extends Joi.Schema>(schema: S): S => schema.allow(null).optional() as S;

export type Optional<T> = T | null | undefined;

const MOMENT = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}(\.\d{1,6})?)?(Z|[+-]\d{2}:\d{2})$/;

/** A moment with its offset (RFC 3339), an hour from now at the latest: clocks differ. */
export const moment = (): Joi.StringSchema =>
  Joi.string().custom((value: string, helpers) => {
    const ms = MOMENT.test(value) && isIsoDay(value.slice(0, 10)) ? Date.parse(value) : NaN;
    if (Number.isNaN(ms)) return helpers.error('moment.format');
    return ms > Date.now() + 3_600_000 ? helpers.error('day.future') : value;
  });
