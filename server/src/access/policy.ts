import type { Permission, TokenScope } from '@karyotome/contract';
import type { Actor } from '../db/work.ts';

/**
 * Who may do what in a collection. Viewers look, keepers record, owners also change the collection's settings and destroy
 * what cannot be made again.
 */
export const ALLOWED: Readonly<Record<Actor['role'], readonly Permission[]>> = {
  viewer: ['view'],
  keeper: ['view', 'record'],
  owner: ['view', 'record', 'manage', 'destroy'],
};

/** What a program may do by the scope of its token. Of the account itself it may read who it acts for, and no more. */
const PROGRAMS: Readonly<Record<TokenScope, readonly Permission[]>> = {
  view: ['view'],
  record: ['view', 'record'],
};

export function mayDo(actor: Actor, permission: Permission, isRead: boolean): boolean {
  if (actor.scope !== undefined && permission === 'own') return isRead;
  if (actor.scope !== undefined && permission !== 'open' && !PROGRAMS[actor.scope].includes(permission))
    return false;
  return permission === 'open' || permission === 'own' || ALLOWED[actor.role].includes(permission);
}
