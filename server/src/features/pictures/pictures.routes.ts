import { extname } from 'node:path';
import { ROUTES } from '@karyotome/contract';
import { openRoute } from '../../http/open-route.ts';
import { Router, type Request } from 'express';
import type { Database } from '../../db/work.ts';
import {
  addPicture,
  copyOf,
  discardPicture,
  editPicture,
  storeEdit,
  stampedFile,
  storePicture,
  type PictureCopy,
  type StoredEdit,
  type StoredPicture,
} from '../../domain/pictures/pictures.service.ts';
import { deletePicture } from '../../domain/bin/bin.service.ts';
import { PUBLISHED_PICTURE } from '../../domain/pictures/pictures.queries.ts';
import { checkNotStated } from '../../domain/statements/stated-pictures.ts';
import { idParam } from '../../http/asked.ts';
import { type Endpoints } from '../../http/endpoint.ts';
import type { RateLimits } from '../../http/rate-limits.ts';
import { sendPicture } from '../../http/send-stored.ts';
import { invalidField, notFound, Refusal } from '../../refusal.ts';
import type { FileStore } from '../../files/file-store.ts';

/** Pictures of the collection for its members. */
export function pictureRoutes({ write, answer }: Endpoints, database: Database, files: FileStore): void {
  const prepared = {
    prepare: async ({ request }: { request: Request }): Promise<StoredPicture> => {
      captionOf(request);
      idParam(request);
      return storePicture(files, bytesOf(request));
    },
    discard: (stored: StoredPicture): Promise<void> => discardPicture(files, stored),
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
  write(
    ROUTES.editPicture,
    async ({ work, id, body }, stored: StoredEdit) => {
      await checkNotStated(work, id, 'turn or crop it');
      return editPicture(work, id, stored, body);
    },
    {
      prepare: async ({ id, body }, { collectionId }) => {
        const picture = await database.models.pictures.findOne({ where: { collectionId, id } });
        if (!picture) throw notFound('This picture');
        return storeEdit(files, picture.get(), body);
      },
      discard: (stored) => discardPicture(files, { ...stored, originalFile: null }),
    },
  );
  answer(ROUTES.picture, async (request, response, { collectionId }) => {
    const picture = await database.models.pictures.findOne({ where: { collectionId, id: idParam(request) } });
    if (!picture) throw notFound('This picture');
    const copy = wantedCopy(request);
    const file = copyOf(picture.get(), copy);
    if (copy === 'original') response.attachment(`picture${extname(file.name)}`);
    await sendPicture(response, files, file);
  });
  write(ROUTES.deletePicture, async ({ work, id }) => {
    await checkNotStated(work, id);
    await deletePicture(work, id);
  });
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

/** Which copy is asked for: the one that is shown, unless another is named. */
function wantedCopy({ query }: Request): PictureCopy {
  const { copy } = query;
  return copy === 'thumb' || copy === 'original' ? copy : 'display';
}

/** Pictures of published animals for everybody; withdrawn with the page. */
export function publicPictureRoutes(database: Database, files: FileStore, limits: RateLimits): Router {
  const router = Router();
  const guard = limits.guard('page', (request) => String(request.params['slug']));
  openRoute(router, ROUTES.publishedPicture, guard, async (request, response) => {
    const file = await stampedFile(database, files, PUBLISHED_PICTURE, {
      slug: request.params['slug'],
      id: idParam(request),
    });
    await sendPicture(response, files, file);
  });
  return router;
}
