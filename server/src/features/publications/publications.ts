import { randomBytes, randomUUID } from 'node:crypto';
import {
  ROUTES,
  type ParentView,
  type PublicAnimal,
  type PublicKin,
  type ShowcaseLine,
} from '@karyotome/contract';
import { openRoute } from '../../http/open-route.ts';
import { QueryTypes } from 'sequelize';
import { Router } from 'express';
import { inferring } from '../../db/turns.ts';
import { reading, type Actor, type Database, type Work } from '../../db/work.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { notFound, Refusal } from '../../refusal.ts';
import type { RateLimits } from '../../http/rate-limits.ts';
import { findAnimal, listAnimals } from '../../domain/animals/animals.service.ts';
import { viewAnimal } from '../../domain/animals/view-animal.ts';
import { cautionsOf, claimsOf } from '../../domain/genetics/inferred-of-animal.ts';
import { geneticsOf } from '../../domain/genetics/genetics.service.ts';
import { listedPublications, standingIdentification } from './publications.queries.ts';

export async function publish(
  work: Work<Actor>,
  animalId: string,
  text: string | null,
): Promise<{ slug: string }> {
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
    return { slug: live.slug };
  }
  const slug = randomBytes(12).toString('base64url');
  await work.models.publications.create(
    { collectionId, id: randomUUID(), animalId, slug, text, authorId: accountId },
    { transaction: work.transaction },
  );
  return { slug };
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
  return rows.map(({ animalId, slug, publishedAt }) => ({
    animal: animals.get(animalId)!,
    slug,
    publishedAt,
    claims: claimsOf(genetics, animalId).map((claim) => claim.label),
  }));
}

const withoutIds = ({ role, number, label, p, parents }: ParentView): PublicKin => ({
  role,
  number,
  label,
  p,
  parents: parents.map(withoutIds),
});

/**
 * What a buyer sees. Built field by field, so that nothing private can slip through: who identified an animal has not agreed
 * to be published, and is in no field of it.
 */
async function toPublic(work: Work, animalId: string, publishedAt: string): Promise<PublicAnimal> {
  const animal = await viewAnimal(work, animalId, { isPatient: true });
  const genetics = await geneticsOf(work);
  const collection = (await work.models.collections.findByPk(work.actor.collectionId, {
    transaction: work.transaction,
  }))!.get();
  const records = animal.records.filter((record) => record.voided === null).toReversed();
  const sexed = records.findLast((record) => record.kind === 'sex');
  return {
    format: 'karyotome-public-animal/1',
    collection: collection.name,
    units: { massUnit: collection.massUnit, temperatureUnit: collection.temperatureUnit },
    number: animal.number,
    name: animal.name,
    label: animal.label,
    sex: animal.sex,
    sexing: sexed?.kind === 'sex' ? { method: sexed.body.method, sure: sexed.body.sure } : null,
    hatchedOn: animal.hatchedOn,
    text: animal.publication?.text ?? null,
    asOf: work.today,
    publishedAt,
    weights: records.flatMap((r) => (r.kind === 'weight' ? [{ on: r.on, massG: r.body.massG }] : [])),
    feedings: records.flatMap((r) =>
      r.kind === 'feeding'
        ? [
            {
              on: r.on,
              species: r.body.species,
              size: r.body.size,
              state: r.body.state,
              taken: r.body.taken,
            },
          ]
        : [],
    ),
    sheds: records.flatMap((r) =>
      r.kind === 'shed' && r.body.stage === 'shed' ? [{ on: r.on, complete: r.body.complete ?? null }] : [],
    ),
    lineage: animal.parents.map(withoutIds),
    claims: animal.claims.map(({ label, kind, p, certain, rule, support }) => ({
      label,
      kind,
      p,
      certain,
      rule,
      support:
        support?.map(({ animalNumber: number, on, label: seen, sure }) => ({
          animal: number,
          on,
          label: seen,
          sure,
        })) ?? null,
    })),
    cautions: cautionsOf(genetics, animalId),
    pictures: animal.pictures,
  };
}

export function publicationRoutes({ list, write }: Endpoints): void {
  list(ROUTES.showcase, ({ work }) => showcase(work), { infers: true });
  write(ROUTES.publish, ({ work, id, body }) => publish(work, id, body.text || null));
  write(ROUTES.withdraw, ({ work, id }) => withdraw(work, id));
}

/** The published page for everybody, without a session. */
export function publicRoutes(database: Database, limits: RateLimits): Router {
  const router = Router();
  const guard = limits.guard('page', (request) => String(request.params['slug']));
  openRoute(router, ROUTES.published, guard, async (request, response) => {
    const [publication] = await database.sequelize.query<{
      collectionId: string;
      animalId: string;
      publishedAt: Date;
    }>(
      `select collection_id as "collectionId", animal_id as "animalId", published_at as "publishedAt"
         from publications where slug = :slug and withdrawn_at is null`,
      { replacements: { slug: request.params['slug'] }, type: QueryTypes.SELECT },
    );
    if (!publication) throw new Refusal('not-found', 'This page was withdrawn, or never existed.');
    const { collectionId, animalId, publishedAt } = publication;
    const body = await inferring.take(() =>
      reading(database, { collectionId }, (work) => toPublic(work, animalId, publishedAt.toISOString())),
    );
    if (request.query['download'] === '1') {
      response.attachment(`${body.number.replace(/[^\w-]+/g, '_')}.json`);
    }
    response.set('Cache-Control', 'no-store').json(body);
  });
  return router;
}
