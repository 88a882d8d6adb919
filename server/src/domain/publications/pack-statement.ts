import { createBag } from '@karyotome/lineage';

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
  /** By path within `data/`. */
  readonly pictures: readonly (readonly [string, Uint8Array])[];
  /** Milliseconds since 1970, UTC. */
  readonly atMs: number;
}

/** Packs a statement with what goes along. Runs in a thread: digests and compression take their time. */
export function packStatement({ name, texts, pictures, atMs }: PackageInput): Promise<Uint8Array> {
  const payload = new Map<string, Uint8Array>([
    ...texts.map(([path, text]) => [path, Buffer.from(text)] as const),
    ...pictures,
  ]);
  return createBag(name, payload, new Date(atMs));
}
