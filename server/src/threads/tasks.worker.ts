import type { MessagePort } from 'node:worker_threads';
import { toRefusal } from '../http/problems.ts';
import type { Progress, Tasks } from './pool.ts';
import { drawLabels, labelPdf } from '../features/labels/label-pdf.ts';
import { proposeImport } from '../features/imports/propose-plan.ts';
import { checkImport } from '../features/imports/check-import.ts';
import { computeStates, fitHerd, statesAsText } from '../domain/states/states-in-thread.ts';
import { packStatement } from '../domain/publications/pack-statement.ts';
import { gatherLessons } from '../domain/husbandry/gather-lessons.ts';
import { foreseeMasses } from '../features/room/foresee-masses.ts';
import { cardPdf } from '../features/incubation/card-pdf.ts';
import { careSheetPdf } from '../features/sales/care-sheet-pdf.ts';
import { receiptPdf } from '../features/sales/receipt-pdf.ts';
import { receive, tryInference } from '../features/taking-in/receive-file.ts';
import { readLogger } from '../features/climate/read-logger.ts';

/* Runs in threads: each task is a pure function of its input. */

const TASKS: Tasks = {
  'check-import': checkImport,
  'propose-import': proposeImport,
  'compute-states': computeStates,
  'states-as-text': statesAsText,
  'fit-herd': fitHerd,
  'foresee-masses': foreseeMasses,
  'gather-lessons': gatherLessons,
  'read-logger': readLogger,
  'draw-labels': drawLabels,
  'label-pdf': labelPdf,
  'card-pdf': cardPdf,
  'care-sheet-pdf': careSheetPdf,
  'receipt-pdf': receiptPdf,
  'receive-file': receive,
  'try-inference': tryInference,
  'pack-statement': packStatement,
};

/** Progress is worth telling so often. */
const EVERY_MS = 200;

/** Runs one task and reports how far it is. Refusals are answers, so that they keep their code and fields. */
export default async function run({
  name,
  input,
  port,
}: {
  name: keyof Tasks;
  input: never;
  port: MessagePort | null;
}): Promise<{ value: unknown } | { refusal: unknown[] }> {
  let told = 0;
  const progress: Progress = (done, of) => {
    const now = Date.now();
    if (!port || now - told < EVERY_MS) return;
    told = now;
    port.postMessage([done, of]);
  };
  try {
    return { value: await (TASKS[name] as (input: never, progress: Progress) => unknown)(input, progress) };
  } catch (error) {
    const refusal = toRefusal(error);
    if (refusal.code === 'internal') throw error;
    return { refusal: [refusal.code, refusal.message, [...refusal.errors]] };
  }
}
