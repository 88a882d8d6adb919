import type { DoubtfulRecordView, SuspectView } from '@karyotome/contract';
import { learnedError, recordsOf, shownBy, type DoubtfulRecord } from '@karyotome/core';
import { type Work } from '../../db/work.ts';
import type { RecordErrors } from './engine-questions.ts';
import { identificationsInOrder, namedAnimals } from './genetics.queries.ts';
import { geneticsOf, type Genetics } from './genetics.service.ts';
import { locusName } from './contradictions.service.ts';
import { settledOf } from './settled-calls.ts';
import { supportViews } from './support-views.ts';

/** The records to look at again so that the collection's records hold together, the most telling first. */
export async function listSuspects(work: Work): Promise<SuspectView[]> {
  const genetics = await geneticsOf(work);
  if (genetics.posterior.conflicts.length === 0) return [];
  const { suspects, doubt } = await genetics.ask({ ask: 'suspects', errors: await errorsOf(work, genetics) });
  const views = await viewsOf(work, genetics, suspects);
  return suspects.map(({ gain, isEnough }, i) => ({
    ...views[i]!,
    settles: doubt > 0 ? Math.max(gain, 0) / doubt : 0,
    isEnough,
  }));
}

/** Records that are more likely wrong than right though nothing contradicts them, the likeliest first. */
export async function listDoubtful(work: Work): Promise<DoubtfulRecordView[]> {
  const genetics = await geneticsOf(work);
  const errors = await errorsOf(work, genetics);
  const found: DoubtfulRecord[] = [];
  // One locus after the other, so that whoever else asks the engine is answered in between.
  for (const locus of genetics.posterior.loci)
    found.push(...(await genetics.ask({ ask: 'doubtful', locus, errors })));
  found.sort((a, b) => b.pWrong - a.pWrong);
  return viewsOf(work, genetics, found);
}

async function viewsOf(
  work: Work,
  genetics: Genetics,
  found: readonly DoubtfulRecord[],
): Promise<DoubtfulRecordView[]> {
  const named = await namedAnimals(work, [...new Set(found.map(({ animal }) => animal))]);
  const byId = new Map(named.map((animal) => [animal.id, animal]));
  const support = found.flatMap(({ record, animal }) => (record === undefined ? [] : [{ record, animal }]));
  const records = await supportViews(work, genetics, support, byId);
  return found.map(({ animal, locus, record, pWrong }) => ({
    id: `${animal} ${locus} ${record ?? ''}`,
    locusName: locusName(genetics, locus),
    record: records.get(record!)!,
    pWrong,
  }));
}

const kept = new WeakMap<Genetics, Promise<RecordErrors>>();

/** How often what a person said is wrong by what was settled of their calls, where enough was: record -> locus -> chance. */
function errorsOf(work: Work, genetics: Genetics): Promise<RecordErrors> {
  const known = kept.get(genetics) ?? learnedErrors(work, genetics);
  kept.set(genetics, known);
  known.catch(() => kept.delete(genetics));
  return known;
}

async function learnedErrors(work: Work, genetics: Genetics): Promise<RecordErrors> {
  const settled = await settledOf(work);
  if (settled.length === 0) return {};
  const people = new Map<string, ReadonlyMap<string, number>>();
  const errorsBy = (by: string): ReadonlyMap<string, number> => {
    const known = people.get(by);
    if (known) return known;
    const learned = new Map(
      recordsOf(settled, by).flatMap((record): [string, number][] => {
        const error = learnedError(record);
        return error === null ? [] : [[record.phenotype, error]];
      }),
    );
    people.set(by, learned);
    return learned;
  };
  const errors: Record<string, Record<string, number>> = {};
  for (const { id, body } of await identificationsInOrder(work)) {
    const learned = errorsBy(body.by);
    if (learned.size === 0) continue;
    for (const [locus, phenotype] of Object.entries(shownBy(body.genes, genetics.catalogue))) {
      const error = learned.get(phenotype);
      if (error !== undefined) (errors[id] ??= {})[locus] = error;
    }
  }
  return errors;
}
