import { digestMultibase, type StatedPicture, type StatementSubject } from '@karyotome/lineage';
import { withoutDigest, type FileStore } from '../../files/file-store.ts';
import type { Work } from '../../db/work.ts';
import { Refusal } from '../../refusal.ts';
import { picturesOf, type PictureOf } from '../pictures/pictures.queries.ts';
import { readPicture } from '../pictures/read-picture.ts';
import { shownPictures } from '../pictures/shown-pictures.ts';
import { offerOf } from '../sales/offers.service.ts';
import { standingOf, statementsOf, subjectOf } from './statements.queries.ts';

/** Under which a picture goes along with its animal: the same in every statement, wherever it stands among the others. */
export const statedName = ({ file }: Pick<PictureOf, 'file'>): string => `pictures/${withoutDigest(file)}`;

const MEDIA_TYPE = 'image/webp';

/** The pictures that buyers see of an animal, each with the digest of its file. */
export async function statedPictures(
  work: Work,
  files: FileStore,
  animalId: string,
): Promise<StatedPicture[]> {
  const { pictureIds } = await offerOf(work, animalId);
  const pictures = shownPictures(await picturesOf(work, { animalIds: [animalId] }), pictureIds);
  return Promise.all(
    pictures.map(async (picture) => ({
      file: statedName(picture),
      mediaType: MEDIA_TYPE,
      ...(picture.takenOn === null ? {} : { takenOn: picture.takenOn }),
      digestMultibase: digestMultibase(await readPicture(files, picture)),
    })),
  );
}

/** @throws Refusal where a picture was removed while the statement was composed */
export async function checkPicturesStand(
  work: Work,
  animalId: string,
  { pictures = [] }: Pick<StatementSubject, 'pictures'>,
): Promise<void> {
  const standing = new Set((await picturesOf(work, { animalIds: [animalId] })).map(statedName));
  if (!pictures.every(({ file }) => standing.has(file)))
    throw new Refusal(
      'conflict',
      'A picture was removed while the statement was being composed. Sign again.',
    );
}

/**
 * A picture stays as long as somebody can hold a statement that names it and ask for its package: one that is missing would
 * make the package untrue.
 *
 * @throws Refusal that says what to do first
 */
export async function checkNotStated(work: Work, pictureId: string, then = 'remove it'): Promise<void> {
  const [standing] = await standingOf(work, { pictureId });
  if (!standing) return;
  const [newest] = await statementsOf(work, standing);
  if (!newest) return;
  const named = subjectOf(newest).pictures ?? [];
  if (named.some(({ file }) => file === statedName(standing)))
    throw new Refusal(
      'conflict',
      `Statement ${newest.statement} names this picture. Hide it from buyers and sign the next statement, then ${then}.`,
    );
}
