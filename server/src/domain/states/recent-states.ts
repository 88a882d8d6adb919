import { createCache } from '../../cache.ts';
import type { Work } from '../../db/work.ts';
import type { ComputedState } from './compute-state.ts';

/*
 * What this process has computed lately, or is computing: after a write, all who read next need the same states before they are
 * stored. A state is told from others by its animal, its day and the changes it was computed for.
 */

/** A state that is asked for. */
export interface AskedState {
  readonly id: string;
  /** Of what it is computed from; null for whatever it is now. */
  readonly changes: string | null;
}

/** More than are stale at one time in daily work; what is stored is read from the database. */
const MOST_KEPT = 300;

const kept = createCache<ComputedState>(MOST_KEPT);
const underWay = new Map<string, Promise<unknown>>();

const keyOf = (collectionId: string, day: string, id: string): string => `${collectionId} ${day} ${id}`;

/**
 * The states that are asked for: those known already, or being computed by somebody else, and the others as they are computed
 * now. What a writing unit of work computes may be rolled back, and is its own.
 *
 * @param compute - those that nobody has
 */
export async function recentStates(
  work: Work,
  day: string,
  asked: readonly AskedState[],
  compute: (ids: readonly string[]) => Promise<ComputedState[]>,
): Promise<ComputedState[]> {
  if (work.isWriting) return compute(asked.map(({ id }) => id));
  const { collectionId } = work.actor;
  // Whoever computes holds all that it reads already: nobody waits for a connection of somebody who waits here.
  await Promise.allSettled(asked.flatMap(({ id }) => underWay.get(keyOf(collectionId, day, id)) ?? []));
  const { known, missing } = knownStates(collectionId, day, asked);
  if (missing.length === 0) return known;
  return [...known, ...(await share(collectionId, day, missing, () => compute(missing)))];
}

/** Those of the states that are asked for which this process has computed already, and the animals of the others. */
export function knownStates(
  collectionId: string,
  day: string,
  asked: readonly AskedState[],
): { known: ComputedState[]; missing: string[] } {
  const known: ComputedState[] = [];
  const missing: string[] = [];
  for (const { id, changes } of asked) {
    const state = kept.get(keyOf(collectionId, day, id));
    if (state && state.changes === changes) known.push(state);
    else missing.push(id);
  }
  return { known, missing };
}

/**
 * Computes states so that whoever asks for them meanwhile, or soon after, has them too.
 *
 * @param compute - must not wait for a connection to the database: those who wait for it may hold all of them
 */
export async function share(
  collectionId: string,
  day: string,
  ids: readonly string[],
  compute: () => Promise<ComputedState[]>,
): Promise<ComputedState[]> {
  const computing = compute();
  const keys = ids.map((id) => keyOf(collectionId, day, id));
  for (const key of keys) underWay.set(key, computing);
  try {
    const states = await computing;
    for (const state of states) {
      const key = keyOf(collectionId, day, state.id);
      if (isNewer(state, kept.peek(key))) kept.set(key, state);
    }
    return states;
  } finally {
    for (const key of keys) if (underWay.get(key) === computing) underWay.delete(key);
  }
}

const isNewer = (one: ComputedState, other: ComputedState | undefined): boolean =>
  one.changes !== null && (other?.changes == null || BigInt(one.changes) > BigInt(other.changes));
