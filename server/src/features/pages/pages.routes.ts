import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { readId, ROUTES } from '@karyotome/contract';
import { dayIn } from '@karyotome/core';
import { Router, type ErrorRequestHandler, type Request, type Response } from 'express';
import { nowMs } from '../../clock.ts';
import { readingLately } from '../../db/standby.ts';
import { MACHINE_ZONE, reading, type Database, type Work } from '../../db/work.ts';
import { collectionOf } from '../../domain/collection/collection-of.ts';
import { PUBLISHED_PICTURE } from '../../domain/pictures/pictures.queries.ts';
import { stampedFile } from '../../domain/pictures/pictures.service.ts';
import { toPublic } from '../../domain/publications/public-animal.ts';
import { statementsOf, subjectOf } from '../../domain/statements/statements.queries.ts';
import { statementLine } from '../../domain/statements/statements.service.ts';
import { localeOf } from '../../http/locale.ts';
import { describeApi } from '../../http/open-api.ts';
import { originOf } from '../../http/origin.ts';
import { stylesByDigest } from '../../http/security-headers.ts';
import { PROBLEMS, toRefusal } from '../../http/problems.ts';
import type { RateLimits } from '../../http/rate-limits.ts';
import { sendPicture } from '../../http/send-stored.ts';
import { Refusal } from '../../refusal.ts';
import { animalPage } from './animal-page.ts';
import { apiPage, type Described } from './api-page.ts';
import { renderDocument, type PageContent } from './document.ts';
import { frontPage } from './front-page.ts';
import { readFilter } from './front-filter.ts';
import { handOverRoutes } from './hand-over.routes.ts';
import { inquiryRoutes } from './inquiry.routes.ts';
import { jsonFeed } from './json-feed.ts';
import { noticePage, statementPage } from './notice-page.ts';
import { listOffered } from './offered.ts';
import { createPageCache, sendPage, type MadePage, type PageCache } from './page-cache.ts';
import { frontAt, pageAt, type Source } from './pages.queries.ts';
import { PICTURE_WIDTHS } from './picture-set.ts';
import { STYLE } from './style.ts';
import type { FileStore } from '../../files/file-store.ts';

/* Pages for everybody, without a session: plain HTML that works without JavaScript, made once for each state of what it shows. */

const FONTS = join(
  dirname(createRequire(import.meta.url).resolve('@fontsource/atkinson-hyperlegible-next/package.json')),
  'files',
);
const FONT_FILES = {
  'regular.woff2': 'atkinson-hyperlegible-next-latin-400-normal.woff2',
  'bold.woff2': 'atkinson-hyperlegible-next-latin-700-normal.woff2',
} as const;
const HTML = 'text/html; charset=utf-8';
const WITHDRAWN = 410;

const made = async (page: PageContent, status = 200): Promise<Made> => ({
  status,
  type: HTML,
  bytes: Buffer.from(await renderDocument(page)),
});
const missing = (): Refusal => new Refusal('not-found', 'There is no page at this address.');
const param = (request: Request, name: string): string => String(request.params[name]);

interface Pages {
  readonly database: Database;
  readonly files: FileStore;
  readonly cache: PageCache;
}

export function pageRoutes(database: Database, files: FileStore, limits: RateLimits): Router {
  const router = Router();
  const pages: Pages = { database, files, cache: createPageCache() };
  router.use(stylesByDigest(STYLE));
  const guard = limits.guard('picture', (request) => param(request, 'slug'));
  router.get('/p-assets/:file', (request, response, next) => {
    const file = FONT_FILES[param(request, 'file') as keyof typeof FONT_FILES] as string | undefined;
    if (file === undefined) return next(missing());
    response.sendFile(file, { root: FONTS, immutable: true, maxAge: '1y' });
  });
  router.get('/p/:slug', (request, response) => sendAnimal(pages, request, response));
  router.get('/p/:slug/statements/:statement', (request, response) =>
    sendStatement(pages, request, response),
  );
  router.get('/p/:slug/pictures/:id/:width', guard, (request, response) => sendOne(pages, request, response));
  router.get('/c/:name', (request, response) => sendFront(pages, request, response));
  router.get('/c/:name/feed.json', (request, response) => sendFeed(pages, request, response));
  let description: Promise<string> | null = null;
  router.get('/api/docs', async (_request, response) => {
    // The same for everybody: made once.
    description ??= renderDocument(apiPage(describeApi(ROUTES) as Described));
    response
      .set('Cache-Control', 'no-cache')
      .type(HTML)
      .send(await description);
  });
  router.use(inquiryRoutes(database, limits));
  router.use(handOverRoutes(database, files, limits));
  router.use(asPage);
  return router;
}

/** What went wrong, as a page for a person. */
const asPage: ErrorRequestHandler = async (error, request, response, next) => {
  const refusal = toRefusal(error);
  if (response.headersSent || refusal.code === 'internal') return next(error);
  const { status, title } = PROBLEMS[refusal.code];
  const address = `${originOf(request)}${request.path}`;
  const html = await renderDocument(noticePage(title, refusal.message, address));
  if (refusal.retryAfter !== null) response.set('Retry-After', String(refusal.retryAfter));
  response.status(status).set('Cache-Control', 'no-store').type(HTML).send(html);
};

