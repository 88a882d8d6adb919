import { ROUTES, TRUSTS, type TakeInPreview, type Trust } from '@karyotome/contract';
import type { ReceivedAnimal } from '@karyotome/lineage';
import type { Request } from 'express';
import { changeRow } from '../../db/change-rows.ts';
import { reading, touchGenetics, type Actor, type Database } from '../../db/work.ts';
import { removeTaken, takeIn, type TakenAs } from '../../domain/taking-in/take-in.service.ts';
import { idHere } from '../../domain/taking-in/received.ts';
import { previewTakeIn } from '../../domain/taking-in/preview.ts';
import { breederViews, knownAnimals, takenViews } from '../../domain/taking-in/taken.queries.ts';
import { makeHandOver } from '../../domain/taking-in/hand-over.ts';
import {
  addPicture,
  discardPicture,
  storePicture,
  type StoredPicture,
} from '../../domain/pictures/pictures.service.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { invalidField, Refusal } from '../../refusal.ts';
import { inThread } from '../../threads/pool.ts';
import type { FileStore } from '../../files/file-store.ts';

interface Prepared {
  readonly animals: readonly ReceivedAnimal[];
  /** For each animal, its pictures that could be read. */
  readonly pictures: readonly (readonly StoredPicture[])[];
  readonly as: TakenAs;
  readonly trust: Trust | null;
}

export function takingInRoutes({ list, read, write }: Endpoints, database: Database, files: FileStore): void {
  read(
    ROUTES.previewTakeIn,
    async ({ request, work }) => {
      const animals = await receivedIn(request);
      return Promise.all(animals.map((animal) => previewTakeIn(work, animal)));
    },
    {
      finish: async (previewed): Promise<TakeInPreview[]> =>
        Promise.all(
          previewed.map(async ({ preview, trial, numbers }) => {
            const conflicts = await inThread('try-inference', trial);
            return {
              ...preview,
              conflicts: [
                ...preview.conflicts,
                ...conflicts.map(({ locus, animals }) => ({
                  code: 'records-contradict' as const,
                  facts: { locus, numbers: animals.map((id) => numbers.get(id) ?? '') },
                })),
              ],
            };
          }),
        ),
    },
  );
  write(
    ROUTES.takeIn,
    async ({ work }, { animals, pictures, as, trust }: Prepared) => {
      const ids: string[] = [];
      for (const [i, animal] of animals.entries()) {
        const id = await takeIn(work, animal, as, trust);
        for (const picture of pictures[i]!)
          await addPicture(work, { animalId: id }, picture, {
            caption: `From ${animal.verification.issuer.name}`.slice(0, 200),
            isDrawing: false,
          });
        ids.push(id);
      }
      return { ids };
    },
    {
      prepare: ({ request }, actor) => prepare(database, files, request, actor),
      discard: async ({ pictures }) => {
        for (const picture of pictures.flat()) await discardPicture(files, picture);
      },
    },
  );
  list(ROUTES.taken, ({ work }) => takenViews(work));
  write(ROUTES.removeTaken, ({ work, id }) => removeTaken(work, id));
  list(ROUTES.breeders, ({ work }) => breederViews(work));
  write(ROUTES.changeBreeder, async ({ work, id, body, version }) => {
    const changed = await changeRow(work, work.models.breeders, 'This breeder', { id, version }, body);
    await touchGenetics(work);
    return changed;
  });
  write(ROUTES.handOver, ({ work, id }) => makeHandOver(work, id));
}

function bytesOf({ body }: Request): Buffer {
  if (Buffer.isBuffer(body) && body.length > 0) return body;
  throw new Refusal(
    'wrong-media',
    'Send one statement or package as application/octet-stream or application/zip.',
    [{ field: 'file', code: 'media', message: 'must be a statement or a hand-over package' }],
  );
}

const receivedIn = async (request: Request): Promise<ReceivedAnimal[]> =>
  inThread('receive-file', { bytes: new Uint8Array(bytesOf(request)) });

async function prepare(
  database: Database,
  files: FileStore,
  request: Request,
  actor: Actor,
): Promise<Prepared> {
  const { as = 'own', trust } = request.query;
  if (as !== 'own' && as !== 'outside') throw invalidField('as', 'must be own or outside');
  if (trust !== undefined && !TRUSTS.some((one) => one === trust))
    throw invalidField('trust', `must be one of ${TRUSTS.join(', ')}`);
  const animals = await receivedIn(request);
  const newcomers = as === 'own' ? await newcomersAmong(database, actor, animals) : [];
  const pictures: StoredPicture[][] = [];
  for (const animal of animals) {
    const stored: StoredPicture[] = [];
    const takenOn = new Map(
      animal.statement.credentialSubject.pictures?.map((picture) => [picture.file, picture.takenOn ?? null]),
    );
    for (const { file, bytes } of newcomers.includes(animal) ? animal.pictures : []) {
      // A picture that cannot be read is no reason to refuse the animal.
      const picture = await storePicture(files, Buffer.from(bytes)).catch((error: unknown) => {
        if (error instanceof Refusal && error.code === 'invalid') return null;
        throw error;
      });
      if (picture) stored.push({ ...picture, takenOn: picture.takenOn ?? takenOn.get(file) ?? null });
    }
    pictures.push(stored);
  }
  return { animals, pictures, as, trust: (trust as Trust | undefined) ?? null };
}

/** Those that hold, and are not here yet: of others it is not worth decoding the pictures. */
async function newcomersAmong(
  database: Database,
  actor: Actor,
  animals: readonly ReceivedAnimal[],
): Promise<ReceivedAnimal[]> {
  const ids = animals.map(idHere);
  const known = new Set(
    (await reading(database, actor, (work) => knownAnimals(work, { ids }))).map(({ id }) => id),
  );
  return animals.filter((animal, i) => animal.verification.valid && !known.has(ids[i]!));
}
