import { randomUUID } from 'node:crypto';
import type { FieldProblem, Problem } from '@karyotome/contract';
import { CostError, InputError } from '@karyotome/core';
import type { ErrorRequestHandler, RequestHandler, Response } from 'express';
// For its additions to a request: an id and a log.
import type {} from 'pino-http';
import { ValidationError } from 'sequelize';
import {
  codeOf,
  constraintOf,
  forLog,
  isDatabaseAway,
  isDataException,
  isDiskFull,
  isLoose,
  isTaken,
  isTooLong,
} from '../db/faults.ts';
import { Refusal, type RefusalCode } from '../refusal.ts';

/** Every way a request can be refused: code -> status and title. docs/errors.md lists the same; a test compares. */
export const PROBLEMS = {
  'malformed-body': { status: 400, title: 'The request could not be read' },
  'not-signed-in': { status: 401, title: 'Sign in first' },
  'wrong-sign-in': { status: 401, title: 'E-mail or password is wrong' },
  'code-needed': { status: 401, title: 'A code of your authenticator is needed' },
  'wrong-code': { status: 401, title: 'This code is wrong or was used' },
  'not-allowed': { status: 403, title: 'Your role does not allow this' },
  'stale-page': { status: 403, title: 'This page is out of date: reload it' },
  'owner-only': { status: 403, title: 'Only the owner may do this' },
  'other-collection': { status: 403, title: 'This was entered in another collection' },
  'other-account': { status: 403, title: 'This was entered by somebody else' },
  'not-found': { status: 404, title: 'There is no such thing here' },
  conflict: { status: 409, title: 'This clashes with what is recorded' },
  'key-reused': { status: 409, title: 'The idempotency key was used for another request' },
  'too-slow': { status: 408, title: 'The request came in too slowly' },
  stale: { status: 412, title: 'Somebody changed this in the meantime' },
  'too-large': { status: 413, title: 'The request is too large' },
  'wrong-media': { status: 415, title: 'This kind of file is not accepted' },
  invalid: { status: 422, title: 'Some fields need a correction' },
  'version-missing': { status: 428, title: 'The version this change is based on is missing' },
  'too-many': { status: 429, title: 'Too many attempts: wait a little' },
  'too-complex': { status: 422, title: 'An exact answer would take too long' },
  busy: { status: 503, title: 'The server is busy: try again in a moment' },
  unavailable: { status: 503, title: 'The records cannot be reached just now' },
  'disk-full': { status: 503, title: 'The disk is full' },
  internal: { status: 500, title: 'Something went wrong on our side' },
} as const satisfies Record<RefusalCode, { status: number; title: string }>;

/** How long whoever is refused for a moment is asked to wait. */
const RETRY_AFTER_S = 5;

/** A refusal as a problem document (RFC 9457). */
export function toProblem(refusal: Refusal): Problem {
  const { status, title } = PROBLEMS[refusal.code];
  return {
    type: `urn:karyotome:problem:${refusal.code}`,
    title,
    status,
    ...(refusal.message ? { detail: refusal.message } : {}),
    ...(refusal.errors.length > 0 ? { errors: refusal.errors } : {}),
  };
}

export function sendProblem(response: Response, refusal: Refusal): void {
  const { status } = PROBLEMS[refusal.code];
  const problem: Problem = {
    ...toProblem(refusal),
    ...(refusal.code === 'internal' ? { requestId: String(response.req.id) } : {}),
  };
  const retryAfter = refusal.retryAfter ?? (status === 503 ? RETRY_AFTER_S : null);
  if (retryAfter !== null) response.set('Retry-After', String(retryAfter));
  response.status(status).type('application/problem+json').send(JSON.stringify(problem));
}

const UNIQUE_FIELDS: Readonly<Record<string, FieldProblem>> = {
  used_numbers_pkey: { field: 'number', code: 'taken', message: 'was used before; numbers are never reused' },
  animals_collection_id_number_key: { field: 'number', code: 'taken', message: 'is taken' },
  animal_lists_name_key: { field: 'name', code: 'taken', message: 'is the name of another list' },
  projects_name_key: { field: 'name', code: 'taken', message: 'is the name of another project' },
  ladders_collection_id_name_key: { field: 'name', code: 'taken', message: 'is the name of another ladder' },
  climate_places_name_key: {
    field: 'name',
    code: 'taken',
    message: 'is the name of another one',
  },
  racks_collection_id_room_name_key: {
    field: 'name',
    code: 'taken',
    message: 'is the name of another rack in this room',
  },
};

