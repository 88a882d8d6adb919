import {
  bodySchemaOf,
  readId,
  validate,
  type BodyOf,
  type ParamsOf,
  type Route,
  type ValidateOptions,
} from '@karyotome/contract';
import type { Request } from 'express';
import type Joi from 'joi';
import { nowMs } from '../clock.ts';
import type { Actor, Work } from '../db/work.ts';
import { Refusal } from '../refusal.ts';

/** Checks a body against its schema; a broken one is refused with every field. */
export function checked<T>(schema: Joi.Schema<T>, input: unknown, options: ValidateOptions = {}): T {
  const result = validate(schema, input ?? {}, { nowMs: nowMs(), ...options });
  if (result.ok) return result.value;
  throw new Refusal('invalid', 'Correct the fields named below.', result.problems);
}

/** A path parameter that must be an id; anything else cannot exist. */
export function idParam(request: Request, name = 'id'): string {
  const value = request.params[name];
  const id = typeof value === 'string' ? readId(value) : null;
  if (id === null) throw new Refusal('not-found', 'No such id.');
  return id;
}

/** The version an update is based on (RFC 9110, If-Match). */
export function expectedVersion(request: Request): number {
  const header = request.get('If-Match');
  if (!header) throw new Refusal('version-missing', 'Send If-Match with the version that was read.');
  const match = /^(?:W\/)?"(\d{1,9})"$/.exec(header);
  if (!match) throw new Refusal('stale', 'If-Match names no version of this.');
  return Number(match[1]);
}

/** What a request says, each part checked when it is read. */
export interface Asked<R extends Route> {
  readonly request: Request;
  readonly params: Readonly<Record<ParamsOf<R['path']>, string>>;
  /** The parameter `:id`. @throws Refusal `not-found` where it is none */
  readonly id: string;
  /** @throws Refusal `invalid` with every broken rule */
  readonly body: BodyOf<R>;
  /** The version an update is based on. @throws Refusal where it is missing or unreadable */
  readonly version: number;
}

/** The same within the transaction that answers it. */
export interface Call<R extends Route> extends Asked<R> {
  readonly work: Work<Actor>;
}

export function asked<R extends Route>(route: R, request: Request, work?: Work<Actor>): Asked<R> {
  return {
    request,
    params: request.params as Asked<R>['params'],
    get id() {
      return idParam(request);
    },
    get body() {
      return checked(bodySchemaOf(route)!, request.body, { ...work, ...route.validation }) as BodyOf<R>;
    },
    get version() {
      return expectedVersion(request);
    },
  };
}

export function callOf<R extends Route>(route: R, request: Request, work: Work<Actor>): Call<R> {
  // Not spread: the getters check when they are read.
  return Object.defineProperty(asked(route, request, work), 'work', { value: work }) as Call<R>;
}
