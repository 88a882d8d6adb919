import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import type { WritableStream } from 'node:stream/web';
import { bagTags, PAYLOAD, type FileSummary } from '@karyotome/lineage';
import { configure, Uint8ArrayReader, ZipWriter } from '@zip.js/zip.js';

configure({ useWebWorkers: false });

/** Of deflate: most of what can be won, in little time. */
const LEVEL = 5;

/** A BagIt bag (RFC 8493) in a zip that is written as it comes: its manifests stand at the end. */
export class BagWriter {
  readonly #zip: ZipWriter<unknown>;
  readonly #payload = new Map<string, FileSummary>();
  readonly #folder: string;
  readonly #at: Date;

  /**
   * @param target - closed at the end
   * @param at - the moment that entries bear
   * @param folder - that all of it lies in; the top where there is none
   */
  constructor(target: WritableStream<Uint8Array>, at: Date, folder: string | null = null) {
    this.#at = at;
    this.#folder = folder === null ? '' : `${folder}/`;
    // What comes is compressed already, unless it is said that it is not.
    this.#zip = new ZipWriter(target as globalThis.WritableStream<Uint8Array>, {
      zip64: true,
      level: 0,
      lastModDate: at,
    });
  }

  /** @param path - within `data/` */
  async add(path: string, bytes: Uint8Array): Promise<void> {
    const digest = createHash('sha256').update(bytes).digest('hex');
    await this.#zip.add(this.#folder + PAYLOAD + path, new Uint8ArrayReader(bytes));
    this.#payload.set(path, { digest, length: bytes.length });
  }

  /** @param isText - worth compressing */
  async addStream(path: string, stream: AsyncIterable<Uint8Array>, { isText = false } = {}): Promise<void> {
    const digest = createHash('sha256');
    let length = 0;
    async function* counted(): AsyncGenerator<Uint8Array> {
      for await (const part of stream) {
        digest.update(part);
        length += part.length;
        yield part;
      }
    }
    const readable = Readable.toWeb(Readable.from(counted(), { objectMode: false }));
    await this.#zip.add(
      this.#folder + PAYLOAD + path,
      readable as globalThis.ReadableStream<Uint8Array>,
      isText ? { level: LEVEL } : {},
    );
    this.#payload.set(path, { digest: digest.digest('hex'), length });
  }

  async close(): Promise<void> {
    for (const [path, bytes] of bagTags(this.#payload, this.#at))
      await this.#zip.add(this.#folder + path, new Uint8ArrayReader(bytes));
    await this.#zip.close();
  }
}
