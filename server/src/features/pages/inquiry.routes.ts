import express, { Router, type Request, type Response } from 'express';
import type { Database } from '../../db/work.ts';
import { originOf } from '../../http/origin.ts';
import { RATES, type RateLimits } from '../../http/rate-limits.ts';
import { Refusal } from '../../refusal.ts';
import { renderDocument } from './document.ts';
import { inquiryPage, keepInquiry, readInquiry, TRAP_FIELD, type InquiryPage } from './inquiry.ts';
import { animalOfPage, frontAt, type FrontRow } from './pages.queries.ts';

const UNPROCESSABLE = 422;
const SEE_OTHER = 303;
const MOST_BYTES = '20kb';

export function inquiryRoutes(database: Database, limits: RateLimits): Router {
  const router = Router();
  const path = '/c/:name/inquiry';
  const find = async (
    request: Request,
  ): Promise<{ front: FrontRow; about: InquiryPage['about']; animalId: string | null }> => {
    const front = await frontAt(database, String(request.params['name']));
    if (!front) throw new Refusal('not-found', 'There is no page at this address.');
    const slug = request.query['animal'];
    const animal = typeof slug === 'string' ? await animalOfPage(database, { slug, ...front }) : null;
    return {
      front,
      about: animal && { slug: String(slug), number: animal.number },
      animalId: animal?.id ?? null,
    };
  };
  const show = async (
    request: Request,
    response: Response,
    page: Pick<InquiryPage, 'about' | 'typed' | 'problems' | 'isSent'> & { readonly front: FrontRow },
  ): Promise<void> => {
    const { front, ...rest } = page;
    const html = await renderDocument(
      inquiryPage({
        collection: front.name,
        pageName: String(request.params['name']),
        origin: originOf(request),
        ...rest,
      }),
    );
    response.set('Cache-Control', 'no-store').type('text/html; charset=utf-8').send(html);
  };
  router.get(path, async (request, response) => {
    const { front, about } = await find(request);
    await show(request, response, {
      front,
      about,
      typed: {},
      problems: [],
      isSent: request.query['sent'] === '1',
    });
  });
  router.post(path, express.urlencoded({ extended: false, limit: MOST_BYTES }), async (request, response) => {
    const { front, about, animalId } = await find(request);
    const read = readInquiry(request.body);
    if ('problems' in read) {
      response.status(UNPROCESSABLE);
      await show(request, response, { front, about, ...read, isSent: false });
      return;
    }
    const { byAddress, byTarget } = RATES.inquiry;
    await limits.take('inquiry-by', request.ip ?? '', byAddress, 'questions from this address');
    await limits.take('inquiry-of', front.collectionId, byTarget, 'questions to this collection');
    // A program that fills in everything is told the same as a person, and nothing is kept.
    const isTrapped = String((request.body as Record<string, unknown>)[TRAP_FIELD] ?? '') !== '';
    if (!isTrapped) await keepInquiry(database, front.collectionId, animalId, read.input);
    response.redirect(SEE_OTHER, `/c/${String(request.params['name'])}/inquiry?sent=1`);
  });
  return router;
}
