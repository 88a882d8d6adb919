import Joi from 'joi';
import { envelope, type Envelope, type Signed } from './envelope.ts';
import { day, didKey, object, shaped } from './fields.ts';

/** A new key of a collection, introduced by the key before it, which signs. */

export const SUCCESSION_FORMAT = 'karyotome-key/1';

export interface SuccessionSubject {
  /** `did:key` of the new key */
  readonly id: string;
  readonly format: typeof SUCCESSION_FORMAT;
  /** `did:key` of the old key */
  readonly replaces: string;
  readonly on: string;
}

export type KeySuccession = Signed<Envelope<SuccessionSubject>>;

const schema = envelope(
  object<SuccessionSubject>({
    id: didKey(),
    format: Joi.valid(SUCCESSION_FORMAT),
    replaces: didKey(),
    on: day(),
  }),
);

/** @throws InputError naming the first field at fault */
export const readSuccession = (document: unknown): KeySuccession => shaped(schema, document);
