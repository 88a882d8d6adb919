import { randomUUID } from 'node:crypto';
import { mkdir, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import express, { Router, type Request, type Response } from 'express';
import sharp, { type OutputInfo } from 'sharp';
import type { PictureRow } from '../../db/rows.ts';
import type { Database, Work } from '../../db/work.ts';
import { actorOf, idParam, type Endpoints } from '../../http/endpoint.ts';
import { invalidField, notFound, Refusal } from '../../http/problems.ts';
import { findAnimal } from '../animals/animals.service.ts';

const MAX_BYTES = '25mb';
/** An image that unpacks to more than this is refused before it is unpacked. */
const MAX_PIXELS = 60_000_000;
const MAX_EDGE = 2000;
const FORMATS = new Set(['jpeg', 'png', 'webp']);

/** Where a stored picture lies. */
export function picturePath(dataDir: string, file: string): string {
  return join(dataDir, 'pictures', file);
}

/**
 * Stores a picture: upright, at most 2000 pixels long, and re-encoded, which leaves place and camera behind.
 */
export async function addPicture(
  work: Work,
  dataDir: string,
  animalId: string,
  bytes: Buffer,
  { caption, isDrawing }: { caption: string; isDrawing: boolean },
): Promise<{ id: string }> {
  await findAnimal(work, animalId);
  const { data, info } = await encode(bytes);
  const id = randomUUID();
  const file = `${id}.webp`;
  await mkdir(join(dataDir, 'pictures'), { recursive: true });
  await writeFile(picturePath(dataDir, file), data);
  try {
    await work.models.pictures.create(
      {
        collectionId: work.actor.collectionId,
        id,
        animalId,
        caption,
        isDrawing,
        takenOn: work.today,
        width: info.width,
        height: info.height,
        file,
        authorId: work.actor.accountId,
      },
      { transaction: work.transaction },
    );
  } catch (error) {
    await rm(picturePath(dataDir, file), { force: true });
    throw error;
  }
  return { id };
}

async function encode(bytes: Buffer): Promise<{ data: Buffer; info: OutputInfo }> {
  try {
    const image = sharp(bytes, { limitInputPixels: MAX_PIXELS, failOn: 'error' });
    const { format } = await image.metadata();
    if (!format || !FORMATS.has(format))
      throw invalidField('picture', 'must be a JPEG, PNG or WebP picture', 'format');
    return await image
      .rotate()
      .resize({ width: MAX_EDGE, height: MAX_EDGE, fit: 'inside', withoutEnlargement: true })
      .webp({ quality: 84 })
      .toBuffer({ resolveWithObject: true });
  } catch (error) {
    if (error instanceof Refusal) throw error;
    throw invalidField('picture', 'cannot be read: it is broken, too large, or no picture', 'unreadable');
  }
}

async function removePicture(work: Work, dataDir: string, id: string): Promise<void> {
  const where = { collectionId: work.actor.collectionId, id };
  const picture = (await work.models.pictures.findOne({ where, transaction: work.transaction }))?.get();
  if (!picture) throw notFound('This picture');
  await work.models.pictures.destroy({ where, transaction: work.transaction });
  work.transaction.afterCommit(() => void rm(picturePath(dataDir, picture.file), { force: true }));
}

function sendPicture(
  response: Response,
  dataDir: string,
  picture: Pick<PictureRow, 'file'>,
  cache: string,
): void {
  // Relative to a root: the data folder's own name may begin with a dot, which sendFile would refuse.
  response.sendFile(picture.file, {
    root: join(dataDir, 'pictures'),
    headers: { 'Cache-Control': cache, 'Content-Type': 'image/webp' },
  });
}

/** Pictures of the collection for its members. */
export function pictureRoutes({ write }: Endpoints, database: Database, dataDir: string): Router {
  const router = Router();
  router.post(
    '/animals/:id/pictures',
    express.raw({ type: ['image/jpeg', 'image/png', 'image/webp'], limit: MAX_BYTES }),
    write(async (work, request) => ({
      status: 201,
      body: await addPicture(work, dataDir, idParam(request), bytesOf(request), {
        caption: String(request.query['caption'] ?? '').slice(0, 200),
        isDrawing: request.query['drawing'] === '1',
      }),
    })),
  );
  router.get('/pictures/:id', async (request, response) => {
    const { collectionId } = actorOf(request);
    const picture = await database.models.pictures.findOne({ where: { collectionId, id: idParam(request) } });
    if (!picture) throw notFound('This picture');
    sendPicture(response, dataDir, picture.get(), 'private, max-age=31536000, immutable');
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

/** Pictures of published animals for everybody; withdrawn with the page. */
export function publicPictureRoutes(database: Database, dataDir: string): Router {
  const router = Router();
  router.get('/public/:slug/pictures/:id', async (request, response) => {
    const { slug } = request.params;
    const rows = (await database.sequelize.query(
      `select pic.file from pictures pic
         join publications p on p.collection_id = pic.collection_id and p.animal_id = pic.animal_id
        where p.slug = :slug and p.withdrawn_at is null and pic.id = :id`,
      { replacements: { slug, id: idParam(request) }, type: 'SELECT' as never },
    )) as unknown as { file: string }[];
    if (!rows[0]) throw notFound('This picture');
    sendPicture(response, dataDir, rows[0], 'public, max-age=300');
  });
  return router;
}
