import { setTimeout as sleep } from 'node:timers/promises';
import { storeAfterRead } from '../../background.ts';
import { geneticsTouched, reading, type Database, type Reader, type Work } from '../../db/work.ts';
import { Refusal } from '../../refusal.ts';
import { collectionsAtWork } from '../states/states.repository.ts';
import { supportedClaims, type SupportedClaim } from './claim-views.ts';
import { geneticsOf, soonOr, type Genetics } from './genetics.service.ts';
import { claimsAt, saveClaims, withoutClaims } from './stored-claims.repository.ts';

/**
 * An animal's claims, each with what it rests on: as they were found before at this revision, or found out now and stored.
 *
 * @returns null where they are not there in time
 */
export async function claimsSoon(
  work: Work,
  genetics: Genetics,
  id: string,
): Promise<SupportedClaim[] | null> {
  const { revision, isPending } = genetics;
  // A revision that this very transaction made may yet be rolled back, and its number be given again.
  const isKept = !isPending && !geneticsTouched(work);
  const [stored] = isKept ? await claimsAt(work, { id, revision }) : [];
  if (stored) return stored.claims;
  const found = await soonOr(work, supportedClaims(genetics, id)).catch(unlessBusy);
  if (found && isKept)
    storeAfterRead(work, () => saveClaims(work, work.actor.collectionId, id, revision, found));
  return found;
}

/** A page is not refused because the engine has much to do. */
function unlessBusy(error: unknown): null {
  if (error instanceof Refusal && error.code === 'busy') return null;
  throw error;
}

const BATCH = 20;
/** The engine's thread is left to those who wait for it for so many times as long as this took. */
const REST = 3;
/** Ends before it is begun again. */
const LONGEST_MS = 9 * 60_000;

/**
 * Finds out, while nobody waits, the claims of all animals whose collection's genetic records have changed. A fault in one
 * collection leaves the others alone.
 */
export async function storeClaims(database: Database): Promise<void> {
  const until = Date.now() + LONGEST_MS;
  for (const collectionId of await collectionsAtWork(database))
    await storeClaimsOf(database, { collectionId }, until).catch(database.onFault);
}

async function storeClaimsOf(database: Database, reader: Reader, until: number): Promise<void> {
  const { collectionId } = reader;
  const genetics = await reading(database, reader, geneticsOf);
  for (;;) {
    const ids = await withoutClaims(database, collectionId, genetics.revision, BATCH);
    if (ids.length === 0 || Date.now() > until) break;
    for (const id of ids) {
      const begun = Date.now();
      await saveClaims(database, collectionId, id, genetics.revision, await supportedClaims(genetics, id));
      await sleep(REST * (Date.now() - begun));
    }
  }
}
