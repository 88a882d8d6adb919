import { ROUTES as R, type ImportPlan } from '@karyotome/contract';
import { call, callAll, type LongWork } from './call.ts';

const CSV = 'text/csv';

/** Spreadsheets that come in. */
export const importApi = {
  imports: () => callAll(R.imports),
  addImport: (file: File, work: LongWork) =>
    call(R.addImport, { file, type: CSV, query: { name: file.name }, ...work }),
  import: (id: string) => call(R.import, { params: { id } }),
  planImport: (id: string, body: ImportPlan, work: LongWork) =>
    call(R.planImport, { params: { id }, body, ...work }),
  runImport: (id: string, leaveOutBad: boolean, work: LongWork) =>
    call(R.runImport, { params: { id }, body: { leaveOutBad }, ...work }),
  undoImport: (id: string) => call(R.undoImport, { params: { id } }),
  discardImport: (id: string) => call(R.discardImport, { params: { id } }),
};
