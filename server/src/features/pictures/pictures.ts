import { randomUUID } from 'node:crypto';
import { extname } from 'node:path';
import { ROUTES } from '@karyotome/contract';
import { Router, type Request, type Response } from 'express';
import { QueryTypes } from 'sequelize';
import type { PictureRow } from '../../db/rows.ts';
import type { Database, Work } from '../../db/work.ts';
import { idParam, type Endpoints } from '../../http/endpoint.ts';
import { pathOf, removeStored, sendStored, writeDurably } from '../../files/store.ts';
import { invalidField, notFound, Refusal } from '../../http/problems.ts';
import type { RateLimits } from '../../http/rate-limits.ts';
import { findAnimal } from '../animals/animals.service.ts';
import { findClutch } from '../breeding/clutches.service.ts';
import { FORMATS, makeCopies, pictureFile, stampedCopiesOf, stampedCopy } from './picture-copies.ts';

type Subject = { readonly animalId: string } | { readonly clutchId: string };

interface StoredPicture {
  readonly id: string;
  readonly takenOn: string | null;
  readonly width: number;
  readonly height: number;
  readonly file: string;
  readonly thumbFile: string;
  readonly originalFile: string;
}

/** Puts a picture's copies and the original on the disk: outside any transaction, since it takes long. */
export async function storePicture(dataDir: string, bytes: Buffer): Promise<StoredPicture> {
  const { format, takenOn, display, thumb } = await makeCopies(bytes);
  const id = randomUUID();
  const stored = {
    id,
    takenOn,
    width: display.info.width,
    height: display.info.height,
    file: `${id}.webp`,
    thumbFile: `thumbs/${id}.webp`,
    originalFile: `originals/${id}.${FORMATS[format]}`,
  };
  const written: [string, Buffer][] = [
    [stored.file, display.data],
    [stored.thumbFile, thumb],
    [stored.originalFile, bytes],
  ];
  try {
    for (const [name, data] of written) await writeDurably(pathOf(dataDir, pictureFile(name)), data);
  } catch (error) {
    await discardPicture(dataDir, stored);
    throw error;
  }
  return stored;
}

const filesOf = ({
  file,
  thumbFile,
  originalFile,
}: Pick<PictureRow, 'file' | 'thumbFile' | 'originalFile'>) =>
  [file, thumbFile, originalFile].filter((name) => name !== null).map(pictureFile);

/** Takes a picture's files away, its stamped copies with them. */
async function discardPicture(
  dataDir: string,
  picture: Pick<PictureRow, 'file' | 'thumbFile' | 'originalFile'>,
): Promise<void> {
  await removeStored(dataDir, [...filesOf(picture), ...(await stampedCopiesOf(dataDir, picture.file))]);
}

/** Enters a stored picture of an animal, or of a clutch's card. */
export async function addPicture(
  work: Work,
  subject: Subject,
  { takenOn, ...stored }: StoredPicture,
  { caption, isDrawing }: { caption: string; isDrawing: boolean },
): Promise<{ id: string }> {
  if ('animalId' in subject) await findAnimal(work, subject.animalId);
  else await findClutch(work, subject.clutchId);
  await work.models.pictures.create(
    {
      collectionId: work.actor.collectionId,
      ...subject,
      ...stored,
      caption,
      isDrawing,
      takenOn: takenOn !== null && takenOn <= work.today ? takenOn : work.today,
      authorId: work.actor.accountId,
    },
    { transaction: work.transaction },
  );
  return { id: stored.id };
}

async function removePicture(work: Work, dataDir: string, id: string): Promise<void> {
  const where = { collectionId: work.actor.collectionId, id };
  const picture = (await work.models.pictures.findOne({ where, transaction: work.transaction }))?.get();
  if (!picture) throw notFound('This picture');
  await work.models.pictures.destroy({ where, transaction: work.transaction });
  dropAfterCommit(work, dataDir, picture);
}

