import type { Actor } from '../db/work.ts';

/**
 * Who may do what. Viewers look, keepers record, owners also change the collection's settings and destroy what cannot be
 * made again.
 */
export type Act = 'look' | 'record' | 'manage' | 'destroy';

const ALLOWED: Readonly<Record<Actor['role'], readonly Act[]>> = {
  viewer: ['look'],
  keeper: ['look', 'record'],
  owner: ['look', 'record', 'manage', 'destroy'],
};

export function mayDo(actor: Actor, act: Act): boolean {
  return ALLOWED[actor.role].includes(act);
}