type Made = Pick<MadePage, 'status' | 'type' | 'bytes'>;

/**
 * A page as it was made for this revision of what it shows, or made now. Both may be read from a standby; the revision is read
 * again where the page is made, so that it is of what was seen there.
 *
 * @param key - all that the page depends on besides
 * @param find - what it is of; null where there is none
 */
function keptPage<Row extends { readonly collectionId: string; readonly revision: string }>(
  { database, cache }: Pages,
  key: readonly unknown[],
  find: (source: Source) => Promise<Row | null>,
  make: (work: Work, row: Row) => Promise<Made>,
): Promise<MadePage> {
  return readingLately(database, (source) =>
    cache(
      JSON.stringify(key),
      () => existing(find(source)),
      ({ collectionId }) =>
        reading(source, { collectionId }, async (work) => {
          const row = await existing(find(work));
          return { revision: row.revision, ...(await make(work, row)) };
        }),
    ),
  );
}

async function existing<Row>(find: Promise<Row | null>): Promise<Row> {
  const row = await find;
  if (!row) throw missing();
  return row;
}

async function sendAnimal(pages: Pages, request: Request, response: Response): Promise<void> {
  const slug = param(request, 'slug');
  const [origin, locale] = [originOf(request), localeOf(request)];
  const withdrawn = noticePage(
    'This page was withdrawn',
    'The breeder took it off. What was signed stays readable at the address of each statement.',
    `${origin}/p/${slug}`,
  );
  const page = await keptPage(
    pages,
    ['p', slug, origin, locale],
    (source) => pageAt(source, slug),
    async (work, { animalId, pageName, publishedAt, withdrawnAt }) => {
      if (withdrawnAt !== null) return made(withdrawn, WITHDRAWN);
      const animal = await toPublic(work, animalId, publishedAt.toISOString());
      return made(animalPage({ animal, slug, pageName, origin, locale }));
    },
  );
  sendPage(request, response, page);
}

async function sendStatement(pages: Pages, request: Request, response: Response): Promise<void> {
  const slug = param(request, 'slug');
  const wanted = param(request, 'statement');
  const [origin, locale] = [originOf(request), localeOf(request)];
  const page = await keptPage(
    pages,
    ['s', slug, wanted, origin, locale],
    (source) => pageAt(source, slug),
    async (work, { animalId, withdrawnAt }) => {
      const rows = await statementsOf(work, { animalId });
      const statement = rows.find((one) => String(one.statement) === wanted);
      if (!statement) throw new Refusal('not-found', 'There is no statement of this number.');
      const { name, massUnit, temperatureUnit } = await collectionOf(work);
      return made(
        statementPage({
          collection: name,
          number: subjectOf(statement).number,
          slug,
          statement: statement.statement,
          statements: rows.map(statementLine),
          withdrawnOn: withdrawnAt === null ? null : dayIn(work.timeZone, withdrawnAt.getTime()),
          origin,
          reader: { locale, massUnit, temperatureUnit },
        }),
      );
    },
  );
  sendPage(request, response, page);
}

async function sendOne({ database, files }: Pages, request: Request, response: Response): Promise<void> {
  const id = readId(param(request, 'id'));
  const width = PICTURE_WIDTHS.find((one) => String(one) === param(request, 'width'));
  if (id === null || width === undefined) throw missing();
  const slug = param(request, 'slug');
  await sendPicture(
    response,
    files,
    await stampedFile(database, files, PUBLISHED_PICTURE, { slug, id }, width),
  );
}

async function sendFront(pages: Pages, request: Request, response: Response): Promise<void> {
  const pageName = param(request, 'name');
  const filter = readFilter(request.query);
  const [origin, locale] = [originOf(request), localeOf(request)];
  const page = await keptPage(
    pages,
    ['c', pageName, filter, origin, locale, dayIn(MACHINE_ZONE, nowMs())],
    (source) => frontAt(source, pageName),
    async (work, { name, massUnit, temperatureUnit }) =>
      made(
        frontPage({
          collection: name,
          pageName,
          units: { massUnit, temperatureUnit },
          offered: await listOffered(work),
          filter,
          today: work.today,
          origin,
          locale,
        }),
      ),
  );
  sendPage(request, response, page);
}

async function sendFeed(pages: Pages, request: Request, response: Response): Promise<void> {
  const pageName = param(request, 'name');
  const origin = originOf(request);
  const page = await keptPage(
    pages,
    ['f', pageName, origin],
    (source) => frontAt(source, pageName),
    async (work, { name }) => ({
      status: 200,
      type: 'application/feed+json; charset=utf-8',
      bytes: Buffer.from(JSON.stringify(jsonFeed(name, pageName, await listOffered(work), origin))),
    }),
  );
  // Other sites may read the feed from a browser.
  response.set('Access-Control-Allow-Origin', '*');
  sendPage(request, response, page);
}