/** Translates what the database refuses into a refusal with words; everything else is our own mistake. */
export function toRefusal(error: unknown): Refusal {
  if (error instanceof Refusal) return error;
  if (error instanceof InputError) {
    return new Refusal(
      'invalid',
      error.message,
      error.issues.map(({ path, code, message }) => ({ field: path, code, message })),
    );
  }
  if (error instanceof CostError) return new Refusal('too-complex', error.message);
  return ofRequest(error) ?? ofService(error) ?? ofRow(error) ?? new Refusal('internal', '');
}

/** What the body parsers and the file server refuse. */
function ofRequest(error: unknown): Refusal | null {
  const { status, type } = error as { status?: number; type?: string };
  if (status === 413)
    return new Refusal('too-large', 'The body is larger than this server takes.', [
      { field: 'body', code: 'too-large', message: 'is too large' },
    ]);
  if (status === 415)
    return new Refusal('wrong-media', 'The body is in a format or encoding that is not accepted.');
  // A file that a row names and the data folder lacks.
  if (status === 404)
    return new Refusal('not-found', 'The file is missing from the data folder.', { cause: error });
  if (type === 'request.aborted' || type === 'request.size.invalid')
    return new Refusal('malformed-body', 'The request ended before all of it was there.');
  if (status === 400 || type === 'entity.parse.failed') {
    return new Refusal('malformed-body', 'The body is not valid JSON.', [
      { field: 'body', code: 'malformed', message: 'is not valid JSON' },
    ]);
  }
  if (status !== undefined && status >= 400 && status < 500)
    return new Refusal('malformed-body', 'The request could not be read.');
  return null;
}

/** What is away, full or overloaded, for now. */
function ofService(error: unknown): Refusal | null {
  if (isDiskFull(error))
    return new Refusal(
      'disk-full',
      'The disk is full, so nothing can be kept. Free some space and try again.',
      {
        cause: error,
        retryAfter: 30,
      },
    );
  if (isDatabaseAway(error))
    return new Refusal('unavailable', 'The database cannot be reached. It may be back in a moment.', {
      cause: error,
    });
  if (isTooLong(error))
    return new Refusal('busy', 'This took too long, as much else is going on. Try again in a moment.', {
      cause: error,
    });
  return null;
}

/** What the database refuses to keep. */
function ofRow(error: unknown): Refusal | null {
  if (isTaken(error)) {
    const field = UNIQUE_FIELDS[constraintOf(error)];
    return field
      ? new Refusal('conflict', `${field.field} ${field.message}.`, [field])
      : new Refusal('conflict', 'This exists already.');
  }
  if (isLoose(error)) {
    return new Refusal(
      'conflict',
      'Other records refer to this, or it refers to something that does not exist.',
    );
  }
  if (error instanceof ValidationError) return new Refusal('invalid', 'A value cannot be recorded.');
  if (codeOf(error) === '23514' || isDataException(error))
    return new Refusal('invalid', 'A value lies outside what can be recorded.', { cause: error });
  return null;
}

/** Asked every second while the database is away: once is enough to know. */
const HEALTH = '/api/v1/health';

export const handleErrors: ErrorRequestHandler = (error, request, response, next) => {
  const refusal = toRefusal(error);
  // A value that only the database refused should have been refused by its schema: that is a fault of ours, too.
  if (refusal.code === 'internal' || isDataException(error))
    request.log.error({ fault: forLog(error) }, 'request failed');
  else if ((refusal.code === 'unavailable' || refusal.code === 'disk-full') && request.path !== HEALTH)
    request.log.warn({ fault: forLog(error) }, 'request refused for now');
  if (response.headersSent) return next(error);
  if (refusal.code === 'too-large' || refusal.code === 'too-slow') response.set('Connection', 'close');
  sendProblem(response, refusal);
};

export const noSuchRoute: RequestHandler = () => {
  throw new Refusal('not-found', 'There is nothing at this address.');
};

export const newRequestId = (): string => randomUUID();
