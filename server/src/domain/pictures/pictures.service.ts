import { randomUUID } from 'node:crypto';
import type { PictureEdit } from '@karyotome/contract';
import { QueryTypes } from 'sequelize';
import type { PictureRow } from '../../db/rows.ts';
import type { Actor, Database, Work } from '../../db/work.ts';
import { namedByContent, type FileStore, type StoredFile } from '../../files/file-store.ts';
import { notFound, Refusal } from '../../refusal.ts';
import { findAnimal } from '../animals/animals.service.ts';
import { findClutch } from '../season/clutches.repository.ts';
import { FORMATS, makeCopies, pictureFile, stampedCopiesOf, stampedCopy } from './picture-copies.ts';

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
  const { display, thumb } = await makeCopies(original, edit);
  const id = randomUUID();
  const stored = {
    width: display.info.width,
    height: display.info.height,
    file: namedByContent(`${id}.webp`, display.data),
    thumbFile: namedByContent(`thumbs/${id}.webp`, thumb),
  };
  await files.write(pictureFile(stored.file), display.data);
  await files.write(pictureFile(stored.thumbFile), thumb);
  return { ...stored, instead: picture.file };
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
  const { format, takenOn, display, thumb } = await makeCopies(bytes);
  const id = randomUUID();
  const stored = {
    id,
    takenOn,
    width: display.info.width,
    height: display.info.height,
    file: namedByContent(`${id}.webp`, display.data),
    thumbFile: namedByContent(`thumbs/${id}.webp`, thumb),
    originalFile: namedByContent(`originals/${id}.${FORMATS[format]}`, bytes),
  };
  const written: [string, Buffer][] = [
    [stored.file, display.data],
    [stored.thumbFile, thumb],
    [stored.originalFile, bytes],
  ];
  try {
    for (const [name, data] of written) await files.write(pictureFile(name), data);
  } catch (error) {
    await discardPicture(files, stored);
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
