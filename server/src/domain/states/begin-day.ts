import { daysBetween, FEEDING_RULES } from '@karyotome/core';
import { BeginAgain } from '../../db/begin-again.ts';
import { reading, writing, type Database, type Reader } from '../../db/work.ts';
import { inThread } from '../../threads/pool.ts';
import { collectionOf } from '../collection/collection-of.ts';
import { sharedWork } from '../../shared-work.ts';
import { fittedIds, keptBatches, type KeptRow } from './kept-animals.queries.ts';
import { toStoredFit } from './stored-fit.ts';
import type { FitInput } from './states-in-thread.ts';
import { lastFittedDay } from './states.queries.ts';
import { insertDay } from './states.repository.ts';

/** A day that nobody prepared takes the last fit, if it is no older. */
const FIT_HOLDS_DAYS = 7;

const begun = sharedWork<void>();

/** Thrown where a read needs a day that has not begun: it begins, and the read with it. */
export const dayNotBegun = (database: Database, { collectionId }: Reader, day: string): BeginAgain =>
  new BeginAgain(() => beginDay(database, { collectionId }, day));

/**
 * Begins a day of a collection: what its animals have in common is fitted, or taken from the day before, and each animal gets
 * a row whose state is to be computed.
 *
 * @param isFitted - fits anew, although a fit of these days is there
 */
export function beginDay(
  database: Database,
  reader: Reader,
  day: string,
  { isFitted = false }: { isFitted?: boolean } = {},
): Promise<void> {
  return begun(`${reader.collectionId} ${day}`, async () => {
    const last = isFitted ? null : await recentFit(database, reader, day);
    const fit = last ? { asOn: last } : toStoredFit(await fitHerd(database, reader, day));
    await writing(database, reader, (work) => insertDay(work, day, fit));
  });
}

async function recentFit(database: Database, reader: Reader, day: string): Promise<string | null> {
  const [last] = await reading(database, reader, (work) => lastFittedDay(work, day));
  return last && daysBetween(last.day, day) <= FIT_HOLDS_DAYS ? last.day : null;
}

/** Fits growth and appetite to the collection's records, in a thread. */
async function fitHerd(database: Database, reader: Reader, day: string) {
  const input = await reading(database, reader, async (work): Promise<FitInput> => {
    const { feedingRules } = await collectionOf(work);
    const found: KeptRow[] = [];
    for await (const rows of keptBatches(work, await fittedIds(work), day)) found.push(...rows);
    return { rows: found, rules: { ...FEEDING_RULES, ...feedingRules }, today: day };
  });
  return inThread('fit-herd', input);
}
