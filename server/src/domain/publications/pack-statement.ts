import { createBag } from '@karyotome/lineage';
import { readPicture } from '../pictures/read-picture.ts';

declare module '../../threads/pool.ts' {
  interface Tasks {
    'pack-statement': typeof packStatement;
  }
}

export interface PackageInput {
  /** Of the folder in the package. */
  readonly name: string;
  /** By path within `data/`. */
  readonly texts: readonly (readonly [string, string])[];
  /** Path within `data/`, and where the file lies. */
  readonly pictures: readonly (readonly [string, string])[];
  /** Milliseconds since 1970, UTC. */
  readonly atMs: number;
}

/** Packs a statement with what goes along. Runs in a thread: digests and compression take their time. */
export async function packStatement({ name, texts, pictures, atMs }: PackageInput): Promise<Uint8Array> {
  const payload = new Map<string, Uint8Array>(texts.map(([path, text]) => [path, Buffer.from(text)]));
  for (const [path, file] of pictures) payload.set(path, await readPicture(file));
  return createBag(name, payload, new Date(atMs));
}