/** A picture's files go once its row is gone for good; what a crash leaves is swept at the next start. */
function dropAfterCommit(work: Work, dataDir: string, picture: PictureRow): void {
  work.transaction.afterCommit(() => {
    discardPicture(dataDir, picture).catch(work.onFault);
  });
}

const TYPES: Readonly<Record<string, string>> = {
  '.webp': 'image/webp',
  '.jpg': 'image/jpeg',
  '.png': 'image/png',
};

export function sendPicture(response: Response, dataDir: string, name: string, cache: string): Promise<void> {
  return sendStored(response, dataDir, pictureFile(name), {
    'Cache-Control': cache,
    'Content-Type': TYPES[extname(name)] ?? 'application/octet-stream',
  });
}

/** Which copy is asked for: the one that is shown, unless another is named. */
function copyOf({ file, thumbFile, originalFile }: PictureRow, wanted: unknown): string {
  if (wanted === 'thumb') return thumbFile ?? file;
  return wanted === 'original' ? (originalFile ?? file) : file;
}

/**
 * A picture never changes, so the browser may keep it and asks each time whether it may still show it: whoever signed out may
 * not.
 */
const PICTURE_CACHE_CONTROL = 'private, no-cache';

/** Pictures of the collection for its members. */
export function pictureRoutes({ write, answer }: Endpoints, database: Database, dataDir: string): void {
  const prepared = {
    prepare: async ({ request }: { request: Request }): Promise<StoredPicture> => {
      captionOf(request);
      idParam(request);
      return storePicture(dataDir, bytesOf(request));
    },
    discard: (stored: StoredPicture): Promise<void> => discardPicture(dataDir, stored),
  };
  write(
    ROUTES.addPicture,
    ({ work, id, request }, stored: StoredPicture) =>
      addPicture(work, { animalId: id }, stored, captionOf(request)),
    prepared,
  );
  write(
    ROUTES.addCardPicture,
    ({ work, id, request }, stored: StoredPicture) =>
      addPicture(work, { clutchId: id }, stored, captionOf(request)),
    prepared,
  );
  answer(ROUTES.picture, async (request, response, { collectionId }) => {
    const picture = await database.models.pictures.findOne({ where: { collectionId, id: idParam(request) } });
    if (!picture) throw notFound('This picture');
    const { copy } = request.query;
    const file = copyOf(picture.get(), copy);
    if (copy === 'original') response.attachment(`picture${extname(file)}`);
    await sendPicture(response, dataDir, file, PICTURE_CACHE_CONTROL);
  });
  write(ROUTES.deletePicture, ({ work, id }) => removePicture(work, dataDir, id));
}

const CAPTION_LENGTH = 200;

function captionOf({ query }: Request): { caption: string; isDrawing: boolean } {
  const caption = typeof query['caption'] === 'string' ? query['caption'] : '';
  if (caption.length > CAPTION_LENGTH)
    throw invalidField('caption', `is too long: at most ${CAPTION_LENGTH} characters`, 'string.max');
  return { caption, isDrawing: query['drawing'] === '1' };
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
  await sendPicture(response, dataDir, file, 'private, no-cache');
}

/** Pictures of published animals for everybody; withdrawn with the page. */
export function publicPictureRoutes(database: Database, dataDir: string, limits: RateLimits): Router {
  const router = Router();
  const guard = limits.guard('page', (request) => String(request.params['slug']));
  router.get(ROUTES.publishedPicture.path, guard, (request, response) =>
    sendStamped(
      database,
      dataDir,
      response,
      `select pic.file, a.number, c.name as collection from pictures pic
         join publications p on p.collection_id = pic.collection_id and p.animal_id = pic.animal_id
         join animals a on a.collection_id = pic.collection_id and a.id = pic.animal_id
         join collections c on c.id = pic.collection_id
        where p.slug = :slug and p.withdrawn_at is null and pic.id = :id`,
      { slug: request.params['slug'], id: idParam(request) },
    ),
  );
  return router;
}
