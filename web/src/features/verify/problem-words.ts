import type { Problem } from '@karyotome/lineage';
import { tellProblem } from '@karyotome/words';
import { reader } from '../../format/reader.ts';

/** Why a document does not hold, for the reader of this page. */
export const problemWords = (problem: Problem): string => tellProblem(problem, reader());
