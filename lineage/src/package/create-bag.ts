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
  const total = [...payload.values()].reduce((sum, { length }) => sum + length, 0);
  const tags = new Map([
    [DECLARATION, utf8ToBytes('BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n')],
    [
      'bag-info.txt',
      utf8ToBytes(`Bagging-Date: ${at.toISOString().slice(0, 10)}\nPayload-Oxum: ${total}.${data.size}\n`),
    ],
    [MANIFEST, manifestOf(data)],
  ]);
  const all = new Map([...tags, [TAG_MANIFEST, manifestOf(tags)] as const, ...data]);
  const zip = new ZipWriter(new Uint8ArrayWriter(), { lastModDate: at });
  for (const [path, bytes] of all)
    await zip.add(`${name}/${path}`, new Uint8ArrayReader(bytes), IS_PACKED.test(path) ? { level: 0 } : {});
  return zip.close();
}

/** Section 2.1.3: a digest and a path on each line, line feeds and carriage returns of a path percent-encoded. */
function manifestOf(files: ReadonlyMap<string, Uint8Array>): Uint8Array {
  const encoded = (path: string): string => path.replace(/[%\r\n]/g, encodeURIComponent);
  const lines = [...files].map(([path, bytes]) => `${bytesToHex(sha256(bytes))}  ${encoded(path)}\n`);
  return utf8ToBytes(lines.join(''));
}
