import { outsideOpinions, ROUTES, tagsChangedBy, type OutsideView } from '@karyotome/contract';
import { openRoute } from '../../http/open-route.ts';
import { visibleOutcomes } from '@karyotome/core';
import { Router, type RequestHandler } from 'express';
import { QueryTypes, type Transaction } from 'sequelize';
import { inferring } from '../../db/turns.ts';
import { MACHINE_ZONE, reading, writing, type Database, type Work } from '../../db/work.ts';
import { checked, idParam } from '../../http/asked.ts';
import { Refusal } from '../../refusal.ts';
import type { RateLimits } from '../../http/rate-limits.ts';
import { digestOf } from '../../domain/accounts/secret-code.ts';
import { notifyChanged } from '../../domain/changes/notify.ts';
import { summaries } from '../../domain/animals/animals.repository.ts';
import { geneticsOf } from '../../domain/genetics/genetics.service.ts';
import { parentsBefore } from '../../domain/genetics/identification-check.ts';
import { stampedFile } from '../../domain/pictures/pictures.service.ts';
import { sendPicture } from '../../http/send-stored.ts';
import { answerLink } from './opinions.service.ts';
import { parentageOf } from './parentage.ts';
import type { FileStore } from '../../files/file-store.ts';

interface Link {
  readonly id: string;
  readonly collectionId: string;
  readonly collection: string;
  readonly clutchId: string;
  readonly animalIds: string[];
  readonly note: string | null;
}

// A link is good through its last day, as the farm's calendar has it; the server's own zone stands in until that is known.
const OPEN = `l.token_digest = :digest and l.used_at is null and l.revoked_at is null
  and l.expires_on >= (now() at time zone coalesce(c.time_zone, :machineZone))::date`;
const OUTCOMES_SHOWN = 60;

/** Whether this very request answered the address before, and only its answer was lost. */
async function isAnswered(
  { models, ...more }: Database & { transaction?: Transaction },
  token: string,
  key: string | null,
): Promise<boolean> {
  if (key === null) return false;
  const options = more.transaction ? { transaction: more.transaction } : {};
  return (
    (await models.opinionLinks.count({
      where: { tokenDigest: digestOf(token), answerKey: key },
      ...options,
    })) > 0
  );
}

async function findLink(database: Database, token: string | undefined): Promise<Link> {
  const [link] = await database.sequelize.query<Link>(
    `select l.id, l.collection_id as "collectionId", c.name as collection, l.clutch_id as "clutchId",
            l.animal_ids as "animalIds", l.note
       from opinion_links l join collections c on c.id = l.collection_id where ${OPEN}`,
    { replacements: { digest: digestOf(token ?? ''), machineZone: MACHINE_ZONE }, type: QueryTypes.SELECT },
  );
  if (!link) throw new Refusal('not-found', 'This address was used already, was withdrawn, or has run out.');
  return link;
}

/** What an outside person sees: built field by field, so that nothing private can slip through. */
async function outsideView(work: Work, link: Link): Promise<OutsideView> {
  const genetics = await geneticsOf(work);
  const { damId, sires, mateIds } = await parentageOf(work, link.clutchId);
  const parents = await parentsBefore(genetics, [damId, ...sires.map(({ id }) => id)], mateIds);
  const animals = new Map((await summaries(work, genetics)).map((animal) => [animal.id, animal]));
  const pictures = await work.models.pictures.findAll({
    where: { collectionId: link.collectionId, animalId: link.animalIds },
    order: [['created_at', 'desc']],
    transaction: work.transaction,
  });
  const outcomes = sires.flatMap(({ id }) =>
    visibleOutcomes(parents.get(id)!, parents.get(damId)!, OUTCOMES_SHOWN, genetics.catalogue),
  );
  return {
    collection: link.collection,
    note: link.note,
    dam: animals.get(damId)!.label,
    sires: sires.map(({ id }) => animals.get(id)!.label),
    outcomes: [...new Set(outcomes.toSorted((a, b) => b.p - a.p).map(({ label }) => label))],
    animals: link.animalIds.flatMap((id) => {
      const animal = animals.get(id);
      // Deleted since the address was sent.
      if (!animal) return [];
      const { number, sex, hatchedOn } = animal;
      const own = pictures.filter((picture) => picture.get().animalId === id);
      return [{ id, number, sex, hatchedOn, pictureIds: own.map((picture) => picture.get().id) }];
    }),
  };
}

/** The one-time address, for whoever has it, without a session. */
export function outsideRoutes(
  database: Database,
  files: FileStore,
  limits: RateLimits,
  json: RequestHandler,
): Router {
  const router = Router();
  const guard = limits.guard('opinion', (request) => String(request.params['token']));
  openRoute(router, ROUTES.outside, guard, async (request, response) => {
    const link = await findLink(database, String(request.params['token']));
    const view = await inferring.take(() =>
      reading(database, { collectionId: link.collectionId }, (work) => outsideView(work, link)),
    );
    response.set('Cache-Control', 'no-store').json(view);
  });
  openRoute(router, ROUTES.outsidePicture, guard, async (request, response) => {
    const file = await stampedFile(
      database,
      files,
      `select pic.file, a.number, c.name as collection from opinion_links l
         join pictures pic on pic.collection_id = l.collection_id and l.animal_ids ? pic.animal_id::text
         join animals a on a.collection_id = pic.collection_id and a.id = pic.animal_id
         join collections c on c.id = l.collection_id
        where ${OPEN} and pic.id = :id`,
      { digest: digestOf(String(request.params['token'])), id: idParam(request), machineZone: MACHINE_ZONE },
    );
    await sendPicture(response, files, file);
  });
  openRoute(router, ROUTES.answerOutside, guard, json, async (request, response) => {
    const token = String(request.params['token']);
    const key = request.get('Idempotency-Key')?.slice(0, 200) ?? null;
    if (!(await isAnswered(database, token, key))) {
      const link = await findLink(database, token);
      const answer = checked(outsideOpinions, request.body);
      await writing(database, { collectionId: link.collectionId }, async (work) => {
        // Sent twice at once: the other one may have taken it meanwhile.
        if (!(await isAnswered(work, token, key))) await answerLink(work, link, answer, key);
      });
      notifyChanged(link.collectionId, { tags: tagsChangedBy(ROUTES.answerOutside), page: null });
    }
    response.status(204).end();
  });
  return router;
}
