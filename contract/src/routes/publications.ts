import type * as incubation from '../incubation-requests.ts';
import type { backupInput, publishing, restoreInput, withholdInput } from '../publication-requests.ts';
import type {
  AmendmentView,
  KeyBackup,
  PublicAnimal,
  ShowcaseLine,
  SigningKeyView,
} from '../publication-responses.ts';
import type { FeedView } from '../season-responses.ts';
import { acts, lists, reads, writes } from './route.ts';
import type { Created } from './answers.ts';

export const publicationsRoutes = {
  showcase: lists<ShowcaseLine>()('/showcase', 'What is published', { key: 'slug', sorts: ['publishedAt'] }),
  publish: writes<{ slug: string }, typeof publishing>()(
    'put',
    '/animals/:id/publication',
    'Publish an animal',
    { permission: 'sell' },
  ),
  issueStatement: acts<{ statement: number }>()(
    'post',
    '/animals/:id/statements',
    'Sign what the records say of a published animal now',
    { permission: 'sell' },
  ),
  amendment: reads<AmendmentView>()(
    '/animals/:id/amendment',
    'What the next statement of an animal would say otherwise, and why',
    { permission: 'sell' },
  ),
  withholdAmendment: writes<void, typeof withholdInput>()(
    'put',
    '/animals/:id/amendment',
    'Say why what the records say now is not signed',
    { permission: 'sell', status: 204 },
  ),
  signingKeys: lists<SigningKeyView>()('/signing-keys', "The collection's keys, the one in use first", {
    key: 'id',
  }),
  succeedKey: acts<Created>()('post', '/signing-keys', 'Replace the key by a new one, which it introduces', {
    permission: 'manage',
  }),
  backUpKey: writes<KeyBackup, typeof backupInput>()(
    'post',
    '/signing-keys/backup',
    'The key in use, under a password',
    { permission: 'destroy', status: 200 },
  ),
  restoreKey: writes<void, typeof restoreInput>()(
    'post',
    '/signing-keys/restore',
    'Bring a key back from its backup',
    { permission: 'manage', status: 204 },
  ),
  statementPackage: reads<void>()(
    '/animals/:id/package',
    'The newest statement with earlier ones, records and pictures: a BagIt bag in a zip',
    { format: 'package' },
  ),
  withdraw: acts<void>()('delete', '/animals/:id/publication', 'Withdraw a published page', {
    permission: 'sell',
  }),
  published: reads<PublicAnimal>()('/public/:slug', 'A published page', {
    permission: 'open',
    query: ['download'],
  }),
  publishedPicture: reads<void>()('/public/:slug/pictures/:id', 'A picture of a published page', {
    permission: 'open',
    format: 'picture',
  }),
  publishedStatement: reads<object>()('/public/:slug/statements/:statement', 'A signed statement', {
    permission: 'open',
  }),
  calendarFeeds: lists<FeedView>()('/calendar-feeds', 'Calendar addresses', { key: 'id', sorts: ['name'] }),
  addCalendarFeed: writes<Created & { path: string }, typeof incubation.newFeed>()(
    'post',
    '/calendar-feeds',
    'Make a calendar address',
  ),
  revokeCalendarFeed: acts<void>()('delete', '/calendar-feeds/:id', 'Revoke a calendar address'),
  calendar: reads<void>()('/calendar/:file', 'A calendar of what is due', {
    permission: 'open',
    format: 'calendar',
  }),
};
