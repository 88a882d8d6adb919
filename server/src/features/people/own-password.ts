import type { Actor, Database } from '../../db/work.ts';
import { isPasswordOf } from '../../domain/accounts/session.service.ts';
import type { RateLimits } from '../../http/rate-limits.ts';
import { invalidField } from '../../refusal.ts';

/** Wrong passwords of somebody who is signed in: whoever found the device open must not try them all. */
const TRIES = { free: 10, firstS: 30, longestS: 3600 };

/**
 * Asks for the password once more, before what would let others in.
 *
 * @param field - that it stands in
 * @throws Refusal `invalid`, `too-many`
 */
export async function requirePassword(
  database: Database,
  limits: RateLimits,
  { accountId }: Actor,
  password: string,
  field: string,
): Promise<void> {
  await limits.refuseWaiting('password-of', accountId, 'wrong passwords');
  if (await isPasswordOf(database, { accountId, password })) return;
  await limits.fail('password-of', accountId, TRIES);
  throw invalidField(field, 'is not your password', 'password.wrong');
}
