import { randomUUID } from 'node:crypto';
import type { PictureEdit } from '@karyotome/contract';
import { QueryTypes } from 'sequelize';
import type { PictureRow } from '../../db/rows.ts';
import type { Actor, Database, Work } from '../../db/work.ts';
import { namedByContent, type FileStore, type StoredFile } from '../../files/file-store.ts';
import { notFound, Refusal } from '../../refusal.ts';
import { findAnimal } from '../animals/animals.service.ts';
import { findClutch } from '../season/clutches.repository.ts';
import {
  FORMATS,
  makeCopies,
  pictureFile,
  stampedCopiesOf,
  stampedCopy,
  type PictureCopies,
} from './picture-copies.ts';

type Subject = { readonly animalId: string } | { readonly clutchId: string };

export interface StoredPicture {
  readonly id: string;
  readonly takenOn: string | null;
  readonly width: number;
  readonly height: number;
  readonly file: string;
  readonly thumbFile: string;
  readonly originalFile: string;
}

/** Copies of a picture that was turned or cropped, as they are stored. */
export interface StoredEdit extends Pick<StoredPicture, 'width' | 'height' | 'file' | 'thumbFile'> {
  /** The copy that they take the place of. */
  readonly instead: string;
}

/** Makes a picture's copies anew from its original, and stores them: outside any transaction, since it takes long. */
export async function storeEdit(
  files: FileStore,
  picture: Pick<PictureRow, 'file' | 'originalFile'>,
  edit: PictureEdit,
): Promise<StoredEdit> {
  const original = await files.read(pictureFile(picture.originalFile ?? picture.file));
  const stored = await storeCopies(files, randomUUID(), await makeCopies(original, edit));
  return { ...stored, instead: picture.file };
}

/** Stores what is shown of a picture. @param more - files that belong to it: stored with them, or none */
async function storeCopies(
  files: FileStore,
  id: string,
  { display, thumb }: Pick<PictureCopies, 'display' | 'thumb'>,
  more: Readonly<Record<string, Buffer>> = {},
): Promise<Omit<StoredEdit, 'instead'>> {
  const file = namedByContent(`${id}.webp`, display.data);
  const thumbFile = namedByContent(`thumbs/${id}.webp`, thumb);
  const written = Object.entries({ [file]: display.data, [thumbFile]: thumb, ...more });
  try {
    for (const [name, data] of written) await files.write(pictureFile(name), data);
  } catch (error) {
    await files.remove(written.map(([name]) => pictureFile(name)));
    throw error;
  }
  return { width: display.info.width, height: display.info.height, file, thumbFile };
}

/** Shows a picture by its new copies. The copies before go with the next sweep of files. */
export async function editPicture(
  work: Work<Actor>,
  id: string,
  { instead, ...copies }: StoredEdit,
  edit: PictureEdit,
): Promise<{ id: string }> {
  const [changed] = await work.models.pictures.update(
    { ...copies, edit },
    { where: { collectionId: work.actor.collectionId, id, file: instead }, transaction: work.transaction },
  );
  if (changed === 0)
    throw new Refusal('conflict', 'This picture was changed or deleted meanwhile. Look at it again.');
  return { id };
}

/** Stores a picture's copies and the original: outside any transaction, since it takes long. */
export async function storePicture(files: FileStore, bytes: Buffer): Promise<StoredPicture> {
  const copies = await makeCopies(bytes);
  const id = randomUUID();
  const originalFile = namedByContent(`originals/${id}.${FORMATS[copies.format]}`, bytes);
  const stored = await storeCopies(files, id, copies, { [originalFile]: bytes });
  return { id, takenOn: copies.takenOn, ...stored, originalFile };
}

const filesOf = ({
  file,
  thumbFile,
  originalFile,
}: Pick<PictureRow, 'file' | 'thumbFile' | 'originalFile'>) =>
  [file, thumbFile, originalFile].filter((name) => name !== null).map(pictureFile);

/** Takes a picture's files away, its stamped copies with them. */
export async function discardPicture(
  files: FileStore,
  picture: Pick<PictureRow, 'file' | 'thumbFile' | 'originalFile'>,
): Promise<void> {
  await files.remove([...filesOf(picture), ...(await stampedCopiesOf(files, picture.file))]);
}

/** Enters a stored picture of an animal, or of a clutch's card. */
export async function addPicture(
  work: Work<Actor>,
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

/** The copies of a picture that can be asked for. */
export type PictureCopy = 'display' | 'thumb' | 'original';

export function copyOf({ file, thumbFile, originalFile }: PictureRow, copy: PictureCopy): StoredFile {
  if (copy === 'thumb') return pictureFile(thumbFile ?? file);
  return pictureFile(copy === 'original' ? (originalFile ?? file) : file);
}

/**
 * The copy for outside eyes, with the animal's number and the collection's name on it.
 *
 * @param width - pixels at most; null for the picture as it is shown
 * @param from - SQL of this project's own that yields `file`, `number` and `collection` of at most one picture
 */
export async function stampedFile(
  database: Database,
  files: FileStore,
  from: string,
  replacements: Record<string, unknown>,
  width: number | null = null,
): Promise<StoredFile> {
  const [row] = await database.sequelize.query<{ file: string; number: string; collection: string }>(from, {
    replacements,
    type: QueryTypes.SELECT,
  });
  if (!row) throw notFound('This picture');
  return pictureFile(await stampedCopy(files, row.file, `${row.number}  ${row.collection}`, width));
}
