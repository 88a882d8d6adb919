import { settledByLater, settledCalls, shownBy, type PastCall, type SettledCall } from '@karyotome/core';
import { type Work } from '../../db/work.ts';
import { identificationsInOrder, type CallRow } from './genetics.queries.ts';
import { geneticsOf, type Genetics } from './genetics.service.ts';

/**
 * Every call that was settled later: by a later look of the same animal that was certain, or by its own young.
 *
 * Kept until the genetic records change, since every bench asks.
 */
export async function settledOf(work: Work): Promise<SettledCall[]> {
  const genetics = await geneticsOf(work);
  const known = kept.get(genetics);
  if (known) return known;
  const rows = await identificationsInOrder(work);
  const settled = settledCalls(await pastCalls(genetics, rows));
  kept.set(genetics, settled);
  return settled;
}
const kept = new WeakMap<Genetics, SettledCall[]>();

async function pastCalls(genetics: Genetics, rows: readonly CallRow[]): Promise<PastCall[]> {
  const byAnimal = new Map<string, CallRow[]>();
  for (const row of rows) byAnimal.set(row.animalId, [...(byAnimal.get(row.animalId) ?? []), row]);
  const bred = new Map((await genetics.ask({ ask: 'proved' })).map(([id, phenotype]) => [id, phenotype]));
  return [...byAnimal].flatMap(([animal, calls]): PastCall[] => {
    const identified = calls.map(({ on, body }) => ({
      on,
      body,
      shown: shownBy(body.genes, genetics.catalogue),
    }));
    const last = identified.at(-1)!;
    return identified.map((call): PastCall => {
      const byLater =
        call === last ? {} : settledByLater(call, { on: last.on, sure: last.body.sure, shown: last.shown });
      return {
        animal,
        by: call.body.by,
        on: call.on,
        sure: call.body.sure,
        shown: call.shown,
        proved: { ...bred.get(animal), ...byLater },
      };
    });
  });
}
