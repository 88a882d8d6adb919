import type { FileStore } from '../../files/file-store.ts';
import { Refusal } from '../../refusal.ts';
import { pictureFile } from './picture-copies.ts';

/**
 * Reads the file of a picture that was found a moment ago.
 *
 * @throws Refusal where somebody removed it meanwhile
 */
export async function readPicture(files: FileStore, { file }: { readonly file: string }): Promise<Buffer> {
  try {
    return await files.read(pictureFile(file));
  } catch (error) {
    if (!(error instanceof Refusal) || error.code !== 'not-found') throw error;
    throw new Refusal(
      'conflict',
      'A picture was removed meanwhile: try again. If it happens again, its file is missing or damaged.',
      { cause: error },
    );
  }
}
