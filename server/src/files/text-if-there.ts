import { readFileSync } from 'node:fs';

/**
 * The text of a file, or null where there is none.
 *
 * It is read, not asked for: access(2), which existsSync and access call, forgets the capability by which the server passes a
 * folder that only root may enter, and says of what can be read that it is not there.
 */
export function textIfThere(path: string | URL): string | null {
  try {
    return readFileSync(path, 'utf8');
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return null;
    throw error;
  }
}
