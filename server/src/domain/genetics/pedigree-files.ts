import type { PedigreeDocument, PlinkFiles } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import type { Names } from './engine-questions.ts';
import { namedAnimals } from './genetics.queries.ts';
import { geneticsOf } from './genetics.service.ts';

/* The whole pedigree for other programs; animals go by their numbers. */

/** With what was recorded of genes: whoever has an engine derives the same from it. */
export async function pedigreeDocument(work: Work): Promise<PedigreeDocument> {
  const { ask } = await geneticsOf(work);
  return ask({ ask: 'document', names: await namesOf(work) });
}

/** With what is certain of genes. */
export async function plinkFiles(work: Work): Promise<PlinkFiles> {
  const { ask } = await geneticsOf(work);
  return ask({ ask: 'plink', names: await namesOf(work) });
}

const namesOf = async (work: Work): Promise<Names> =>
  (await namedAnimals(work)).map(({ id, number }) => [id, number]);
