import { randomBytes, randomUUID } from 'node:crypto';
import {
  backupInput,
  restoreInput,
  ROUTES,
  type AmendmentView,
  type ShowcaseLine,
} from '@karyotome/contract';
import { now } from '../../clock.ts';
import { openRoute } from '../../http/open-route.ts';
import { Router, type Request } from 'express';
import { readingLately } from '../../db/standby.ts';
import { inferring } from '../../db/turns.ts';
import { reading, writing, type Actor, type Database, type Work } from '../../db/work.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { notFound, Refusal } from '../../refusal.ts';
import type { RateLimits } from '../../http/rate-limits.ts';
import { noteAct } from '../../domain/history/history.queries.ts';
import { findAnimal, listAnimals } from '../../domain/animals/animals.service.ts';
import { openPublication } from '../../domain/animals/animals.queries.ts';
import { geneticsOf } from '../../domain/genetics/genetics.service.ts';
import { claimChanges } from '@karyotome/lineage';
import {
  comparedClaims,
  composeStatement,
  composeToSign,
  statedAnimal,
  type Composition,
} from '../../domain/statements/compose-statement.ts';
import {
  newestStatements,
  publishedStatement,
  statementsOf,
  subjectOf,
} from '../../domain/statements/statements.queries.ts';
import { changesSince, issueStatement } from '../../domain/statements/statements.service.ts';
import {
  backUpKey,
  openBackup,
  restoreKey,
  signingKey,
  signingKeyViews,
  succeedKey,
} from '../../domain/statements/signing-keys.ts';
import { tellHolders } from '../../domain/statements/tell-holders.ts';
import { checked, idParam } from '../../http/asked.ts';
import { originOf } from '../../http/origin.ts';
import type { PublicationRow } from '../../db/publication-rows.ts';
import { groupBy } from '../../group-by.ts';
import { toPublic } from '../../domain/publications/public-animal.ts';
import { fileNameOf, packPackage, statementPackage } from '../../domain/publications/statement-package.ts';
import { listedPublications, type Withheld } from '../../domain/publications/publications.queries.ts';
import { offersOf, setOffer } from '../../domain/sales/offers.service.ts';
import { cautionsOf } from '../../domain/genetics/inferred-of-animal.ts';
import { picturesOf } from '../../domain/pictures/pictures.queries.ts';
import { shownPictures } from '../../domain/pictures/shown-pictures.ts';
import { changedFacts } from '../../domain/statements/stated-facts.ts';
import { statedName } from '../../domain/statements/stated-pictures.ts';
import { standingIdentification } from './publications.queries.ts';
import type { FileStore } from '../../files/file-store.ts';

export async function publish(
  work: Work<Actor>,
  animalId: string,
  text: string | null | undefined,
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
  if (text !== undefined) await setOffer(work, animalId, { text: text || null });
  if (live) return { slug: live.slug, isNew: false };
  const slug = randomBytes(12).toString('base64url');
  await work.models.publications.create(
    { collectionId, id: randomUUID(), animalId, slug, authorId: accountId },
    { transaction: work.transaction },
  );
  return { slug, isNew: true };
}

async function withdraw(work: Work, animalId: string): Promise<void> {
  const { collectionId } = work.actor;
  const [changed] = await work.models.publications.update(
    { withdrawnAt: now() },
    { where: { collectionId, animalId, withdrawnAt: null }, transaction: work.transaction },
  );
  if (changed === 0) throw notFound('A published page of this animal');
}

async function showcase(work: Work): Promise<ShowcaseLine[]> {
  const genetics = await geneticsOf(work);
  const animals = new Map((await listAnimals(work)).map((animal) => [animal.id, animal]));
  const rows = await listedPublications(work);
  const newest = new Map((await newestStatements(work)).map((row) => [row.animalId, row]));
  const pictures = groupBy(
    await picturesOf(work, { animalIds: rows.map(({ animalId }) => animalId) }),
    ({ animalId }) => animalId,
  );
  const offers = await offersOf(work);
  return rows.map(({ animalId, slug, publishedAt, ...withheld }) => {
    const claims = comparedClaims(genetics, animalId);
    const row = newest.get(animalId);
    const animal = animals.get(animalId)!;
    const own = pictures.get(animalId) ?? [];
    const now = {
      ...statedAnimal(animal),
      cautions: cautionsOf(genetics, animalId),
      pictures: shownPictures(own, offers(animalId).pictureIds).map((one) => ({ file: statedName(one) })),
    };
    return {
      animal,
      slug,
      publishedAt,
      claims: claims.map(({ words }) => words),
      statement: row ? { statement: row.statement, asOf: row.asOf } : null,
      facts: row ? changedFacts(subjectOf(row), now) : [],
      ...changed(row ? claimChanges(subjectOf(row).claims, claims) : [], withheld),
    };
  });
}

/** A reason stands as long as it is the change that it was given for. */
function changed(
  changes: ShowcaseLine['changes'],
  { withheldReason, withheldChanges }: Withheld,
): Pick<ShowcaseLine, 'changes' | 'withheld'> {
  // What comes from the database has its fields in another order.
  const told = (all: ShowcaseLine['changes']): string =>
    JSON.stringify(all.map(({ locus, from, to }) => [locus, from, to]));
  const isSame = withheldChanges !== null && told(withheldChanges) === told(changes);
  return { changes, withheld: changes.length > 0 && isSame ? withheldReason : null };
}

/** Says why what the records say now is not signed. */
async function withhold(work: Work, animalId: string, reason: string): Promise<void> {
  const { collectionId } = work.actor;
  const line = (await showcase(work)).find(({ animal }) => animal.id === animalId);
  if (!line) throw notFound('A published page of this animal');
  if (line.changes.length === 0)
    throw new Refusal('conflict', 'What is signed is what the records say: there is nothing to keep back.');
  await work.models.publications.update(
    { withheldReason: reason, withheldChanges: line.changes },
    { where: { collectionId, animalId, withdrawnAt: null }, transaction: work.transaction },
  );
}

