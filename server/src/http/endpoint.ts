import { createHash } from 'node:crypto';
import { readId, validate, type ValidateOptions } from '@karyotome/contract';
import type { Request, RequestHandler, Response } from 'express';
import type Joi from 'joi';
import { mayDo, type Act } from '../access/policy.ts';
import { reading, writing, type Actor, type Database, type Work } from '../db/work.ts';
import { inferring } from '../db/turns.ts';
import { answerOf, onceByKey, type Answer } from './once.ts';
import { BeginAgain } from '../db/begin-again.ts';
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
    /** SHA-256 of the body's bytes, where there was one. */
    bodyDigest?: string;
  }
}

export function actorOf(request: Request): Actor {
  if (!request.actor) throw new Refusal('not-signed-in', 'The session has ended or never began.');
  return request.actor;
}

/** Names whose page sent a write: signed in as somebody else since, the browser would send it under another name. */
const ACCOUNT_HEADER = 'Account-Id';

function allow(request: Request, act: Act): Actor {
  const actor = actorOf(request);
  const meant = request.get(ACCOUNT_HEADER);
  if (meant !== undefined && meant !== actor.accountId)
    throw new Refusal(
      'other-account',
      'Somebody else has signed in here since this was written. Nothing was sent under their name.',
    );
  if (!mayDo(actor, act)) {
    if (act === 'destroy' || act === 'manage')
      throw new Refusal('owner-only', `A ${actor.role} may not do this: ask the owner.`);
    throw new Refusal('not-allowed', `A ${actor.role} may not do this.`);
  }
  return actor;
}

