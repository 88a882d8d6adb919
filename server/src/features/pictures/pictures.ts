import { randomUUID } from 'node:crypto';
import { mkdir, rm, writeFile } from 'node:fs/promises';
import { extname, join } from 'node:path';
import express, { Router, type Request, type Response } from 'express';
import { QueryTypes } from 'sequelize';
import type { PictureRow } from '../../db/rows.ts';
import type { Database, Work } from '../../db/work.ts';
import { actorOf, idParam, type Endpoints } from '../../http/endpoint.ts';
import { notFound, Refusal } from '../../http/problems.ts';
import { findAnimal } from '../animals/animals.service.ts';
import { findClutch } from '../breeding/clutches.service.ts';
import { FORMATS, makeCopies, picturePath, stampedCopy } from './picture-copies.ts';

const MAX_BYTES = '25mb';

type Subject = { readonly animalId: string } | { readonly clutchId: string };

/** Stores a picture of an animal, or of a clutch's card: the original as it came, and the copies that are shown. */
export async function addPicture(
  work: Work,
  dataDir: string,
  subject: Subject,
  bytes: Buffer,
  { caption, isDrawing }: { caption: string; isDrawing: boolean },
): Promise<{ id: string }> {
  if ('animalId' in subject) await findAnimal(work, subject.animalId);
  else await findClutch(work, subject.clutchId);
  const { format, takenOn, display, thumb } = await makeCopies(bytes);
  const id = randomUUID();
  const file = `${id}.webp`;
  const thumbFile = join('thumbs', file);
  const originalFile = join('originals', `${id}.${FORMATS[format]}`);
  const written: [string, Buffer][] = [
    [file, display.data],
    [thumbFile, thumb],
    [originalFile, bytes],
  ];
  for (const folder of ['thumbs', 'originals'])
    await mkdir(picturePath(dataDir, folder), { recursive: true });
  try {
    for (const [name, data] of written) await writeFile(picturePath(dataDir, name), data);
    await work.models.pictures.create(
      {
        collectionId: work.actor.collectionId,
        id,
        ...subject,
        caption,
        isDrawing,
        takenOn: takenOn !== null && takenOn <= work.today ? takenOn : work.today,
        width: display.info.width,
        height: display.info.height,
        file,
        thumbFile,
        originalFile,
        authorId: work.actor.accountId,
      },
      { transaction: work.transaction },
    );
  } catch (error) {
    for (const [name] of written) await rm(picturePath(dataDir, name), { force: true });
    throw error;
  }
  return { id };
}

async function removePicture(work: Work, dataDir: string, id: string): Promise<void> {
  const where = { collectionId: work.actor.collectionId, id };
  const picture = (await work.models.pictures.findOne({ where, transaction: work.transaction }))?.get();
  if (!picture) throw notFound('This picture');
  await work.models.pictures.destroy({ where, transaction: work.transaction });
  const files = [picture.file, picture.thumbFile, picture.originalFile].filter((file) => file !== null);
  work.transaction.afterCommit(() => {
    for (const file of files) void rm(picturePath(dataDir, file), { force: true });
  });
}

const TYPES: Readonly<Record<string, string>> = {
  '.webp': 'image/webp',
  '.jpg': 'image/jpeg',
  '.png': 'image/png',
};

export function sendPicture(response: Response, dataDir: string, file: string, cache: string): void {
  // Relative to a root: the data folder's own name may begin with a dot, which sendFile would refuse.
  response.sendFile(file, {
    root: picturePath(dataDir, ''),
    headers: { 'Cache-Control': cache, 'Content-Type': TYPES[extname(file)] ?? 'application/octet-stream' },
  });
}

/** Which copy is asked for: the one that is shown, unless another is named. */
function copyOf({ file, thumbFile, originalFile }: PictureRow, wanted: unknown): string {
  if (wanted === 'thumb') return thumbFile ?? file;
  return wanted === 'original' ? (originalFile ?? file) : file;
}

const KEPT = 'private, max-age=31536000, immutable';

/** Pictures of the collection for its members. */
export function pictureRoutes({ write }: Endpoints, database: Database, dataDir: string): Router {
  const router = Router();
  const readBytes = express.raw({ type: ['image/jpeg', 'image/png', 'image/webp'], limit: MAX_BYTES });
  const add = (subjectOf: (id: string) => Subject) =>
    write(async (work, request) => ({
      status: 201,
      body: await addPicture(work, dataDir, subjectOf(idParam(request)), bytesOf(request), {
        caption: String(request.query['caption'] ?? '').slice(0, 200),
        isDrawing: request.query['drawing'] === '1',
      }),
    }));
  router.post(
    '/animals/:id/pictures',
    readBytes,
    add((animalId) => ({ animalId })),
  );
  router.post(
    '/clutches/:id/pictures',
    readBytes,
    add((clutchId) => ({ clutchId })),
  );
  router.get('/pictures/:id', async (request, response) => {
    const { collectionId } = actorOf(request);
    const picture = await database.models.pictures.findOne({ where: { collectionId, id: idParam(request) } });
    if (!picture) throw notFound('This picture');
    const { copy } = request.query;
    const file = copyOf(picture.get(), copy);
    if (copy === 'original') response.attachment(`picture${extname(file)}`);
    sendPicture(response, dataDir, file, KEPT);
  });
  router.delete(
    '/pictures/:id',
    write(async (work, request) => {
      await removePicture(work, dataDir, idParam(request));
      return { status: 204 };
    }),
  );
  return router;
}

function bytesOf(request: Request): Buffer {
  if (!Buffer.isBuffer(request.body) || request.body.length === 0) {
    throw new Refusal('wrong-media', 'Send one picture as image/jpeg, image/png or image/webp.', [
      { field: 'picture', code: 'format', message: 'must be a JPEG, PNG or WebP picture' },
    ]);
  }
  return request.body;
}

/**
 * Sends the copy for outside eyes, with the animal's number and the collection's name on it.
 *
 * @param from - SQL of this project's own that yields `file`, `number` and `collection` of at most one picture
 */
export async function sendStamped(
  database: Database,
  dataDir: string,
  response: Response,
  from: string,
  replacements: Record<string, unknown>,
): Promise<void> {
  const [row] = await database.sequelize.query<{ file: string; number: string; collection: string }>(from, {
    replacements,
    type: QueryTypes.SELECT,
  });
  if (!row) throw notFound('This picture');
  const file = await stampedCopy(dataDir, row.file, `${row.number}  ${row.collection}`);
  sendPicture(response, dataDir, file, 'public, max-age=300');
}

/** Pictures of published animals for everybody; withdrawn with the page. */
export function publicPictureRoutes(database: Database, dataDir: string): Router {
  const router = Router();
  router.get('/public/:slug/pictures/:id', (request, response) =>
    sendStamped(
      database,
      dataDir,
      response,
      `select pic.file, a.number, c.name as collection from pictures pic
         join publications p on p.collection_id = pic.collection_id and p.animal_id = pic.animal_id
         join animals a on a.collection_id = pic.collection_id and a.id = pic.animal_id
         join collections c on c.id = pic.collection_id
        where p.slug = :slug and p.withdrawn_at is null and pic.id = :id`,
      { slug: request.params.slug, id: idParam(request) },
    ),
  );
  return router;
}
