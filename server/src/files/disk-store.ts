import { readdir, readFile, rm, stat } from 'node:fs/promises';
import { dirname, join, relative } from 'node:path';
import { codeOf } from '../db/faults.ts';
import { writeDurably } from './durable.ts';
import { fileMissing, type FileStore, type StoredFile } from './file-store.ts';

/** Files in folders on the disk. @param root - the folder that theirs lie in */
export function diskStore(root: string): FileStore {
  const pathOf = ({ folder, name }: StoredFile): string => join(root, folder, name);
  return {
    write: (file, data) => writeDurably(pathOf(file), data),
    async read(file) {
      try {
        return await readFile(pathOf(file));
      } catch (error) {
        throw codeOf(error) === 'ENOENT' ? fileMissing(error) : error;
      }
    },
    async has(file) {
      try {
        // Not access(2): see text-if-there.ts.
        await stat(pathOf(file));
        return true;
      } catch {
        return false;
      }
    },
    async remove(files) {
      for (const file of files) await rm(pathOf(file), { force: true });
    },
    async list(folder, prefix = '') {
      const base = join(root, folder);
      const entries = await readdir(join(base, dirname(prefix)), {
        recursive: true,
        withFileTypes: true,
      }).catch((error: unknown) => {
        if (codeOf(error) === 'ENOENT') return [];
        throw error;
      });
      const found = entries
        .filter((entry) => entry.isFile())
        .map((entry) => join(entry.parentPath, entry.name))
        .filter((path) => relative(base, path).startsWith(prefix));
      const files = found.map(async (path) => {
        // Somebody may remove it meanwhile.
        const info = await stat(path).catch(() => null);
        return info && { folder, name: relative(base, path), ageMs: Date.now() - info.mtimeMs };
      });
      return (await Promise.all(files)).filter((file) => file !== null);
    },
  };
}
