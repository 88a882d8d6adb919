import type { CallsView } from '@karyotome/contract';
import { phenotypeLabel, type Sureness } from '@karyotome/core';
import { type Work } from '../../db/work.ts';
import { geneticsOf } from '../../domain/genetics/genetics.service.ts';
import { settledOf } from '../../domain/genetics/settled-calls.ts';

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