/** Checks a body against its schema; a broken one is refused with every field. */
export function checked<T>(schema: Joi.Schema<T>, input: unknown, options: ValidateOptions = {}): T {
  const result = validate(schema, input ?? {}, options);
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

/** Answers of the collection's own are for whoever asked, and for now. */
export function send(response: Response, answer: Answer): void {
  response.status(answer.status).set('Cache-Control', 'no-store');
  if (answer.body === undefined) response.end();
  else response.json(answer.body);
}

export interface WriteOptions<Prepared> {
  readonly act?: Act;
  /** What takes long and needs no lock: done before the write, outside its transaction, unless it was answered before. */
  readonly prepare?: (request: Request, actor: Actor) => Promise<Prepared>;
  /** Undoes what `prepare` did where the write did not happen after all. */
  readonly discard?: (prepared: Prepared) => Promise<void>;
  /** Adds to the answer what may take long to find out; the write has happened by then. */
  readonly complete?: (request: Request, actor: Actor, answer: Answer) => Promise<Answer>;
}

export interface ReadOptions<Found> {
  /** It waits for what is inferred: a few of these at once, so that connections are left for everything else. */
  readonly infers?: boolean;
  /**
   * Large, and the same for everybody: those who ask while it is being made, and nothing was written since, get the same one.
   * What another process wrote meanwhile may be missing in it, as if it had been asked for a moment earlier.
   */
  readonly isShared?: boolean;
  /** Makes the answer of what was read: outside the transaction, since it takes long. */
  readonly finish?: (found: Found, request: Request) => Promise<unknown>;
}

const MOST_BEGINNINGS = 6;

/**
 * Turns services into request handlers: permission, transaction, idempotency, answer.
 *
 * @param onChange - hears of every write, once it is committed
 */
export function createEndpoints(database: Database, onChange: (collectionId: string) => void) {
  /** Counts the writes of each collection. */
  const writes = new Map<string, number>();
  const beingMade = new Map<string, Promise<Buffer>>();
  const shared = (key: string, make: () => Promise<unknown>): Promise<Buffer> => {
    let bytes = beingMade.get(key);
    if (!bytes) {
      bytes = make()
        .then((body) => Buffer.from(JSON.stringify(body)))
        .finally(() => beingMade.delete(key));
      beingMade.set(key, bytes);
    }
    return bytes;
  };
  return {
    read<Found>(
      run: (work: Work, request: Request) => Promise<Found>,
      { infers, finish, isShared }: ReadOptions<Found> = {},
    ): RequestHandler {
      return async (request, response) => {
        const actor = allow(request, 'look');
        const ask = (): Promise<Found> => reading(database, actor, (work) => run(work, request));
        const make = async (): Promise<unknown> => {
          const found = await (infers ? inferring.take(ask) : ask());
          return finish ? finish(found, request) : found;
        };
        if (!isShared) return send(response, { status: 200, body: await make() });
        const written = writes.get(actor.collectionId) ?? 0;
        const bytes = await shared(`${actor.collectionId} ${written} ${request.originalUrl}`, make);
        // Not `send`: it would digest megabytes for an ETag once for each who asked, though nothing of this is stored.
        response.set('Cache-Control', 'no-store').type('json').end(bytes);
      };
    },
    /** A write takes effect once per Idempotency-Key: a repetition is answered from the first one's record. */
    write<Prepared = undefined>(
      run: (work: Work, request: Request, prepared: Prepared) => Promise<Answer>,
      { act = 'record', complete, ...options }: WriteOptions<Prepared> = {},
    ): RequestHandler {
      return async (request, response) => {
        const actor = allow(request, act);
        const answer = await writeOnce(database, actor, request, run, options);
        writes.set(actor.collectionId, (writes.get(actor.collectionId) ?? 0) + 1);
        onChange(actor.collectionId);
        send(response, complete ? await complete(request, actor, answer) : answer);
      };
    },
  };
}

async function writeOnce<Prepared>(
  database: Database,
  actor: Actor,
  request: Request,
  run: (work: Work, request: Request, prepared: Prepared) => Promise<Answer>,
  { prepare, discard }: Pick<WriteOptions<Prepared>, 'prepare' | 'discard'>,
): Promise<Answer> {
  const key = keyOf(request);
  for (let beginning = 1; ; beginning++) {
    const isPrepared = prepare !== undefined && !(key !== null && (await isAnswered(database, actor, key)));
    const prepared = isPrepared ? await prepare(request, actor) : (undefined as Prepared);
    let isUsed = false;
    try {
      const answer = await writing(database, actor, async (work) => {
        isUsed = false;
        const act = (): Promise<Answer> => {
          isUsed = true;
          return run(work, request, prepared);
        };
        return key === null ? act() : onceByKey(work, key, fingerprintOf(request), act);
      });
      if (isPrepared && !isUsed) await discard?.(prepared);
      return answer;
    } catch (error) {
      if (isPrepared) await discard?.(prepared);
      if (!(error instanceof BeginAgain)) throw error;
      if (beginning === MOST_BEGINNINGS)
        throw new Refusal('busy', 'The records change too fast for this just now. Try again in a moment.', {
          cause: error,
        });
      await error.meanwhile();
    }
  }
}
export type Endpoints = ReturnType<typeof createEndpoints>;

async function isAnswered(database: Database, actor: Actor, key: string): Promise<boolean> {
  return (await reading(database, actor, (work) => answerOf(work, key))) !== null;
}

const KEY = /^[\x21-\x7e]{8,200}$/;

/** The key of a write; null where it has none. */
function keyOf(request: Request): string | null {
  const key = request.get('Idempotency-Key');
  if (key === undefined) return null;
  if (KEY.test(key)) return key;
  throw new Refusal('invalid', 'Idempotency-Key takes 8 to 200 printable characters without spaces.', [
    { field: 'Idempotency-Key', code: 'length', message: 'takes 8 to 200 printable characters' },
  ]);
}

/** What makes two requests the same: method, address, the version it is based on, and the body's bytes. */
function fingerprintOf(request: Request): string {
  const digest = Buffer.isBuffer(request.body)
    ? createHash('sha256').update(request.body).digest('hex')
    : (request.bodyDigest ?? '');
  return createHash('sha256')
    .update(`${request.method} ${request.originalUrl}\n${request.get('If-Match') ?? ''}\n${digest}`)
    .digest('hex');
}
