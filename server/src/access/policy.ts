import { grantsOf, type Permission, type TokenScope } from '@karyotome/contract';
import { GRANT_WORDS } from '@karyotome/words';
import type { Actor } from '../db/work.ts';
import { Refusal } from '../refusal.ts';

/** What somebody may do in a collection. Only owners destroy what cannot be made again. */
export const permissionsOf = (actor: Pick<Actor, 'role' | 'grants'>): readonly Permission[] =>
  actor.role === 'owner' ? [...grantsOf(actor), 'destroy'] : grantsOf(actor);

/** What a program may do by the scope of its token. Of the account itself it may read who it acts for, and no more. */
const PROGRAMS: Readonly<Record<TokenScope, readonly Permission[]>> = {
  view: ['view'],
  record: ['view', 'record', 'breed', 'house', 'sell'],
};

export function mayDo(actor: Actor, permission: Permission, isRead: boolean): boolean {
  if (actor.scope !== undefined && permission === 'own') return isRead;
  if (actor.scope !== undefined && permission !== 'open' && !PROGRAMS[actor.scope].includes(permission))
    return false;
  return permission === 'open' || permission === 'own' || permissionsOf(actor).includes(permission);
}

/** @throws Refusal where somebody, or the program that acts for them, may not do this */
export function requirePermission(actor: Actor, permission: Permission, isRead = false): void {
  if (mayDo(actor, permission, isRead)) return;
  if (actor.scope !== undefined)
    throw new Refusal('not-allowed', `A token to ${actor.scope} may not do this.`);
  if (permission === 'destroy' || permission === 'manage')
    throw new Refusal('owner-only', 'This account may not do this here: ask the owner.');
  if (permission === 'open' || permission === 'own')
    throw new Refusal('not-allowed', 'This may not be done here.');
  throw new Refusal(
    'not-allowed',
    `This account may not do this here. It needs the permission: ${GRANT_WORDS[permission]}.`,
  );
}
