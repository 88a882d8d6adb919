import { createHash } from 'node:crypto';
import type { DeviceView } from '@karyotome/contract';
import type { Actor, Work } from '../../db/work.ts';
import { notFound } from '../../refusal.ts';
import { sessionRows, type StoredSession } from './accounts.queries.ts';

/** A session ends so many days after it was used last. */
export const IDLE_DAYS = 30;
/** And so many after it began, however much it is used. */
export const MOST_DAYS = 90;

/** The sessions of an account, in one collection or in all. */
export const sessionsOf = (
  work: Work,
  accountId: string,
  inCollection: string | null = null,
): Promise<StoredSession[]> => sessionRows(work, { accountId, inCollection, idleDays: IDLE_DAYS });

/** A session's id lets in whoever knows it: told is its digest, in the form of an id (RFC 9562, version 8). */
function publicId(sid: string): string {
  const hex = createHash('sha256').update(sid).digest('hex');
  return [
    hex.slice(0, 8),
    hex.slice(8, 12),
    `8${hex.slice(13, 16)}`,
    `8${hex.slice(17, 20)}`,
    hex.slice(20, 32),
  ].join('-');
}

/** @param sid - of the session that asks */
export async function listDevices(work: Work<Actor>, sid: string): Promise<DeviceView[]> {
  return (await sessionsOf(work, work.actor.accountId)).map((session) => ({
    id: publicId(session.sid),
    userAgent: session.userAgent,
    signedInAt: session.signedInAt,
    usedAt: session.usedAt,
    isThis: session.sid === sid,
  }));
}

/** @returns the sessions that ended */
export async function endDevice(work: Work<Actor>, id: string): Promise<readonly string[]> {
  const known = await sessionsOf(work, work.actor.accountId);
  const found = known.filter(({ sid }) => publicId(sid) === id);
  if (found.length === 0) throw notFound('This session');
  return end(work, found);
}

/** Ends all sessions of the account but the one that asks. @returns those that ended */
export async function endOtherDevices(work: Work<Actor>, sid: string): Promise<readonly string[]> {
  const known = await sessionsOf(work, work.actor.accountId);
  return end(
    work,
    known.filter((session) => session.sid !== sid),
  );
}

async function end(work: Work, sessions: readonly StoredSession[]): Promise<readonly string[]> {
  const sids = sessions.map(({ sid }) => sid);
  await work.models.sessions.destroy({ where: { sid: sids }, transaction: work.transaction });
  return sids;
}
