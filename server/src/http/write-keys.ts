import { createHash } from 'node:crypto';
import type { Request } from 'express';
import { reading, type Actor, type Database } from '../db/work.ts';
import { Refusal } from '../refusal.ts';
import { answerOf } from './once.ts';

export async function isAnswered(database: Database, actor: Actor, key: string): Promise<boolean> {
  return (await reading(database, actor, (work) => answerOf(work, key))) !== null;
}

const KEY = /^[\x21-\x7e]{8,200}$/;

/** The key of a write; null where it has none. */
export function keyOf(request: Request): string | null {
  const key = request.get('Idempotency-Key');
  if (key === undefined) return null;
  if (KEY.test(key)) return key;
  throw new Refusal('invalid', 'Idempotency-Key takes 8 to 200 printable characters without spaces.', [
    { field: 'Idempotency-Key', code: 'length', message: 'takes 8 to 200 printable characters' },
  ]);
}

/** What makes two requests the same: method, address, the version it is based on, and the body's bytes. */
export function fingerprintOf(request: Request): string {
  const digest = Buffer.isBuffer(request.body)
    ? createHash('sha256').update(request.body).digest('hex')
    : (request.bodyDigest ?? '');
  return createHash('sha256')
    .update(`${request.method} ${request.originalUrl}\n${request.get('If-Match') ?? ''}\n${digest}`)
    .digest('hex');
}
