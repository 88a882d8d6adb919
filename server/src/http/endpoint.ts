import { createHash } from 'node:crypto';
import { validate } from '@karyotome/contract';
import type { Request, RequestHandler, Response } from 'express';
import type Joi from 'joi';
import { mayDo, type Act } from '../access/policy.ts';
import { inTransaction, type Actor, type Database, type Work } from '../db/work.ts';
import { onceByKey, type Answer } from './once.ts';
import { Refusal } from './problems.ts';

declare module 'express-session' {
  interface SessionData {
    accountId: string;
    collectionId: string;
  }
}
declare module 'express-serve-static-core' {
  interface Request {
    actor?: Actor;
  }
}

export function actorOf(request: Request): Actor {
  if (!request.actor) throw new Refusal('not-signed-in', 'The session has ended or never began.');
  return request.actor;
}

function allow(request: Request, act: Act): Actor {
  const actor = actorOf(request);
  if (!mayDo(actor, act)) throw new Refusal('not-allowed', `A ${actor.role} may not do this.`);
  return actor;
}

/** Checks a body against its schema; a broken one is refused with every field. */
export function checked<T>(schema: Joi.Schema<T>, input: unknown): T {
  const result = validate(schema, input ?? {});
  if (result.ok) return result.value;
  throw new Refusal('invalid', 'Correct the fields named below.', result.problems);
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** A path parameter that must be an id; anything else cannot exist. */
export function idParam(request: Request, name = 'id'): string {
  const value = request.params[name];
  if (typeof value !== 'string' || !UUID.test(value)) throw new Refusal('not-found', 'No such id.');
  return value;
}

/** The version an update is based on (RFC 9110, If-Match). */
export function expectedVersion(request: Request): number {
  const header = request.get('If-Match');
  if (!header) throw new Refusal('version-missing', 'Send If-Match with the version that was read.');
  const match = /^(?:W\/)?"(\d{1,9})"$/.exec(header);
  if (!match) throw new Refusal('stale', 'If-Match names no version of this.');
  return Number(match[1]);
}

function send(response: Response, answer: Answer): void {
  response.status(answer.status);
  if (answer.body === undefined) response.end();
  else response.json(answer.body);
}

/**
 * Turns services into request handlers: permission, transaction, idempotency, answer.
 *
 * @param onChange - hears of every write, once it is committed
 */
export function createEndpoints(database: Database, onChange: (collectionId: string) => void) {
  return {
    read(run: (work: Work, request: Request) => Promise<unknown>): RequestHandler {
      return async (request, response) => {
        const actor = allow(request, 'look');
        send(response, {
          status: 200,
          body: await inTransaction(database, actor, (work) => run(work, request)),
        });
      };
    },
    /** A write takes effect once per Idempotency-Key: a repetition is answered from the first one's record. */
    write(run: (work: Work, request: Request) => Promise<Answer>, act: Act = 'record'): RequestHandler {
      return async (request, response) => {
        const actor = allow(request, act);
        const answer = await inTransaction(database, actor, async (work) => {
          const key = request.get('Idempotency-Key');
          return key === undefined ? run(work, request) : once(work, request, key, run);
        });
        onChange(actor.collectionId);
        send(response, answer);
      };
    },
  };
}
export type Endpoints = ReturnType<typeof createEndpoints>;

async function once(
  work: Work,
  request: Request,
  key: string,
  run: (work: Work, request: Request) => Promise<Answer>,
): Promise<Answer> {
  if (key.length < 8 || key.length > 200) {
    throw new Refusal('invalid', 'Idempotency-Key takes 8 to 200 characters.', [
      { field: 'Idempotency-Key', code: 'length', message: 'takes 8 to 200 characters' },
    ]);
  }
  const body = Buffer.isBuffer(request.body) ? request.body : JSON.stringify(request.body ?? null);
  const fingerprint = createHash('sha256')
    .update(`${request.method} ${request.originalUrl}\n`)
    .update(body)
    .digest('hex');
  return onceByKey(work, key, fingerprint, () => run(work, request));
}
