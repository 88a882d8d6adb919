import * as incubation from '../incubation-requests.ts';
import { publishing } from '../publication-requests.ts';
import type { PublicAnimal, ShowcaseLine } from '../publication-responses.ts';
import type { FeedView } from '../season-responses.ts';
import { acts, lists, reads, writes } from './route.ts';
import type { Created } from './answers.ts';

export const publicationsRoutes = {
  showcase: lists<ShowcaseLine>()('/showcase', 'What is published', { key: 'slug', sorts: ['publishedAt'] }),
  publish: writes<{ slug: string }>()('put', '/animals/:id/publication', 'Publish an animal', publishing),
  issueStatement: acts<{ statement: number }>()(
    'post',
    '/animals/:id/statements',
    'Sign what the records say of a published animal now',
  ),
  statementPackage: reads<void>()(
    '/animals/:id/package',
    'The newest statement with earlier ones, records and pictures: a BagIt bag in a zip',
    { format: 'package' },
  ),
  withdraw: acts<void>()('delete', '/animals/:id/publication', 'Withdraw a published page'),
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
  addCalendarFeed: writes<Created & { path: string }>()(
    'post',
    '/calendar-feeds',
    'Make a calendar address',
    incubation.newFeed,
  ),
  revokeCalendarFeed: acts<void>()('delete', '/calendar-feeds/:id', 'Revoke a calendar address'),
  calendar: reads<void>()('/calendar/:file', 'A calendar of what is due', {
    permission: 'open',
    format: 'calendar',
  }),
};
