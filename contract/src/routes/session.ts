import type { collectionSettings, signIn, CollectionSettings } from '../session-requests.ts';
import type { JobProgress, SessionView } from '../session-responses.ts';
import { acts, changes, reads, writes } from './route.ts';
import type { Changed } from './answers.ts';

export const sessionRoutes = {
  health: reads<{ status: 'ok' }>()('/health', 'Whether the server and its database answer', {
    permission: 'open',
  }),
  openApi: reads<object>()('/openapi.json', 'This description', { permission: 'open' }),
  session: reads<SessionView>()('/session', 'Who is signed in', { permission: 'own' }),
  signIn: writes<SessionView, typeof signIn>()('post', '/session', 'Sign in', { permission: 'open' }),
  signOut: acts<void>()('delete', '/session', 'Sign out', { permission: 'open' }),
  changes: reads<void>()('/changes', 'What changes, as it happens', {
    format: 'events',
    query: ['page'],
  }),
  job: reads<JobProgress>()('/jobs/:id', 'How far long work is', { permission: 'own' }),
  changeSettings: changes<CollectionSettings & Changed, typeof collectionSettings>()(
    'put',
    '/settings',
    'Change the settings of the collection',
    { permission: 'manage' },
  ),
};
