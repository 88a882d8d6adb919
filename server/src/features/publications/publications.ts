import { randomBytes, randomUUID } from 'node:crypto';
import { ROUTES, type ShowcaseLine } from '@karyotome/contract';
import { openRoute } from '../../http/open-route.ts';
import { Router, type Request } from 'express';
import { inferring } from '../../db/turns.ts';
import { reading, type Actor, type Database, type Work } from '../../db/work.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { notFound, Refusal } from '../../refusal.ts';
import type { RateLimits } from '../../http/rate-limits.ts';
import { findAnimal, listAnimals } from '../../domain/animals/animals.service.ts';
import { openPublication } from '../../domain/animals/animals.queries.ts';
import { geneticsOf } from '../../domain/genetics/genetics.service.ts';
import { claimChanges } from '../../domain/statements/claim-changes.ts';
import {
  comparedClaims,
  composeStatement,
  type Composition,
} from '../../domain/statements/compose-statement.ts';
import { newestStatements, publishedStatement } from '../../domain/statements/statements.queries.ts';
import { issueStatement, subjectOf } from '../../domain/statements/statements.service.ts';
import { idParam } from '../../http/asked.ts';
import { inThread } from '../../threads/pool.ts';
import { toPublic } from './public-animal.ts';
import { fileNameOf, statementPackage } from './statement-package.ts';
import { listedPublications, standingIdentification } from './publications.queries.ts';

export async function publish(
  work: Work<Actor>,
  animalId: string,
  text: string | null,
): Promise<{ slug: string; isNew: boolean }> {
  const { collectionId, accountId } = work.actor;
  const animal = await findAnimal(work, animalId);
  const [identified] = await standingIdentification(work, { animalId });
  if (!identified) {
    throw new Refusal('conflict', `${animal.number} is not identified yet: there is nothing to claim.`);
  }
  const live = (
    await work.models.publications.findOne({
      where: { collectionId, animalId, withdrawnAt: null },
      transaction: work.transaction,
    })
  )?.get();
  if (live) {
    await work.models.publications.update(
      { text },
      { where: { id: live.id }, transaction: work.transaction },
    );
    return { slug: live.slug, isNew: false };
  }
  const slug = randomBytes(12).toString('base64url');
  await work.models.publications.create(
    { collectionId, id: randomUUID(), animalId, slug, text, authorId: accountId },
    { transaction: work.transaction },
  );
  return { slug, isNew: true };
}

async function withdraw(work: Work, animalId: string): Promise<void> {
  const { collectionId } = work.actor;
  const [changed] = await work.models.publications.update(
    { withdrawnAt: new Date() },
    { where: { collectionId, animalId, withdrawnAt: null }, transaction: work.transaction },
  );
  if (changed === 0) throw notFound('A published page of this animal');
}

async function showcase(work: Work): Promise<ShowcaseLine[]> {
  const genetics = await geneticsOf(work);
  const animals = new Map((await listAnimals(work)).map((animal) => [animal.id, animal]));
  const rows = await listedPublications(work);
  const newest = new Map((await newestStatements(work)).map((row) => [row.animalId, row]));
  return rows.map(({ animalId, slug, publishedAt }) => {
    const claims = comparedClaims(genetics, animalId);
    const row = newest.get(animalId);
    return {
      animal: animals.get(animalId)!,
      slug,
      publishedAt,
      claims: claims.map(({ words }) => words),
      statement: row ? { statement: row.statement, asOf: row.asOf } : null,
      changes: row ? claimChanges(subjectOf(row).claims, claims) : [],
    };
  });
}

/** Signs what the records say now of an animal that is published. */
async function issue(
  work: Work<Actor>,
  serverSecret: string,
  composition: Composition,
): Promise<{ statement: number }> {
  const [live] = await openPublication(work, composition);
  if (!live) throw new Refusal('conflict', 'This animal is not published: there is no page to state it on.');
  return issueStatement(work, serverSecret, composition);
}

export function publicationRoutes(
  { list, write, answer }: Endpoints,
  database: Database,
  dataDir: string,
  serverSecret: string,
): void {
  const composed = {
    prepare: ({ id }: { id: string }, actor: Actor): Promise<Composition> =>
      inferring.take(() => reading(database, actor, (work) => composeStatement(work, id))),
  };
  list(ROUTES.showcase, ({ work }) => showcase(work), { infers: true });
  write(
    ROUTES.publish,
    async ({ work, id, body }, composition: Composition) => {
      const { slug, isNew } = await publish(work, id, body.text || null);
      if (isNew) await issueStatement(work, serverSecret, composition);
      return { slug };
    },
    composed,
  );
  write(
    ROUTES.issueStatement,
    ({ work }, composition: Composition) => issue(work, serverSecret, composition),
    composed,
  );
  answer(ROUTES.statementPackage, async (request, response, actor) => {
    const id = idParam(request);
    const input = await reading(database, actor, (work) => statementPackage(work, dataDir, id));
    const zip = await inThread('pack-statement', input);
    response
      .set('Cache-Control', 'no-store')
      .attachment(`${input.name}.zip`)
      .type('zip')
      .send(Buffer.from(zip));
  });
  write(ROUTES.withdraw, ({ work, id }) => withdraw(work, id));
}

/** @throws Refusal where there is none at the address, or no more */
async function livePage(
  database: Database,
  request: Request,
): Promise<{ collectionId: string; animalId: string; publishedAt: Date }> {
  const publication = await database.models.publications.findOne({
    where: { slug: String(request.params['slug']), withdrawnAt: null },
  });
  if (!publication) throw new Refusal('not-found', 'This page was withdrawn, or never existed.');
  return publication.get();
}

/** The published page for everybody, without a session. */
export function publicRoutes(database: Database, limits: RateLimits): Router {
  const router = Router();
  const guard = limits.guard('page', (request) => String(request.params['slug']));
  openRoute(router, ROUTES.published, guard, async (request, response) => {
    const { collectionId, animalId, publishedAt } = await livePage(database, request);
    const body = await inferring.take(() =>
      reading(database, { collectionId }, (work) => toPublic(work, animalId, publishedAt.toISOString())),
    );
    if (request.query['download'] === '1') {
      response.attachment(`${fileNameOf(body.number)}.json`);
    }
    response.set('Cache-Control', 'no-store').json(body);
  });
  openRoute(router, ROUTES.publishedStatement, guard, async (request, response) => {
    const { collectionId, animalId } = await livePage(database, request);
    const number = Number(request.params['statement']);
    const [row] = Number.isSafeInteger(number)
      ? await reading(database, { collectionId }, (work) =>
          publishedStatement(work, { animalId, statement: number }),
        )
      : [];
    if (!row) throw new Refusal('not-found', 'There is no statement of this number.');
    response
      .attachment(`${fileNameOf(subjectOf(row).number)}-statement-${row.statement}.json`)
      .type('json')
      .send(row.document);
  });
  return router;
}
