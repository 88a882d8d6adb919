import { DEFAULT_LOCALE, Reader } from '@karyotome/words';
import { Router, type Request, type Response } from 'express';
import { h } from 'vue';
import { reading, writing, type Database } from '../../db/work.ts';
import { findAnimal } from '../../domain/animals/animals.service.ts';
import { collectionOf } from '../../domain/collection/collection-of.ts';
import { handOverAt, openHandOver } from '../../domain/taking-in/hand-over.ts';
import { packPackage, statementPackage } from '../../domain/publications/statement-package.ts';
import { localeOf } from '../../http/locale.ts';
import { originOf } from '../../http/origin.ts';
import type { RateLimits } from '../../http/rate-limits.ts';
import { pageFooter, renderDocument, type PageContent } from './document.ts';
import type { FileStore } from '../../files/file-store.ts';

/** The address that a buyer is given: it shows what there is, and hands it over once. */
export function handOverRoutes(database: Database, files: FileStore, limits: RateLimits): Router {
  const router = Router();
  const tokenOf = (request: Request): string => String(request.params['token']);
  const guard = limits.guard('page', tokenOf);
  router.get('/h/:token', guard, async (request, response) => {
    const row = await handOverAt(database, tokenOf(request));
    const page = await reading(database, row, async (work) => {
      const { name, massUnit, temperatureUnit } = await collectionOf(work);
      const { number } = await findAnimal(work, row.animalId);
      const locale = localeOf(request) || DEFAULT_LOCALE;
      return handOverPage({
        collection: name,
        number,
        isOpen: row.openedAt === null && row.expiresOn >= work.today,
        until: new Reader({ locale, massUnit, temperatureUnit }).day(row.expiresOn),
        path: request.path,
        origin: originOf(request),
      });
    });
    response
      .set('Cache-Control', 'no-store')
      .type('html')
      .send(await renderDocument(page));
  });
  // By POST alone: programs that look at links before people do must not use it up.
  router.post('/h/:token', guard, (request, response) => send(database, files, request, response));
  return router;
}

async function send(
  database: Database,
  files: FileStore,
  request: Request,
  response: Response,
): Promise<void> {
  const token = String(request.params['token']);
  const row = await handOverAt(database, token);
  const actor = { collectionId: row.collectionId };
  // Packed first: what cannot be packed does not use the address up.
  const content = await reading(database, actor, (work) => statementPackage(work, row.animalId));
  const zip = await packPackage(files, content);
  await writing(database, actor, (work) => openHandOver(work, token));
  response
    .set('Cache-Control', 'no-store')
    .attachment(`${content.name}.zip`)
    .type('zip')
    .send(Buffer.from(zip));
}

interface HandOver {
  readonly collection: string;
  readonly number: string;
  readonly isOpen: boolean;
  readonly until: string;
  readonly path: string;
  readonly origin: string;
}

function handOverPage({ collection, number, isOpen, until, path, origin }: HandOver): PageContent {
  return {
    title: `${number} of ${collection}`,
    description: `The package of ${number}: its signed statement, records and pictures.`,
    address: `${origin}${path}`,
    isUnlisted: true,
    body: [
      h('main', [
        h('h1', `${number} of ${collection}`),
        isOpen
          ? h('section', [
              h(
                'p',
                'This is the package that goes with the animal: its signed statements, its records and its pictures.',
              ),
              h('p', `It can be fetched once, until ${until}.`),
              h('form', { method: 'post', action: path }, [
                h('button', { type: 'submit' }, 'Fetch the package'),
              ]),
            ])
          : h(
              'p',
              { class: 'caution' },
              'The package was fetched already, or the address has run out. Ask the breeder for another one.',
            ),
        h('p', [
          'The package can be ',
          h('a', { href: '/verify' }, 'checked'),
          ' in a browser, and taken into your own records.',
        ]),
      ]),
      pageFooter(),
    ],
  };
}
