import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { configure, Uint8ArrayReader, Uint8ArrayWriter, ZipWriter } from '@zip.js/zip.js';
import { DECLARATION, MANIFEST, PAYLOAD, TAG_MANIFEST } from './bag-layout.ts';

configure({ useWebWorkers: false });

/** Pictures are compressed already. */
const IS_PACKED = /\.(jpe?g|png|webp)$/;

/**
 * Packs files as a BagIt bag (RFC 8493, version 1.0) in a zip, in a folder of its own as section 4 wants it.
 *
 * @param name - of the folder
 * @param payload - by path within `data/`
 * @param at - the moment that the archive gives its entries
 */
export async function createBag(
  name: string,
  payload: ReadonlyMap<string, Uint8Array>,
  at: Date,
): Promise<Uint8Array> {
  const data = new Map([...payload].map(([path, bytes]) => [PAYLOAD + path, bytes]));
  const summaries = [...payload].map(([path, bytes]) => [path, summaryOf(bytes)] as const);
  const all = new Map([...bagTags(new Map(summaries), at), ...data]);
  const zip = new ZipWriter(new Uint8ArrayWriter(), { lastModDate: at });
  for (const [path, bytes] of all)
    await zip.add(`${name}/${path}`, new Uint8ArrayReader(bytes), IS_PACKED.test(path) ? { level: 0 } : {});
  return zip.close();
}

/** What a manifest needs of a file. */
export interface FileSummary {
  /** SHA-256, 64 hexadecimal digits in small letters. */
  readonly digest: string;
  /** Bytes. */
  readonly length: number;
}

const summaryOf = (bytes: Uint8Array): FileSummary => ({
  digest: bytesToHex(sha256(bytes)),
  length: bytes.length,
});

/**
 * The files that make a folder a bag, by path within it: declaration, information and manifests.
 *
 * @param payload - by path within `data/`
 */
export function bagTags(payload: ReadonlyMap<string, FileSummary>, at: Date): Map<string, Uint8Array> {
  const total = [...payload.values()].reduce((sum, { length }) => sum + length, 0);
  const data = [...payload].map(([path, file]) => [PAYLOAD + path, file] as const);
  const tags = new Map([
    [DECLARATION, utf8ToBytes('BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n')],
    [
      'bag-info.txt',
      utf8ToBytes(`Bagging-Date: ${at.toISOString().slice(0, 10)}\nPayload-Oxum: ${total}.${payload.size}\n`),
    ],
    [MANIFEST, manifestOf(data)],
  ]);
  const listed = [...tags].map(([path, bytes]) => [path, summaryOf(bytes)] as const);
  return tags.set(TAG_MANIFEST, manifestOf(listed));
}

/** Section 2.1.3: a digest and a path on each line, line feeds and carriage returns of a path percent-encoded. */
function manifestOf(files: readonly (readonly [string, FileSummary])[]): Uint8Array {
  const encoded = (path: string): string => path.replace(/[%\r\n]/g, encodeURIComponent);
  return utf8ToBytes(files.map(([path, { digest }]) => `${digest}  ${encoded(path)}\n`).join(''));
}
