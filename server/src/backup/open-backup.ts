import { DamagedArchive, readBag, readJsonOf } from '../files/bag-reader.ts';
import { DESCRIPTION, description, DUMP, FILES, type Description } from './archive.ts';

/** A backup whose every file is what was written. */
export interface OpenBackup {
  readonly description: Description;
  /** The names of its files, `<folder>/<name>`. */
  readonly files: readonly string[];
  /** Unpacks one of its files. */
  readFile(file: string): Promise<Uint8Array>;
  /** Unpacks the dump into a stream, which is closed at the end. */
  writeDump(target: WritableStream<Uint8Array>): Promise<void>;
}

/**
 * Reads the whole archive once, and holds every file against the manifests.
 *
 * @param descriptor - of the open file, which stays open
 * @throws DamagedArchive naming what is wrong
 */
export async function openBackup(descriptor: number): Promise<OpenBackup> {
  const bag = await readBag(descriptor);
  if (!bag.has(DUMP)) throw new DamagedArchive(`it lacks ${DUMP}`);
  return {
    description: await readJsonOf(bag, DESCRIPTION, description),
    files: bag.paths.filter((path) => path.startsWith(FILES)).map((path) => path.slice(FILES.length)),
    readFile: (file) => bag.read(FILES + file),
    writeDump: (target) => bag.write(DUMP, target),
  };
}
