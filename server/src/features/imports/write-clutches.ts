import { seasonOf } from '@karyotome/core';
import type { Actor, Work } from '../../db/work.ts';
import { createClutch, hatch } from '../../domain/season/clutches.service.ts';
import { createPairing } from '../../domain/season/pairings.service.ts';
import { rulesOf } from '../../domain/season/season-rules.ts';
import type { Job } from '../../http/jobs.ts';
import { Refusal } from '../../refusal.ts';
import type { ClutchItem } from './file-items.ts';
import { animalsByNumber, pairingOf, type Written } from './imports.queries.ts';

/** Clutches with their pairings and hatchlings, one after the other. */
export async function writeClutches(
  work: Work<Actor>,
  items: readonly ClutchItem[],
  job: Job,
): Promise<Written> {
  const idOf = new Map((await animalsByNumber(work)).map(({ number, id }) => [number, id]));
  const { rules } = await rulesOf(work);
  const made = { clutches: [] as string[], pairings: [] as string[], animals: [] as string[] };
  for (const [i, item] of items.entries()) {
    if (job.signal.aborted) throw new Refusal('conflict', 'The import was cancelled. Nothing was imported.');
    const clutch = await atLine(item.line, () => writeClutch(work, item, idOf, seasonOf(item.laidOn, rules)));
    made.clutches.push(clutch.id);
    made.animals.push(...clutch.animals);
    if (clutch.madePairing !== null) made.pairings.push(clutch.madePairing);
    job.report({ step: 'writing', done: i + 1, of: items.length });
  }
  return { rows: items.length, made };
}

async function writeClutch(
  work: Work<Actor>,
  { dam, sires, pairedOn, laidOn, eggs, slugs, incubationC, hatchedOn, hatchlings, note }: ClutchItem,
  idOf: ReadonlyMap<string, string>,
  season: number,
): Promise<{ id: string; animals: readonly string[]; madePairing: string | null }> {
  const damId = idOf.get(dam)!;
  const sireIds = sires.map((number) => idOf.get(number)!);
  const there = await pairingOf(work, { damId, sires: sireIds, season, by: pairedOn ?? laidOn });
  const pairingId =
    there ??
    (
      await createPairing(work, {
        season,
        damId,
        sires: sireIds.map((animalId) => ({ animalId, weight: 1 })),
        startedOn: pairedOn ?? laidOn,
      })
    ).id;
  const { id } = await createClutch(work, { pairingId, laidOn, eggs, slugs, incubationC, note });
  const young =
    hatchedOn === null
      ? { ids: [] }
      : await hatch(work, id, { hatchedOn, hatched: hatchlings.length, numbers: [...hatchlings] }, 1);
  return { id, animals: young.ids, madePairing: there === null ? pairingId : null };
}

/** What is refused of a row names its line. */
async function atLine<T>(line: number, act: () => Promise<T>): Promise<T> {
  try {
    return await act();
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    throw new Refusal(error.code, `Line ${line}: ${error.message}`, error.errors);
  }
}
