import type { importPlan, importRun } from '../import-requests.ts';
import type { ImportSummary, ImportView } from '../import-responses.ts';
import { acts, lists, reads, writes } from './route.ts';
import type { Created } from './answers.ts';

export const importsRoutes = {
  imports: lists<ImportSummary>()(
    '/imports',
    'Files that came in, or are to',
    { key: 'id' },
    { permission: 'breed' },
  ),
  addImport: acts<Created>()('post', '/imports', 'Bring a file, of which nothing is taken yet', {
    permission: 'breed',
    file: 'csv',
    query: ['name'],
  }),
  import: reads<ImportView>()('/imports/:id', 'A file, how it is read, and what is wrong with it', {
    permission: 'breed',
  }),
  planImport: writes<ImportView, typeof importPlan>()(
    'put',
    '/imports/:id/plan',
    'Say how a file is to be read',
    { permission: 'breed' },
  ),
  runImport: writes<{ rows: number }, typeof importRun>()(
    'post',
    '/imports/:id/run',
    'Take what a file holds',
    { permission: 'breed' },
  ),
  undoImport: acts<void>()('post', '/imports/:id/undo', 'Take back everything that a file brought in', {
    permission: 'breed',
    status: 204,
  }),
  discardImport: acts<void>()('delete', '/imports/:id', 'Discard a file of which nothing was taken', {
    permission: 'breed',
  }),
};
