import { InputError, isIsoDay } from '@karyotome/core';
import Joi from 'joi';
import { keyOfDid } from '../proof/multibase.ts';

/** Kinds of field that lineage documents are made of. What else a document holds is signed with it, and left alone. */

const UUID = /^urn:uuid:[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;
/** RFC 3339, as XML Schema's dateTimeStamp allows it. */
const MOMENT = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}(\.\d+)?(Z|[+-]\d{2}:\d{2})$/;

const MESSAGES = {
  'any.required': 'is missing',
  'any.only': 'must be one of {{#valids}}',
  'object.base': 'must be an object',
  'array.base': 'must be a list',
  'array.min': 'needs at least {{#limit}}',
  'array.length': 'must hold {{#limit}}',
  'array.includesRequiredUnknowns': 'lacks a type or context of lineage documents',
  'array.includesRequiredBoth': 'lacks a type or context of lineage documents',
  'string.base': 'must be text',
  'string.empty': 'is empty',
  'number.base': 'must be a number',
  'number.integer': 'must be a whole number',
  'number.min': 'must be at least {{#limit}}',
  'number.max': 'must be at most {{#limit}}',
  'urn.format': 'must be "urn:uuid:" and a UUID',
  'day.format': 'must be a day that exists, written YYYY-MM-DD',
  'moment.format': 'must be a moment with its offset, written like 2026-11-28T09:00:00Z',
  'did.format': 'must be the did:key of an Ed25519 key',
};

/** A rule for text. @param code - of the message where it does not hold */
const text = (code: keyof typeof MESSAGES, holds: (value: string) => boolean): Joi.StringSchema =>
  Joi.string().custom((value: string, helpers) => (holds(value) ? value : helpers.error(code)));

export const urn = (): Joi.StringSchema => text('urn.format', (value) => UUID.test(value));
export const day = (): Joi.StringSchema => text('day.format', isIsoDay);
export const didKey = (): Joi.StringSchema => text('did.format', (value) => keyOfDid(value) !== null);
export const moment = (): Joi.StringSchema =>
  text('moment.format', (value) => MOMENT.test(value) && !Number.isNaN(Date.parse(value)));

/** An object of which these fields are read. */
export const object = <T = unknown>(fields: Joi.PartialSchemaMap<T>): Joi.ObjectSchema<T> =>
  Joi.object<T>(fields).unknown(true);

/**
 * What a document holds, once it is known to have the shape.
 *
 * @throws InputError naming the first field at fault
 */
export function shaped<T>(schema: Joi.Schema<T>, document: unknown): T {
  const { error } = schema.validate(document, {
    convert: false,
    presence: 'required',
    messages: MESSAGES,
    errors: { label: false, wrap: { array: false } },
  });
  if (!error) return document as T;
  const { path, type, message } = error.details[0]!;
  throw refusal(path.join('.') || 'document', message, type);
}

export function refusal(path: string, message: string, code = 'format'): InputError {
  return new InputError([{ code, path, message }]);
}
