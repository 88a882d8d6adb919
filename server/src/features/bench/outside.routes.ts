import { outsideOpinions, type OutsideView } from '@karyotome/contract';
import { visibleOutcomes } from '@karyotome/core';
import express, { Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import { QueryTypes } from 'sequelize';
import { inTransaction, localToday, type Actor, type Database, type Work } from '../../db/work.ts';
import { checked, idParam } from '../../http/endpoint.ts';
import { Refusal } from '../../http/problems.ts';
import { tellChanged } from '../changes/changes.ts';
import { summaries } from '../animals/animals.repository.ts';
import { geneticsOf } from '../genetics/genetics.service.ts';
import { parentsBefore } from '../genetics/identification-check.ts';
import { sendStamped } from '../pictures/pictures.ts';
import { answerLink } from './opinions.service.ts';
import { parentageOf } from './parentage.ts';

interface Link {
  readonly id: string;
  readonly collectionId: string;
  readonly collection: string;
  readonly clutchId: string;
  readonly animalIds: string[];
  readonly note: string | null;
}

const OPEN = `l.token = :token and l.used_at is null and l.revoked_at is null and l.expires_on >= :today`;
const OUTCOMES_SHOWN = 60;

/** Whether this very request answered the address before, and only its answer was lost. */
async function isAnswered(database: Database, token: string, key: string | null): Promise<boolean> {
  if (key === null) return false;
  return (await database.models.opinionLinks.count({ where: { token, answerKey: key } })) > 0;
}

async function findLink(database: Database, token: string | undefined): Promise<Link> {
  const [link] = await database.sequelize.query<Link>(
    `select l.id, l.collection_id as "collectionId", c.name as collection, l.clutch_id as "clutchId",
            l.animal_ids as "animalIds", l.note
       from opinion_links l join collections c on c.id = l.collection_id where ${OPEN}`,
    { replacements: { token: token ?? '', today: localToday() }, type: QueryTypes.SELECT },
  );
  if (!link) throw new Refusal('not-found', 'This address was used already, was withdrawn, or has run out.');
  return link;
}

const readerOf = ({ collectionId }: Link): Actor => ({
  accountId: '',
  name: '',
  collectionId,
  role: 'viewer',
});

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
    animals: link.animalIds.map((id) => {
      const { number, sex, hatchedOn } = animals.get(id)!;
      const own = pictures.filter((picture) => picture.get().animalId === id);
      return { id, number, sex, hatchedOn, pictureIds: own.map((picture) => picture.get().id) };
    }),
  };
}

/** The one-time address, for whoever has it, without a session. */
export function outsideRoutes(database: Database, dataDir: string): Router {
  const router = Router();
  router.get('/opinion-links/:token', async (request, response) => {
    const link = await findLink(database, request.params.token);
    response
      .set('Cache-Control', 'no-store')
      .json(await inTransaction(database, readerOf(link), (work) => outsideView(work, link)));
  });
  router.get('/opinion-links/:token/pictures/:id', (request, response) =>
    sendStamped(
      database,
      dataDir,
      response,
      `select pic.file, a.number, c.name as collection from opinion_links l
         join pictures pic on pic.collection_id = l.collection_id and l.animal_ids ? pic.animal_id::text
         join animals a on a.collection_id = pic.collection_id and a.id = pic.animal_id
         join collections c on c.id = l.collection_id
        where ${OPEN} and pic.id = :id`,
      { token: request.params.token, id: idParam(request), today: localToday() },
    ),
  );
  router.post(
    '/opinion-links/:token',
    rateLimit({ windowMs: 60_000, limit: 30, standardHeaders: false, legacyHeaders: false }),
    express.json({ limit: '200kb' }),
    async (request, response) => {
      const token = String(request.params['token']);
      const key = request.get('Idempotency-Key')?.slice(0, 200) ?? null;
      if (!(await isAnswered(database, token, key))) {
        const link = await findLink(database, token);
        const answer = checked(outsideOpinions, request.body);
        await inTransaction(database, readerOf(link), (work) => answerLink(work, link, answer, key));
        tellChanged(link.collectionId);
      }
      response.status(204).end();
    },
  );
  return router;
}
