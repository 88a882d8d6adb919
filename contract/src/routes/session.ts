import type { PedigreeDocument } from '@karyotome/core';
import type {
  collectionSettings,
  firstStart,
  passkeyAnswer,
  signIn,
  CollectionSettings,
} from '../session-requests.ts';
import type {
  BackupView,
  JobProgress,
  ImportedCollection,
  PasskeyOptions,
  SessionView,
  FirstStartView,
} from '../session-responses.ts';
import { acts, changes, reads, writes } from './route.ts';
import type { Changed } from './answers.ts';

export const sessionRoutes = {
  health: reads<{ status: 'ok' }>()('/health', 'Whether the server and its database answer', {
    permission: 'open',
  }),
  openApi: reads<object>()('/openapi.json', 'This description', { permission: 'open' }),
  session: reads<SessionView>()('/session', 'Who is signed in', { permission: 'own' }),
  firstStart: reads<FirstStartView>()(
    '/first-start',
    'Whether nobody has an account here yet, and what who has one can do without being signed in',
    { permission: 'open' },
  ),
  startFarm: writes<SessionView, typeof firstStart>()(
    'post',
    '/first-start',
    'Make the first owner and their farm',
    { permission: 'open' },
  ),
  signIn: writes<SessionView, typeof signIn>()('post', '/session', 'Sign in', { permission: 'open' }),
  passkeySignInOptions: acts<PasskeyOptions>()(
    'post',
    '/session/passkey/options',
    'What an authenticator is asked, for signing in',
    { permission: 'open', status: 200 },
  ),
  signInWithPasskey: writes<SessionView, typeof passkeyAnswer>()(
    'post',
    '/session/passkey',
    'Sign in with a passkey',
    { permission: 'open' },
  ),
  signOut: acts<void>()('delete', '/session', 'Sign out', { permission: 'open' }),
  changes: reads<void>()('/changes', 'What changes, as it happens', {
    format: 'events',
    query: ['page'],
  }),
  backup: reads<BackupView>()('/backup', 'When the server was last backed up', { permission: 'manage' }),
  exportAll: reads<void>()('/export', 'Everything of the collection, as one archive', {
    permission: 'manage',
    format: 'package',
  }),
  importAll: acts<ImportedCollection>()('post', '/import', 'Take in a collection that was exported', {
    permission: 'manage',
    file: 'archive',
  }),
  exportPedigree: reads<PedigreeDocument>()(
    '/export/pedigree.json',
    'The pedigree with what was recorded of genes, as karyotome-pedigree/1',
  ),
  exportPlink: reads<void>()(
    '/export/plink.zip',
    'The pedigree with what is certain of genes, as .ped, .map and .fam of PLINK',
    { format: 'package' },
  ),
  exportWeights: reads<void>()('/export/weights.csv', 'Every weight, one a row', { format: 'csv' }),
  exportMeals: reads<void>()('/export/meals.csv', 'Every meal, one a row', { format: 'csv' }),
  exportReadings: reads<void>()('/export/readings.csv', 'Every reading of incubators and rooms, one a row', {
    format: 'csv',
  }),
  job: reads<JobProgress>()('/jobs/:id', 'How far long work is', { permission: 'own' }),
  changeSettings: changes<CollectionSettings & Changed, typeof collectionSettings>()(
    'put',
    '/settings',
    'Change the settings of the collection',
    { permission: 'manage' },
  ),
};
