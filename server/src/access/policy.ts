import type { Permission } from '@karyotome/contract';
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

export function mayDo(actor: Actor, permission: Permission): boolean {
  return permission === 'open' || permission === 'own' || ALLOWED[actor.role].includes(permission);
}
