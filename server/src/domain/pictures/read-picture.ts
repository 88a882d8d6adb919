import { readFile } from 'node:fs/promises';
import { codeOf } from '../../db/faults.ts';
import { Refusal } from '../../refusal.ts';

/**
 * Reads the file of a picture that was found a moment ago.
 *
 * @throws Refusal where somebody removed it meanwhile
 */
export async function readPicture(path: string): Promise<Buffer> {
  try {
    return await readFile(path);
  } catch (error) {
    if (codeOf(error) !== 'ENOENT') throw error;
    throw new Refusal(
      'conflict',
      'A picture was removed meanwhile: try again. If it happens again, its file is missing from the data folder.',
      { cause: error },
    );
  }
}