/** What the next statement would say otherwise, each with its reason. */
async function amendment(work: Work, animalId: string): Promise<AmendmentView> {
  const [newest] = await statementsOf(work, { animalId });
  if (!newest) return { changes: [] };
  const { subject } = await composeStatement(work, animalId);
  return {
    changes: changesSince(subjectOf(newest), subject).map(({ locus, from, to, because }) => ({
      locus,
      from,
      to,
      because,
    })),
  };
}

/** Signs what the records say now of an animal that is published, and drafts letters to those who hold it. */
async function issue(
  work: Work<Actor>,
  serverSecret: string,
  composition: Composition,
  origin: string,
): Promise<{ statement: number }> {
  const [live] = await openPublication(work, composition);
  if (!live) throw new Refusal('conflict', 'This animal is not published: there is no page to state it on.');
  const issued = await issueStatement(work, serverSecret, composition);
  await tellHolders(work, composition.animalId, `${origin}/p/${live.slug}`);
  return issued;
}

export function publicationRoutes(
  { list, read, write, answer }: Endpoints,
  database: Database,
  files: FileStore,
  serverSecret: string,
): void {
  const composed = {
    prepare: ({ id }: { id: string }, actor: Actor): Promise<Composition> =>
      inferring.take(() => reading(database, actor, (work) => composeToSign(work, files, id))),
  };
  list(ROUTES.showcase, ({ work }) => showcase(work), { infers: true });
  write(
    ROUTES.publish,
    async ({ work, id, body }, composition: Composition) => {
      const { slug, isNew } = await publish(work, id, body.text);
      if (isNew) await issueStatement(work, serverSecret, composition);
      return { slug };
    },
    composed,
  );
  write(
    ROUTES.issueStatement,
    ({ work, request }, composition: Composition) =>
      issue(work, serverSecret, composition, originOf(request)),
    composed,
  );
  answer(ROUTES.statementPackage, async (request, response, actor) => {
    const id = idParam(request);
    const content = await reading(database, actor, (work) => statementPackage(work, id));
    const zip = await packPackage(files, content);
    response
      .set('Cache-Control', 'no-store')
      .attachment(`${content.name}.zip`)
      .type('zip')
      .send(Buffer.from(zip));
  });
  read(ROUTES.amendment, ({ work, id }) => amendment(work, id), { infers: true });
  write(ROUTES.withholdAmendment, ({ work, id, body }) => withhold(work, id, body.reason));
  list(ROUTES.signingKeys, ({ work }) => signingKeyViews(work, serverSecret));
  write(ROUTES.succeedKey, ({ work }) => succeedKey(work, serverSecret));
  // Not a write with a key: nothing of the password, and nothing of the answer, is kept.
  answer(ROUTES.backUpKey, async (request, response, actor) => {
    const { password } = checked(backupInput, request.body);
    const pair = await writing(database, actor, (work) => signingKey(work, serverSecret));
    await noteAct(database, 'exported', actor);
    response.set('Cache-Control', 'no-store').json(await backUpKey(pair, password));
  });
  answer(ROUTES.restoreKey, async (request, response, actor) => {
    const { backup, password } = checked(restoreInput, request.body);
    const pair = await openBackup(backup, password);
    await writing(database, actor, (work) => restoreKey(work, serverSecret, pair));
    response.status(204).end();
  });
  write(ROUTES.withdraw, ({ work, id }) => withdraw(work, id));
}

/** @throws Refusal where there never was a page at the address */
async function anyPage(database: Database, request: Request): Promise<PublicationRow> {
  const publication = await database.models.publications.findOne({
    where: { slug: String(request.params['slug']) },
  });
  if (!publication) throw new Refusal('not-found', 'This page was withdrawn, or never existed.');
  return publication.get();
}

/** @throws Refusal where there is none at the address, or no more */
async function livePage(database: Database, request: Request): Promise<PublicationRow> {
  const page = await anyPage(database, request);
  if (page.withdrawnAt !== null) throw new Refusal('not-found', 'This page was withdrawn, or never existed.');
  return page;
}

/** The published page for everybody, without a session. */
export function publicRoutes(database: Database, limits: RateLimits): Router {
  const router = Router();
  const guard = limits.guard('page', (request) => String(request.params['slug']));
  openRoute(router, ROUTES.published, guard, async (request, response) => {
    const body = await readingLately(database, async (source) => {
      const { collectionId, animalId, publishedAt } = await livePage(source, request);
      return reading(source, { collectionId }, (work) => toPublic(work, animalId, publishedAt.toISOString()));
    });
    if (request.query['download'] === '1') {
      response.attachment(`${fileNameOf(body.number)}.json`);
    }
    response.set('Cache-Control', 'no-store').json(body);
  });
  openRoute(router, ROUTES.publishedStatement, guard, async (request, response) => {
    // What was signed stays readable for whoever holds its address, when the page is withdrawn too.
    const number = Number(request.params['statement']);
    const row = await readingLately(database, async (source) => {
      const { collectionId, animalId } = await anyPage(source, request);
      const [found] = Number.isSafeInteger(number)
        ? await reading(source, { collectionId }, (work) =>
            publishedStatement(work, { animalId, statement: number }),
          )
        : [];
      if (!found) throw new Refusal('not-found', 'There is no statement of this number.');
      return found;
    });
    response
      .attachment(`${fileNameOf(subjectOf(row).number)}-statement-${row.statement}.json`)
      .type('json')
      .send(row.document);
  });
  return router;
}
