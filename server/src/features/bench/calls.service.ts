import type { CallsView } from '@karyotome/contract';
import {
  phenotypeLabel,
  settledByLater,
  settledCalls,
  shownBy,
  type PastCall,
  type SettledCall,
  type Sureness,
} from '@karyotome/core';
import { type Work } from '../../db/work.ts';
import { geneticsOf, type Genetics } from '../../domain/genetics/genetics.service.ts';
import { type IdentificationRow, identificationsInOrder } from './bench.queries.ts';

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

async function pastCalls(genetics: Genetics, rows: readonly IdentificationRow[]): Promise<PastCall[]> {
  const byAnimal = new Map<string, IdentificationRow[]>();
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

const SURENESSES: readonly Sureness[] = ['certain', 'probable', 'possible'];

export async function viewCalls(work: Work): Promise<CallsView> {
  const settled = await settledOf(work);
  const { catalogue } = await geneticsOf(work);
  const byGene = new Map<string, CallsView['byGene'][number]>();
  for (const { by, locus, phenotype, isRight } of settled) {
    const key = `${by}|${phenotype}`;
    const label = phenotypeLabel({ [locus]: phenotype }, catalogue);
    const one = byGene.get(key) ?? { phenotype, label, by, right: 0, settled: 0 };
    byGene.set(key, { ...one, settled: one.settled + 1, right: one.right + Number(isRight) });
  }
  return {
    bySure: SURENESSES.map((sure) => {
      const own = settled.filter((call) => call.sure === sure);
      return { sure, settled: own.length, right: own.filter(({ isRight }) => isRight).length };
    }),
    byGene: [...byGene.values()].toSorted(
      (a, b) => b.settled - a.settled || (a.label < b.label ? -1 : a.label > b.label ? 1 : 0),
    ),
  };
}
