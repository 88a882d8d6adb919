import type { Actor } from '../db/work.ts';

/** Who may do what. Viewers look, keepers record, owners also change the collection's settings. */
export type Act = 'look' | 'record' | 'manage';

const ALLOWED: Readonly<Record<Actor['role'], readonly Act[]>> = {
  viewer: ['look'],
  keeper: ['look', 'record'],
  owner: ['look', 'record', 'manage'],
};

export function mayDo(actor: Actor, act: Act): boolean {
  return ALLOWED[actor.role].includes(act);
}
